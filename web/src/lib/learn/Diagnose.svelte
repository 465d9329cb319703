<script lang="ts">
  // What is seen in a tray, and what it comes from.
  import { page } from '$app/state';
  import { type Diagnosis, type SymptomKind } from '../api/client';
  import { learnApi } from '../api/learn';
  import { bench } from '../bench/workbench.svelte';
  import { walk } from '../today/walk.svelte';

  const { tray }: { tray: string } = $props();
  const words = $derived(bench.words);
  // The address may name what is seen: `?seen=leggy`.
  const seen = page.url.searchParams.get('seen') as SymptomKind | null;
  let open = $state(seen !== null);
  let symptom: SymptomKind | undefined = $state(seen ?? undefined);
  let found: Diagnosis | undefined = $state.raw();
  let problem = $state('');

  const SEEN: Record<SymptomKind, string> = {
    leggy: 'Long thin stems',
    pale: 'Pale or yellow leaves',
    purple: 'Purple leaves',
    burnt_tips: 'Burnt tips',
    collapsed: 'Fallen over at the soil line',
    mould: 'Fuzzy mould',
    flies: 'Tiny flies',
    wilting_wet: 'Wilting though wet',
    nothing_up: 'Nothing came up',
    uneven: 'One side ahead',
  };
  const SPEAKS = {
    strongly: 'the figures show it',
    somewhat: 'the figures fit',
    unknown: 'nothing tells',
    against: 'the figures speak against it',
  };

  $effect(() => {
    if (symptom) void look(bench.view?.id, tray, symptom);
  });

  async function look(plan: number | undefined, id: string, what: SymptomKind) {
    if (plan === undefined) return;
    try {
      const told = await learnApi.diagnosis(plan, id, what, walk.on);
      if (id === tray && what === symptom) [found, problem] = [told, ''];
    } catch (error) {
      problem = error instanceof Error ? error.message : String(error);
    }
  }

  const likely = $derived(found?.causes.filter((cause) => cause.speaks !== 'against') ?? []);
  const unlikely = $derived(found?.causes.filter((cause) => cause.speaks === 'against') ?? []);
  let others = $state(false);
</script>

<div class="mt-3 border-t pt-2" data-testid="diagnose">
  <h3>
    <button class="quiet min-h-11!" aria-expanded={open} onclick={() => (open = !open)}
      >Something wrong with it?</button
    >
  </h3>
  {#if open}
    <div class="mt-1 grid grid-cols-2 gap-2" role="group" aria-label="What do you see?">
      {#each Object.entries(SEEN) as [what, name] (what)}
        <button
          class="quiet min-h-11! justify-center border-line! text-center"
          aria-pressed={symptom === what}
          onclick={() => {
            symptom = what as SymptomKind;
            others = false;
          }}>{name}</button
        >
      {/each}
    </div>
    {#if problem}<p class="mt-2 text-wine" role="alert">{problem}</p>{/if}
    {#if found && found.symptom === symptom}
      <ol class="mt-3 flex flex-col gap-3" data-testid="causes">
        {#each likely as cause, i (cause.code)}
          <li class="rounded-xl border p-3" class:first={i === 0 && cause.speaks !== 'unknown'}>
            <p class="flex flex-wrap justify-between gap-x-2">
              <b>{words.say(cause.what)}</b>
              <span class="text-sm text-soft">{SPEAKS[cause.speaks]}</span>
            </p>
            <p class="text-sm first-letter:uppercase">{words.say(cause.why)}.</p>
            <p class="mt-1 text-sm"><b>Now:</b> {words.say(cause.now)}.</p>
            <p class="text-sm"><b>Next time:</b> {words.say(cause.next_time)}.</p>
          </li>
        {:else}
          <li class="text-soft">
            Nothing in this tray’s figures or log speaks for any of the usual causes. Look at the
            roots, and at the underside of the leaves.
          </li>
        {/each}
      </ol>
      {#if unlikely.length > 0}
        <button class="quiet mt-2" aria-expanded={others} onclick={() => (others = !others)}
          >{others ? 'Hide' : 'Show'} what the figures speak against ({unlikely.length})</button
        >
        {#if others}
          <ul class="text-sm text-soft">
            {#each unlikely as cause (cause.code)}
              <li class="border-t py-1">{words.say(cause.what)}: {words.say(cause.why)}</li>
            {/each}
          </ul>
        {/if}
      {/if}
    {/if}
  {/if}
</div>

<style>
  .first {
    background: var(--straw-soft);
  }
  [aria-pressed='true'] {
    background: var(--teal-soft);
    font-weight: 600;
  }
</style>
