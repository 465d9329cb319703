<script lang="ts">
  // The guided start: one question a screen, the room growing beside it. All it does are edits of the
  // plan, one by one; so it can be left, taken up and undone anywhere.
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { Button } from 'flowbite-svelte';
  import { tick, untrack } from 'svelte';
  import { api } from '../api/client';
  import { begin, beginWithDemo } from '../bench/plans';
  import { bench } from '../bench/workbench.svelte';
  import OpenFile from '../setup/OpenFile.svelte';
  import Room from '../room/canvas/Room.svelte';
  import Corner from './Corner.svelte';
  import Crops from './Crops.svelte';
  import Frost from './Frost.svelte';
  import Home from './Home.svelte';
  import Season from './Season.svelte';
  import Stands from './Stands.svelte';
  import { after, before, stepFrom, steps, type StepId } from './steps';

  const begun = $derived(bench.stage === 'ready' && bench.draft !== undefined);
  const step = $derived(begun ? stepFrom(page.url.searchParams.get('step')) : 'home');
  const next = $derived(after(step));
  const questions: Record<StepId, string> = {
    home: 'Where do you grow?',
    frost: 'When is your last frost?',
    corner: 'How big is your corner?',
    stands: 'What stands in your corner?',
    crops: 'What will you grow?',
    season: 'Your season',
  };
  const nextSays: Record<StepId, string> = {
    home: 'Next: last frost',
    frost: 'Next: your corner',
    corner: 'Next: shelves and lamps',
    stands: 'Next: what to grow',
    crops: 'Next: your season',
    season: 'Open the room',
  };

  let form: HTMLFormElement | undefined = $state();
  let asked: HTMLElement | undefined = $state();

  async function to(id: StepId) {
    // Whatever is being typed is taken first.
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    await bench.settle();
    await goto(`/start?step=${id}`, { keepFocus: true });
  }

  /** The first question is left open with an empty plan; its figures can be set in Setup. */
  async function skip() {
    if (!begun) await begin(await api.blankPlan(), 'began with an empty plan');
    await to(next!);
  }

  async function leave() {
    await bench.settle();
    await goto('/');
  }

  async function empty() {
    await begin(await api.blankPlan(), 'began with an empty plan');
    await goto('/');
  }

  async function demo() {
    await beginWithDemo();
    await goto('/');
  }

  // A new question begins at its top, with the first thing to fill in.
  $effect(() => {
    void step;
    untrack(() =>
      tick().then(() => {
        asked?.scrollTo(0, 0);
        // Never a button: Enter would press it unread.
        const field = form?.querySelector<HTMLElement>('[data-question] input');
        const mouse = matchMedia('(pointer: fine)').matches;
        (mouse && field ? field : form?.querySelector<HTMLElement>('h1'))?.focus();
      }),
    );
  });
</script>

<svelte:head><title>{questions[step]} · Faint Sunrise</title></svelte:head>

<header class="flex flex-wrap items-center gap-x-4 border-b px-4 py-1.5">
  <a class="font-display flex items-center gap-2 text-xl font-bold" href="/">
    <svg width="34" height="20" viewBox="0 0 34 20" aria-hidden="true">
      <path d="M8 14a9 9 0 0 1 18 0z" fill="var(--coral)" />
      <path d="M1 17h32" stroke="var(--ink)" stroke-width="2" stroke-linecap="round" />
    </svg>
    Faint Sunrise
  </a>
  <span class="truncate text-soft max-sm:hidden">{bench.draft?.name ?? 'A new season'}</span>
  <nav class="ml-auto flex flex-wrap items-center" aria-label="Other ways to begin">
    {#if begun}
      <button class="quiet" onclick={() => void leave()}>Leave for now</button>
    {/if}
    <button class="quiet" onclick={() => void empty()}>An empty plan</button>
    <button class="quiet" onclick={() => void demo()}>The demo</button>
    <OpenFile label="A plan file" plain onopened={() => void goto('/')} />
  </nav>
</header>

<main class="flex min-h-0 grow max-lg:flex-col">
  <!-- The fields in it have the keys; the form only keeps Enter from going on. -->
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <form
    bind:this={form}
    class="flex min-h-0 w-full flex-col lg:w-[29rem] lg:shrink-0 lg:border-r"
    novalidate
    onkeydown={(event) => {
      // Enter takes what was typed; only a button goes on.
      if (event.key === 'Enter' && event.target instanceof HTMLInputElement) event.preventDefault();
    }}
    onsubmit={(event) => {
      event.preventDefault();
      if (!begun) return;
      void (next ? to(next) : leave());
    }}
  >
    <div class="min-h-0 grow p-4 lg:overflow-y-auto lg:px-8 lg:py-6" bind:this={asked}>
      <nav aria-label="Steps">
        <ol class="flex flex-wrap gap-x-1 text-sm text-soft">
          {#each steps as { id, name }, i (id)}
            <li class="flex items-center gap-1">
              {#if i > 0}<span aria-hidden="true">·</span>{/if}
              <button
                type="button"
                class="min-h-8 rounded px-1 hover:underline disabled:no-underline {step === id
                  ? 'font-semibold text-coral'
                  : ''}"
                aria-current={step === id ? 'step' : undefined}
                disabled={!begun}
                onclick={() => void to(id)}>{name}</button
              >
            </li>
          {/each}
        </ol>
      </nav>
      <h1 class="mt-2 mb-2 text-3xl outline-none" tabindex="-1">{questions[step]}</h1>
      <div data-question>
        {#if step === 'home'}<Home />
        {:else if step === 'frost'}<Frost />
        {:else if step === 'corner'}<Corner />
        {:else if step === 'stands'}<Stands />
        {:else if step === 'crops'}<Crops />
        {:else}<Season />{/if}
      </div>
    </div>
    <div
      class="flex flex-wrap items-center gap-3 border-t bg-paper px-4 py-3 max-lg:sticky max-lg:bottom-0 lg:px-8"
    >
      <Button type="submit" class="bg-coral! text-base! text-on-coral!" disabled={!begun}
        >{nextSays[step]}</Button
      >
      {#if begun && before(step)}
        <button type="button" class="quiet border-frame!" onclick={() => void to(before(step)!)}
          >Back</button
        >
      {/if}
      {#if next}
        <button type="button" class="quiet" onclick={() => void skip()}>Skip</button>
      {/if}
    </div>
  </form>
  <section
    class="relative flex min-h-72 min-w-0 grow pt-2 max-lg:h-72 max-lg:shrink-0"
    aria-label="The room so far"
  >
    {#if begun}<Room />{:else}
      <div class="m-auto max-w-sm p-6 text-center text-soft">
        <svg width="180" height="105" viewBox="0 0 34 20" class="mx-auto mb-4" aria-hidden="true">
          <path d="M8 14a9 9 0 0 1 18 0z" fill="var(--coral)" />
          <path d="M1 17h32" stroke="var(--ink)" stroke-width="1.2" stroke-linecap="round" />
        </svg>
        Six short questions, and your seedlings have dates and a place to stand. Everything can be changed
        later.
      </div>
    {/if}
  </section>
</main>
