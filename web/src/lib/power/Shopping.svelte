<script lang="ts">
  // What the plan takes, what is there, and what is to be bought.
  import type { Electricity, Plan } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { goodSteps } from './prices';

  const { answer, plan }: { answer: Electricity; plan: Plan } = $props();
  const words = $derived(bench.words);
  const toBuy = $derived(answer.shopping.filter((line) => line.to_buy > 0));
  const unpriced = $derived(toBuy.filter((line) => line.cost == null).length);
  let all = $state(false);
  const shown = $derived(all ? answer.shopping : toBuy);
</script>

<ul class="flex flex-col gap-1" data-testid="shopping">
  {#each shown as line (line.kind + line.name)}
    <li class="flex items-baseline justify-between gap-2">
      <span
        >{line.to_buy > 0 ? `${line.to_buy} × ` : ''}{line.name}{#if line.owned > 0}<span
            class="text-sm text-soft">, {line.owned} there</span
          >{/if}</span
      >
      <span class="whitespace-nowrap"
        >{line.cost == null ? 'no price' : words.number(line.cost, 'money')}</span
      >
    </li>
    {#if all}
      <li>
        <div class="mb-1 grid grid-cols-2 gap-2" role="group" aria-label={line.name}>
          <NumberField
            label="One costs"
            value={line.price ?? undefined}
            quantity="money"
            onset={(price) =>
              bench.keep(
                goodSteps(plan, line.name, { price }),
                `${line.name}: ${words.number(price, 'money')}`,
              )}
          />
          <NumberField
            label="There already, of {line.needed}"
            value={line.owned}
            quantity="count"
            min={0}
            onset={(owned) =>
              bench.keep(goodSteps(plan, line.name, { owned }), `${line.name}: ${owned} there`)}
          />
        </div>
      </li>
    {/if}
  {:else}
    <li class="text-soft">All that the plan takes is there.</li>
  {/each}
</ul>
{#if toBuy.length > 0}
  <p class="mt-1 flex justify-between font-semibold">
    <span
      >to buy{#if unpriced > 0}, {unpriced} without a price{/if}</span
    ><span data-testid="to-buy">{words.number(answer.to_buy_cost, 'money')}</span>
  </p>
{/if}
<button class="quiet mt-1 border-line!" aria-expanded={all} onclick={() => (all = !all)}
  >{all ? 'Only what is to be bought' : 'Prices, and what is there'}</button
>
