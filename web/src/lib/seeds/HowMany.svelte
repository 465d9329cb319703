<script lang="ts">
  // How many cells and seeds for the plants wanted, with any figures.
  import { api, Refused } from '../api/client';
  import type { ToSow } from '../api/client';
  import CheckField from '../fields/CheckField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { bench } from '../bench/workbench.svelte';

  const words = $derived(bench.words);
  const start = bench.facts.forms?.starts.want;
  let wanted = $state(start?.wanted ?? 1);
  let viability: number | undefined = $state(start?.viability ?? undefined);
  let sprouted: number | undefined = $state();
  let of: number | undefined = $state();
  let losses = $state(start?.losses ?? 0);
  let clump = $state(start?.plants_per_cell ?? 1);
  let clusters = $state(start?.seedlings_per_seed ?? 1);
  let fewest = $state(false);
  let sure = $state(start?.sure ?? 0.9);
  let answer: ToSow | undefined = $state.raw();
  let problem = $state('');
  const tested = $derived(sprouted !== undefined && of !== undefined);

  $effect(() => {
    const want = {
      wanted: Math.round(wanted),
      losses,
      sure,
      plants_per_cell: Math.round(clump),
      seedlings_per_seed: clusters,
      fewest,
      ...(tested
        ? { test: { sprouted: Math.round(sprouted!), of: Math.round(of!) } }
        : { viability: viability ?? start?.viability ?? null }),
    };
    let late = false;
    api.toSow(want).then(
      (found) => {
        if (late) return;
        answer = found;
        problem = '';
      },
      (error: unknown) => {
        if (late) return;
        answer = undefined;
        problem = error instanceof Refused ? error.message : 'The server does not answer.';
      },
    );
    return () => {
      late = true;
    };
  });
</script>

<div class="grid grid-cols-3 gap-2">
  <NumberField
    label="Plants wanted"
    value={wanted}
    quantity="count"
    field="/calc/seeds/wanted"
    onset={(n) => (wanted = n)}
  />
  <NumberField
    label="Seed alive"
    value={viability}
    quantity="share"
    field="/calc/seeds/viability"
    onset={(n) => (viability = n)}
  />
  <NumberField
    label="Losses later"
    value={losses}
    quantity="share"
    field="/calc/seeds/losses"
    onset={(n) => (losses = n)}
  />
  <NumberField
    label="Test: came up"
    value={sprouted}
    quantity="count"
    min={0}
    onset={(n) => (sprouted = n)}
    onclear={() => (sprouted = undefined)}
  />
  <NumberField
    label="out of"
    value={of}
    quantity="count"
    min={1}
    onset={(n) => (of = n)}
    onclear={() => (of = undefined)}
  />
  <NumberField
    label="How sure"
    value={sure}
    quantity="share"
    field="/calc/seeds/sure"
    onset={(n) => (sure = n)}
  />
  <NumberField
    label="Plants per cell"
    value={clump}
    quantity="count"
    field="/calc/seeds/plants_per_cell"
    onset={(n) => (clump = n)}
  />
  <NumberField
    label="Seedlings a seed"
    value={clusters}
    quantity="plain"
    field="/calc/seeds/seedlings_per_seed"
    onset={(n) => (clusters = n)}
  />
</div>
<CheckField
  label="Few or dear seeds: one to a cell, none to spare"
  value={fewest}
  onset={(yes) => (fewest = yes)}
/>
{#if problem}<p class="mt-2 text-wine" role="alert">{problem}</p>{/if}
{#if answer}
  <div class="mt-2 rounded-xl bg-straw-soft p-3" data-testid="how-many">
    <b class="block text-lg">{words.say(answer.verdict)}</b>
    {answer.seeds} seeds{#if !answer.open_tray}; {words.number(answer.empty, 'share')} of cells stay empty,
      {Math.round(answer.thinnings)} seedlings come off{/if}{#if tested}. Of the seed {words.number(
        answer.viability.share,
        'share',
      )} is alive,
      {words.number(answer.viability.low, 'share')} to {words.number(
        answer.viability.high,
        'share',
      )} with 90 % certainty; at the low end {words.number(answer.chance_at_worst, 'share')} sure{/if}.
  </div>
{/if}
