<script lang="ts">
  // Other set-ups of a bay beside the one that is there.
  import { api } from '../../../api/client';
  import { Asked } from '../../../bench/asked.svelte';
  import type { BayOnDay, SetUp } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';
  import AskButton from '../../../fields/AskButton.svelte';
  import ChoiceField from '../../../fields/ChoiceField.svelte';

  const { bay }: { bay: BayOnDay } = $props();

  const words = $derived(bench.words);
  const asked = new Asked<SetUp[]>();
  const all = $derived(asked.answer ?? []);
  let chosen = $state('');
  const key = $derived(`${bay.bay.place}/${bay.bay.tier} ${bench.date}`);
  const fresh = $derived(asked.fresh(key));

  async function ask() {
    await asked.ask(key, () => api.compare(bench.draft!, bay.bay, bench.date));
    chosen = asked.answer?.[1]?.code ?? '';
  }

  const now = $derived(all[0]);
  const then = $derived(all.find((setUp) => setUp.code === chosen));
  const names = $derived(
    Object.fromEntries(all.slice(1).map((setUp) => [setUp.code, words.say(setUp.name)])),
  );
  const rows = $derived(
    now && then
      ? ([
          ['Hang at', (s) => (s.height_mm == null ? '–' : words.number(s.height_mm, 'length_mm'))],
          ['Hours a day', (s) => (s.height_mm == null ? '–' : words.number(s.hours_h, 'hours'))],
          ['Daily light, average', (s) => words.bare(s.light.dli.mean, 'dli_mol_m2_d')],
          ['Daily light, darkest', (s) => words.bare(s.light.dli.worst, 'dli_mol_m2_d')],
          ['DLI, best', (s) => words.bare(s.light.dli.best, 'dli_mol_m2_d')],
          ['Evenness (darkest to average)', (s) => words.number(s.light.evenness, 'share')],
          ['Cells too dark', (s) => words.number(s.light.under, 'share')],
          ['Cells too bright', (s) => words.number(s.light.over, 'share')],
          ['Draws', (s) => words.number(s.power.watts, 'power_w')],
          ['Costs a day', (s) => words.number(s.power.cost_per_day, 'money')],
        ] as [string, (setUp: SetUp) => string][])
      : [],
  );

  function take() {
    if (!then) return;
    bench.keep(then.patch, `${bay.name}: ${words.say(then.name).toLowerCase()}`);
  }
</script>

{#if !fresh}
  <p class="text-soft">
    One lamp more or less, foil, a white back, other lamps, trays turned crosswise, a window: each
    at its own best height and hours.
  </p>
  <AskButton {asked} label="Compare set-ups" onask={ask} />
{:else if now && then}
  <ChoiceField
    label="Compare with"
    value={chosen}
    choices={names}
    onset={(code) => (chosen = code)}
  />
  <ul class="mt-2 list-disc pl-5" data-testid="differences">
    {#each then.differences as difference, i (i)}
      <li>{words.say(difference)}</li>
    {/each}
  </ul>
  <table class="mt-2 w-full text-right" data-testid="compared">
    <thead class="text-sm text-soft">
      <tr>
        <th class="text-left font-normal"><span class="sr-only">figure</span></th>
        <th class="font-normal">as it is</th>
        <th class="font-normal">then</th>
      </tr>
    </thead>
    <tbody>
      {#each rows as [name, figure] (name)}
        <tr class:font-semibold={figure(now) !== figure(then)}>
          <th class="text-left font-normal">{name}</th>
          <td>{figure(now)}</td>
          <td>{figure(then)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  {#if then.patch.length > 0}
    <button class="quiet mt-2 border-line!" onclick={take}>Use this set-up</button>
  {/if}
{:else}
  <p class="text-soft">Nothing grows under lamps here on {words.date(bench.date)}.</p>
{/if}
