<script lang="ts">
  // Other ways to run a chamber beside how it runs.
  import { api } from '../../../api/client';
  import type { BayOnDay, ChamberWay } from '../../../api/client';
  import { Asked } from '../../../bench/asked.svelte';
  import { bench } from '../../../bench/workbench.svelte';
  import AskButton from '../../../fields/AskButton.svelte';

  const { bay }: { bay: BayOnDay } = $props();

  const words = $derived(bench.words);
  const asked = new Asked<ChamberWay[]>();
  const key = $derived(`${bay.bay.place}/${bay.bay.tier} ${bench.date}`);
  const ways = $derived(asked.answer ?? []);
  const ends = (way: ChamberWay) => [way.shelves_c[0]!, way.shelves_c.at(-1)!] as const;

  const ask = () => asked.ask(key, () => api.compareChamber(bench.draft!, bay.bay, bench.date));
  function take(way: ChamberWay) {
    bench.keep(way.patch, `${bay.name}: ${words.say(way.name).toLowerCase()}`);
  }
</script>

{#if !asked.fresh(key)}
  <p class="mt-1 text-soft">
    Vents, door, lamps, thermostat and its probe: what each would do from bottom to top.
  </p>
  <AskButton {asked} label="Try other ways" onask={ask} />
{:else}
  <ul class="mt-2" data-testid="chamber-ways">
    {#each ways as way (way.code)}
      {@const [bottom, top] = ends(way)}
      <li class="border-t py-1">
        <div class="flex items-start justify-between gap-2">
          <span class:font-semibold={way.code === 'as_it_is'}>{words.say(way.name)}</span>
          <b class="shrink-0"
            >{words.bare(bottom, 'temperature_c')} to {words.number(top, 'temperature_c')}</b
          >
        </div>
        <p class="text-sm text-soft">
          at most <span class:text-wine={way.overheats}
            >{words.number(way.most_c, 'temperature_c')}{way.overheats ? ', too hot' : ''}</span
          >; vents {words.number(way.vents_m3_h, 'flow_m3_h')}; {words.number(
            way.cost_per_day,
            'money',
          )} a day{#if !way.reaches}; <span class="text-wine">not held</span>{/if}
        </p>
        {#if way.patch.length > 0}<button
            class="quiet -ml-2 text-sm text-teal!"
            onclick={() => take(way)}>Do this</button
          >{/if}
      </li>
    {/each}
  </ul>
  <p class="text-sm text-soft">Average of the lowest and of the highest shelf through the day</p>
{/if}
