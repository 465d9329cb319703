<script lang="ts">
  // What the lamps cost that day, said unasked, and what gives the same light for less.
  import { api, type Savings } from '../api/client';
  import { Asked } from '../bench/asked.svelte';
  import { bench } from '../bench/workbench.svelte';

  const words = $derived(bench.words);
  const asked = new Asked<Savings>();
  const found = $derived(asked.answer);
  const fresh = $derived(asked.fresh(bench.date ?? ''));

  /** What saves most is shown first, the rest when it is asked for. */
  const FIRST = 4;
  let all = $state(false);

  // Asked unasked once, when the hand rests; after an edit by hand: it takes seconds of both processors.
  const REST_MS = 900;
  $effect(() => {
    const [draft, date] = [bench.draft, bench.date];
    if (!draft || !date || asked.state !== 'no' || asked.problem) return;
    const rest = setTimeout(() => void look(), REST_MS);
    return () => clearTimeout(rest);
  });
  async function look() {
    const [draft, date] = [bench.draft, bench.date];
    if (draft && date) await asked.ask(date, () => api.savings(draft, date, () => undefined));
  }
</script>

{#if found && found.cost_per_day > 0}
  <div
    class="rounded-xl border p-3"
    class:bg-straw-soft={fresh && found.ways.length > 0}
    data-testid="savings"
  >
    <h3 class="text-lg">{words.say(found.verdict)}</h3>
    <ul class="mt-2 flex flex-col gap-2">
      {#each all ? found.ways : found.ways.slice(0, FIRST) as way (way.bay.place + way.bay.tier)}
        <li>
          <div class="flex flex-wrap items-center justify-between gap-x-3 gap-y-1">
            <span class="min-w-40 flex-1"
              ><span class="font-semibold">{way.name}:</span>
              {words.say(way.what).replace(/^./, (first) => first.toLowerCase())}, {words.number(
                way.costs_then,
                'money',
              )} instead of {words.number(way.costs_now, 'money')}</span
            >
            {#if fresh}
              <button class="quiet border-line!" onclick={() => void bench.apply(way.fix)}
                >{words.say(way.fix.label)}</button
              >
            {/if}
          </div>
        </li>
      {/each}
    </ul>
    {#if found.ways.length > FIRST}
      <button class="quiet mt-2 border-line!" aria-expanded={all} onclick={() => (all = !all)}
        >{all ? 'Only what saves most' : `Other shelves: ${found.ways.length - FIRST}`}</button
      >
    {/if}
    {#if !fresh}
      <button
        class="quiet mt-2 border-line!"
        disabled={asked.state === 'waiting'}
        onclick={() => void look()}
        >{asked.state === 'waiting'
          ? 'Looking…'
          : 'The plan or the day has changed: look again'}</button
      >
    {/if}
  </div>
{:else if asked.state === 'waiting'}
  <p class="text-soft">Looking for the same light for less…</p>
{/if}
{#if asked.problem}<p class="text-sm text-wine" role="alert">{asked.problem}</p>{/if}
