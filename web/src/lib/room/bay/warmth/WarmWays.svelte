<script lang="ts">
  // Other ways to warm the tray of a bay that lacks most, each with what it gains.
  import { api } from '../../../api/client';
  import type { BayOnDay, WarmWay, WarmWays } from '../../../api/client';
  import { Asked } from '../../../bench/asked.svelte';
  import { bench } from '../../../bench/workbench.svelte';
  import AskButton from '../../../fields/AskButton.svelte';

  const { bay }: { bay: BayOnDay } = $props();

  const words = $derived(bench.words);
  const asked = new Asked<WarmWays | null>();
  const key = $derived(`${bay.bay.place}/${bay.bay.tier} ${bench.date}`);
  const found = $derived(asked.answer);

  const ask = () => asked.ask(key, () => api.compareWarmth(bench.draft!, bay.bay, bench.date));
  function take(way: WarmWay) {
    bench.keep(way.patch, `${bay.name}: ${words.say(way.name).toLowerCase()}`);
  }
</script>

{#if !asked.fresh(key)}
  <p class="text-soft">
    A mat, half a mat, the top of an appliance, a warmer room, film round the shelf, a shut closet,
    the chamber: what each would gain here.
  </p>
  <AskButton {asked} label="Compare ways to warm these trays" onask={ask} />
{:else if found}
  <p>
    For <b>{found.label}</b>, {found.name}: {words.number(found.wants_c, 'temperature_c')} suits it
  </p>
  <ul class="mt-1" data-testid="warm-ways">
    {#each found.ways as way (way.code)}
      <li class="border-t py-1">
        <div class="flex items-start justify-between gap-2">
          <span class:font-semibold={way.code === 'as_it_is'}>{words.say(way.name)}</span>
          <b class="shrink-0">{words.number(way.mean_c, 'temperature_c')}</b>
        </div>
        <p class="text-sm text-soft">
          {way.gain_k < 0 ? '' : '+'}{words.number(way.gain_k, 'difference_k')}; {way.half_days ==
          null
            ? 'none come up'
            : `half up in ${words.number(way.half_days, 'days')}, ${words.number(way.share, 'share')} of good seeds`}{way.cost_per_day ==
          null
            ? ''
            : `; ${words.number(way.cost_per_day, 'money')} a day`}
        </p>
        {#if way.caution}<p class="text-sm text-wine">{words.say(way.caution)}.</p>{/if}
        {#if way.patch.length > 0}<button
            class="quiet -ml-2 text-sm text-teal!"
            onclick={() => take(way)}>Do this</button
          >{/if}
      </li>
    {/each}
  </ul>
  <p class="text-sm text-soft">
    Gains are over the room alone. What a warmer room or a chamber costs depends on what else is in
    there.
  </p>
{:else}
  <p class="text-soft">Nothing germinates here on {words.date(bench.date)}.</p>
{/if}
