<script lang="ts">
  import '../app.css';
  import { goto, pushState, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { Button } from 'flowbite-svelte';
  import { onMount, untrack } from 'svelte';
  import { chapter, chapterFrom } from '$lib/room/bay/chapter.svelte';
  import { build } from '$lib/room/build/actions';
  import { following } from '$lib/room/trays/following.svelte';
  import Ribbon from '$lib/ribbon/Ribbon.svelte';
  import Conflict from '$lib/shell/Conflict.svelte';
  import Find from '$lib/shell/Find.svelte';
  import { screen } from '$lib/shell/ground.svelte';
  import Header from '$lib/shell/Header.svelte';
  import Help from '$lib/shell/Help.svelte';
  import { onKey } from '$lib/shell/keys';
  import Part from '$lib/shell/Part.svelte';
  import { shell } from '$lib/shell/shell.svelte';
  import SowDialog from '$lib/sowing/SowDialog.svelte';
  import Start from '$lib/start/Start.svelte';
  import { bench } from '$lib/bench/workbench.svelte';

  const { children } = $props();
  let asideRead = $state(false);
  /** Nothing is there yet, or somebody goes through the questions again. */
  const starting = $derived(
    bench.stage === 'empty' || (bench.stage === 'ready' && page.route.id === '/start'),
  );
  const WATCH_MS = 5000;

  onMount(() => {
    bench.chooseUnits(screen.units);
    pickFromAddress();
    if (page.url.searchParams.has('build')) build();
    void bench.load(page.url.searchParams.get('on'));
    // On a phone the walk comes first.
    if (page.url.pathname === '/' && !location.search && innerWidth < 640)
      void goto('/today', { replaceState: true });
    const watch = setInterval(() => void bench.watch(), WATCH_MS);
    return () => clearInterval(watch);
  });

  /** Picks what the address names. */
  function pickFromAddress() {
    const asked = new URLSearchParams(location.search);
    const [place, tier] = asked.get('bay')?.split('/') ?? [];
    const whole = asked.get('place');
    chapter.open = chapterFrom(asked.get('chapter'));
    if (place && tier) bench.select({ place, tier });
    else bench.pick(whole ? { place: whole } : undefined);
  }

  $effect(() => {
    bench.starting = starting;
  });

  // With nothing there yet the questions come first, and who types already goes on typing.
  $effect(() => {
    if (bench.stage === 'empty' && page.url.pathname !== '/start')
      void goto('/start', { keepFocus: true });
  });

  // Keys typed right after a dialog closed were meant for it, and the focus goes back to the page's
  // content rather than to nothing.
  let wasOpen = false;
  $effect(() => {
    if (wasOpen && !shell.open) shell.closedAt = performance.now();
    wasOpen = shell.open;
  });
  let main: HTMLElement | undefined = $state();
  function lostFocus() {
    requestAnimationFrame(() => {
      if (document.activeElement === document.body && !shell.open && document.hasFocus())
        (document.querySelector<HTMLElement>('[data-sheet]') ?? main)?.focus({
          preventScroll: true,
        });
    });
  }

  $effect(() => following.follow());

  $effect(() => {
    document.documentElement.classList.toggle('dark', screen.ground === 'night');
  });

  // The address names the day and what is picked, so that reloading and passing it on show the same.
  // Opening a sheet is a step that the browser's Back takes back.
  $effect(() => {
    const date = bench.date;
    const bay = bench.hand.selected;
    const place = bench.place?.id;
    const building = bench.building;
    const open = chapter.open;
    if (!date || starting) return;
    untrack(() => {
      const url = new URL(location.href);
      const set = (name: string, value: string | undefined) =>
        value === undefined ? url.searchParams.delete(name) : url.searchParams.set(name, value);
      const was = url.searchParams.get('bay') ?? url.searchParams.get('place');
      set('on', date);
      set('bay', bay && `${bay.place}/${bay.tier}`);
      set('place', place);
      set('chapter', bay && open !== 'light' ? open : undefined);
      set('build', building ? '' : undefined);
      if (url.href === location.href) return;
      const opens = was === null && (bay !== undefined || place !== undefined);
      if (opens) pushState(url, page.state);
      else replaceState(url, page.state);
    });
  });

  function leaving(event: BeforeUnloadEvent) {
    if (!bench.unsaved) return;
    void bench.settle();
    event.preventDefault();
  }
</script>

<svelte:window
  onkeydown={onKey}
  onbeforeunload={leaving}
  onpopstate={() => setTimeout(pickFromAddress)}
  onfocusout={lostFocus}
/>

{#if bench.stage === 'ready' && !starting}
  <nav class="skip" aria-label="Skip">
    <a href="#content">Skip to the content</a>
    {#if page.url.pathname === '/'}
      <a href="#stage">Skip to the room</a>
      <a href="#sheet">Skip to the panel</a>
    {/if}
  </nav>
{/if}
<div
  class="flex h-full flex-col max-lg:h-auto max-sm:pb-14 lg:overflow-hidden print:block print:h-auto print:overflow-visible"
>
  {#if !starting}<div class="print:hidden"><Header /></div>{/if}
  {#if !bench.connected}
    <p class="bg-wine-soft px-4 py-2 text-wine" role="alert">
      <b>Connection lost.</b>
      {bench.unsaved
        ? 'Your last change is kept here and saved as soon as the server is back.'
        : 'Figures stay as they are until the server is back.'}
    </p>
  {/if}
  {#if bench.trouble}
    <p class="bg-wine-soft px-4 py-2 text-wine" role="alert" data-testid="trouble">
      <b>Nothing can be saved just now.</b>
      {bench.trouble}{#if bench.unsaved}<br />Your last change is kept here and saved as soon as
        that is put right.{/if}
    </p>
  {/if}
  {#if bench.setAside && !asideRead}
    <p class="flex gap-3 bg-wine-soft px-4 py-2 text-wine" role="alert" data-testid="set-aside">
      <span class="grow"
        ><b>The database was damaged when the server started.</b> It was put aside as
        {bench.setAside}, unchanged, and an empty one was begun.</span
      >
      <button class="quiet" onclick={() => (asideRead = true)}>Dismiss</button>
    </p>
  {/if}
  {#if starting}
    <Part what="the guided start"><Start /></Part>
  {:else if bench.stage === 'ready'}
    <div class="print:hidden"><Part what="the season ribbon"><Ribbon /></Part></div>
    <main
      bind:this={main}
      id="content"
      tabindex="-1"
      class="flex min-h-0 grow flex-col outline-none lg:overflow-y-auto print:block print:overflow-visible"
      data-round-trip={bench.whatIf.roundTripMs}
    >
      <Part what="this view">{@render children()}</Part>
    </main>
  {:else}
    <main class="grid grow place-items-center p-6 text-center">
      {#if bench.stage === 'loading'}
        <p class="text-lg text-soft" role="status">Loading your plan…</p>
      {:else if bench.stage === 'failed'}
        <div role="alert">
          <h1 class="text-2xl">Your plan could not be loaded</h1>
          <p class="mt-2 mb-4 text-soft">{bench.failure}</p>
          <Button class="bg-coral! text-on-coral!" onclick={() => void bench.load(null)}
            >Try again</Button
          >
          {#if bench.others.length > 0}
            <h2 class="mt-6 text-lg">Open another plan</h2>
            <ul class="mt-1" data-testid="other-plans">
              {#each bench.others.filter((plan) => plan.readable) as plan (plan.id)}
                <li>
                  <button
                    class="quiet border-frame! font-semibold"
                    onclick={() => void bench.load(null, plan.id)}>{plan.name}</button
                  >
                </li>
              {/each}
            </ul>
          {/if}
        </div>
      {/if}
    </main>
  {/if}
</div>

<Find />
<SowDialog />
<Help />
<Conflict />

<div
  class="pointer-events-none fixed bottom-4 left-4 z-50 max-sm:bottom-16 flex flex-col gap-2"
  role="status"
  aria-live="polite"
>
  {#each bench.notices.list.filter((notice) => !starting || notice.tone === 'wrong') as notice (notice.id)}
    <div
      class="card pointer-events-auto flex max-w-lg items-start gap-3 px-4 py-2 whitespace-pre-line shadow-lg"
      class:text-wine={notice.tone === 'wrong'}
    >
      <span class="grow">{notice.text}</span>
      <button aria-label="Dismiss" onclick={() => bench.notices.dismiss(notice.id)}>✕</button>
    </div>
  {/each}
</div>
