<script lang="ts">
  // As many lamps and mats as there are for a whole place: spread over its shelves at once.
  import { onMount } from 'svelte';
  import type { Equipment, Place } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import CountField from '../../fields/CountField.svelte';
  import { equipped } from './equip';

  const { place }: { place: Place } = $props();
  onMount(() => void bench.facts.fetchKinds(bench.draft!.site.units));

  const kinds = $derived(bench.facts.kinds);
  const lamps = $derived(place.tiers.flatMap((tier) => tier.lamps));
  const mats = $derived(place.tiers.flatMap((tier) => tier.mats));
  const thermostats = $derived(
    mats.filter((mat) => mat.thermostat_c != null && !mat.switched_with).length,
  );
  // A kind is known by its name: the plan's lamps may have been changed since.
  let lampKind = $state('');
  let matKind = $state('');
  const lamp = $derived(
    lampKind ||
      kinds?.lamps.find((kind) => kind.name === lamps[0]?.name)?.id ||
      (place.width_mm >= 1100 ? 'shop-led-36' : 'bar-led-10'),
  );
  const mat = $derived(
    matKind || kinds?.mats.find((kind) => kind.name === mats[0]?.name)?.id || 'mat-small',
  );
  const named = (list: { id: string; name: string }[]) =>
    Object.fromEntries(list.map((kind) => [kind.id, kind.name]));

  async function equip(change: Partial<Equipment>) {
    // Lamps stay as they hang when it is about mats, and the other way round.
    const kinds = 'lamps' in change || 'lamp' in change ? { lamp } : { mat };
    const whole = equipped(place, { ...kinds, ...change });
    await bench.edit({ equip: { place: place.id, with: whole } });
  }

  /** Whether they are of one kind: what is mixed is not spread anew as if it were all the same. */
  const alike = (list: { name: string }[]) => list.every((one) => one.name === list[0]?.name);
  /** A thermostat switches the mats of its own shelf. */
  const oneSays = $derived(
    mats.length < 2
      ? 'one'
      : place.tiers.filter((tier) => tier.mats.length > 0).length > 1
        ? 'one, for the lowest shelf'
        : 'one for all',
  );
  const lit = $derived(place.tiers.filter((tier) => tier.lamps.length > 0).length);
</script>

{#if kinds}
  {#if !alike(lamps)}
    <p class="mt-2">
      {lamps.length} lamps of several kinds: add or remove them shelf by shelf, in the room.
    </p>
  {:else}
    <div class="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
      <CountField
        label="Lamps you own"
        of="for {place.name}"
        value={lamps.length}
        most={60}
        onset={(n) => void equip({ lamps: n })}
      />
      {#if lamps.length > 0}
        <div class="min-w-0 grow basis-48">
          <ChoiceField
            label="of this kind"
            value={lamp}
            choices={named(kinds.lamps)}
            onset={(to) => {
              lampKind = to;
              void equip({ lamp: to });
            }}
          />
        </div>
      {/if}
    </div>
  {/if}
  {#if !alike(mats)}
    <p class="mt-2">
      {mats.length} heat mats of several kinds: add or remove them shelf by shelf, in the room.
    </p>
  {:else}
    <div class="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
      <CountField
        label="Heat mats"
        of="for {place.name}"
        value={mats.length}
        most={60}
        onset={(n) => void equip({ mats: n, thermostats: Math.min(thermostats, n) })}
      />
      {#if mats.length > 0}
        <div class="min-w-0 grow basis-48">
          <ChoiceField
            label="of this kind"
            value={mat}
            choices={named(kinds.mats)}
            onset={(to) => {
              matKind = to;
              void equip({ mat: to });
            }}
          />
        </div>
        <ChoiceField
          label="Thermostat"
          value={thermostats === 0 ? 'none' : thermostats === 1 ? 'one' : 'each'}
          choices={{ none: 'none', one: oneSays, each: 'one each' }}
          onset={(to) =>
            void equip({ thermostats: to === 'none' ? 0 : to === 'one' ? 1 : mats.length })}
        />
      {/if}
    </div>
  {/if}
  {#if lit > 0}
    <p class="mt-2 text-sm text-soft">
      {lamps.length === 1 ? '1 lamp' : `${lamps.length} lamps`} over {lit === 1
        ? '1 shelf'
        : `${lit} shelves`}{place.tiers.length - lit === 1
        ? '; one more stays dark, for germinating or storage'
        : place.tiers.length > lit
          ? `; ${place.tiers.length - lit} more stay dark, for germinating and storage`
          : ''}.
    </p>
  {/if}
{/if}
