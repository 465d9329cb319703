<script lang="ts">
  // What to grow, and how many plants of each.
  import { onMount } from 'svelte';
  import { api, type CropStart } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import CountField from '../fields/CountField.svelte';
  import { askedFor, sownWhen, USUAL_PLANTS } from './cropStarts';
  import Search from './Search.svelte';

  const words = $derived(bench.words);
  let starts: CropStart[] = $state.raw([]);
  let text = $state('');
  let failed = $state('');

  const asked = $derived(askedFor(starts, text));
  const sown = $derived(bench.draft!.sowings);
  const datesOf = $derived((id: string) =>
    bench.assessment?.sowings.find((dates) => dates.sowing === id),
  );
  const suggested = $derived(
    starts.filter((start) => start.now && !sown.some((sowing) => sowing.crop === start.crop)),
  );

  onMount(() => {
    void fetchStarts();
    return bench.showSowings();
  });
  async function fetchStarts() {
    try {
      starts = await api.when(bench.draft!, bench.view!.today);
      failed = '';
    } catch (error) {
      failed = error instanceof Error ? error.message : String(error);
    }
  }

  async function sow(start: CropStart, wanted: number) {
    text = '';
    await bench.edit({
      add_sowing: { crop: start.crop, variety: '', wanted, pots: true },
    });
  }
</script>

<Search
  label="A crop, and how many plants you want"
  placeholder="tomato 12"
  hits={asked.hits}
  named={(start) => start.name}
  detail={(start) => sownWhen(start, words)}
  bind:text
  onpick={(start) => void sow(start, asked.plants)}
/>
{#if failed}
  <p class="text-wine" role="alert">{failed}</p>
  <button type="button" class="quiet border-line!" onclick={() => void fetchStarts()}
    >Try again</button
  >
{/if}
{#if suggested.length > 0 && !text}
  <h2 class="mt-3 text-base">Started indoors about now in your climate</h2>
  <ul class="mt-1 flex flex-wrap gap-2" data-testid="suggested">
    {#each suggested.slice(0, 14) as start (start.crop)}
      <li>
        <button
          type="button"
          class="quiet min-h-10! border-frame! bg-raised! text-sm"
          onclick={() => void sow(start, USUAL_PLANTS)}>{start.name}</button
        >
      </li>
    {/each}
  </ul>
{/if}
{#if sown.length > 0}
  <h2 class="mt-4 text-lg">To sow</h2>
  <ul data-testid="chosen">
    {#each sown as sowing (sowing.id)}
      {@const dates = datesOf(sowing.id)}
      <li class="flex flex-wrap items-center gap-x-3 border-t py-1">
        <span class="min-w-0 grow">
          <b>{dates?.name ?? sowing.crop}</b>
          {#if dates}<span class="block text-sm text-soft"
              >sow {words.shortDate(dates.sow)}, out {words.shortDate(dates.out)}</span
            >{/if}
        </span>
        <CountField
          label="Plants"
          of="of {dates?.name ?? sowing.crop}"
          hidden
          value={sowing.wanted}
          least={1}
          most={100000}
          onset={(n) => void bench.edit({ want: { sowing: sowing.id, wanted: n } })}
        />
        <button
          type="button"
          class="quiet"
          aria-label="Remove {dates?.name ?? sowing.crop}"
          onclick={() => void bench.edit({ remove_sowing: { sowing: sowing.id } })}>✕</button
        >
      </li>
    {/each}
  </ul>
{/if}
