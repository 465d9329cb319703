<script lang="ts">
  // What hangs and lies here, on other shelves too; and gear for the whole place at once.
  import { Button } from 'flowbite-svelte';
  import type { BayOnDay, Place, Tier } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';
  import ChoiceField from '../../../fields/ChoiceField.svelte';
  import { build } from '../../build/actions';

  const { bay, place, tier }: { bay: BayOnDay; place: Place; tier: Tier } = $props();

  const own = $derived(place.tiers.filter((other) => !other.storage && other.id !== tier.id));
  const elsewhere = $derived(
    bench.places
      .filter((other) => other.id !== place.id && !('cold_frame' in other.kind))
      .flatMap((other) => other.tiers.filter((t) => !t.storage).map((t) => ({ place: other, t }))),
  );
  type To = 'all' | string;
  let to: To = $state('all');
  const choices = $derived({
    all: `all other shelves of ${place.name}`,
    ...Object.fromEntries(own.map((t) => [`${place.id}/${t.id}`, `${place.name}, ${t.name}`])),
    ...Object.fromEntries(
      elsewhere.map(({ place, t }) => [`${place.id}/${t.id}`, `${place.name}, ${t.name}`]),
    ),
  } as Record<To, string>);
  const gear = $derived(tier.lamps.length + tier.mats.length + tier.fans.length);

  function copy() {
    const [place_, tier_] = to.split('/');
    const bays =
      to === 'all'
        ? own.map((t) => ({ place: place.id, tier: t.id }))
        : [{ place: place_!, tier: tier_! }];
    void bench.edit({ copy_gear: { from: bay.bay, to: bays } });
  }
</script>

{#if gear > 0 && Object.keys(choices).length > 1}
  <section aria-label="Copy">
    <h3 class="mb-1">The same on other shelves</h3>
    <p class="mb-2 text-sm text-soft">
      Their own lamps, mats and fans give way; lamps keep their places over the shelf.
    </p>
    <div class="flex flex-wrap items-end gap-2">
      <div class="min-w-0 grow">
        <ChoiceField label="Copy to" value={to} {choices} onset={(value) => (to = value)} />
      </div>
      <Button
        outline
        class="border-frame! px-3! py-1.5! text-ink! hover:bg-straw-soft! hover:text-ink!"
        onclick={copy}>Copy there</Button
      >
    </div>
  </section>
{/if}
<section aria-label="Add gear">
  <h3 class="mb-1">More lamps, mats and fans</h3>
  <div class="flex flex-wrap gap-2">
    {#if !bench.building}
      <button class="quiet border-frame!" onclick={() => build()}>Add one here (Build)</button>
    {/if}
    <button class="quiet border-frame!" onclick={() => bench.pick({ place: place.id })}
      >For all of {place.name} at once</button
    >
  </div>
</section>
