<script lang="ts">
  // What a plant costs, and the prices behind it.
  import type { Electricity, Plan } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { priceSteps } from './prices';

  const { answer, plan }: { answer: Electricity; plan: Plan } = $props();
  const words = $derived(bench.words);
  const plants = $derived(answer.plants);
  const each = $derived((value: number) => words.number(value, 'money'));
  const seasons = $derived(Math.max(1, Math.ceil((plants.pays_back_seasons ?? 0) - 0.1)));
  let open = $state(false);
  const fields = [
    ['packet', 'A packet of seed'],
    ['mix_per_litre', 'A litre of mix'],
    ['water_per_m3', 'A thousand litres of water'],
    ['bought_plant', 'A bought plant'],
  ] as const;

  function save() {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([answer.table_csv], { type: 'text/csv' }));
    link.download = 'cost-per-sowing.csv';
    link.click();
    URL.revokeObjectURL(link.href);
  }
</script>

{#if plants.per_plant != null}
  <div class="flex items-baseline gap-3">
    <span class="font-display text-3xl font-semibold" data-testid="per-plant"
      >{words.number(plants.per_plant, 'money')}</span
    >
    <span class="text-sm text-soft">
      seed {each(plants.of_a_plant.seed)}, mix {each(plants.of_a_plant.mix)}, water {each(
        plants.of_a_plant.water,
      )}, current
      {each(plants.of_a_plant.current)}, stand {each(plants.of_a_plant.stand)}
    </span>
  </div>
  {#if plants.unpriced.length > 0}
    <p class="mt-1 text-sm text-wine">Without a price so far: {plants.unpriced.join(', ')}.</p>
  {/if}
  {#if plants.bought != null}
    <p class="mt-1 text-sm text-soft">
      {plants.plants} bought plants would cost {words.number(plants.bought, 'money')}.
      {#if plants.pays_back_seasons != null}What the stand is worth is saved within {seasons}
        {seasons === 1 ? 'season' : 'seasons'}.{:else if plants.unpriced.length === 0}At these
        prices it never does.{/if}
    </p>
  {/if}
  <div class="mt-1 flex flex-wrap gap-2">
    <button class="quiet border-line!" aria-expanded={open} onclick={() => (open = !open)}
      >{open ? 'Hide the table' : 'Each sowing'}</button
    >
    <button class="quiet border-line!" onclick={save}>Save as CSV</button>
  </div>
  {#if open}
    <table class="mt-2 w-full text-sm" data-testid="plant-costs">
      <thead
        ><tr
          ><th class="text-left">sowing</th><th class="text-right">plants</th><th class="text-right"
            >a plant</th
          ><th class="text-right">all</th></tr
        ></thead
      >
      <tbody>
        {#each plants.sowings as one (one.sowing)}
          <tr
            ><td>{one.name}</td><td class="text-right">{one.plants}</td><td class="text-right"
              >{words.number(one.per_plant, 'money')}</td
            ><td class="text-right">{words.number(one.total, 'money')}</td></tr
          >
        {/each}
      </tbody>
    </table>
  {/if}
{:else}
  <p class="text-soft">Nothing is sown yet.</p>
{/if}
<details class="mt-2">
  <summary class="cursor-pointer text-sm text-soft">Prices</summary>
  <div class="mt-1 grid grid-cols-2 gap-2">
    {#each fields as [field, label] (field)}
      <NumberField
        {label}
        value={plan.prices?.[field] ?? undefined}
        quantity="money"
        onset={(price) =>
          bench.keep(priceSteps(plan, field, price), `${label}: ${words.number(price, 'money')}`)}
      />
    {/each}
    <NumberField
      label="Seasons that gear serves"
      value={plan.prices?.lasts_seasons ?? undefined}
      quantity="count"
      none="5"
      onset={(seasons) =>
        bench.keep(priceSteps(plan, 'lasts_seasons', seasons), `gear serves ${seasons} seasons`)}
    />
  </div>
</details>
