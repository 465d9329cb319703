<script lang="ts">
  // What of a crop is no number: how vigorous it is, how it grows, whether its seed wants light; and the
  // temperatures that it comes up at.
  import type { Crop, Schemas } from '../api/client';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import NumberField from '../fields/NumberField.svelte';

  type Thermal = Schemas['Thermal'];
  interface Props {
    /** The figures that hold; for a variety, its kind's where it has none of its own. */
    crop: Pick<Crop, 'vigour' | 'habit' | 'germinates_in' | 'emergence'>;
    onset: <F extends 'vigour' | 'habit' | 'germinates_in' | 'emergence'>(
      field: F,
      value: Crop[F],
    ) => void;
  }
  const { crop, onset }: Props = $props();

  const vigours = { slow: 'slow', middle: 'middling', strong: 'strong' };
  const habits = {
    upright: 'upright stem',
    rosette: 'leaves from the ground',
    grass: 'blades',
    bushy: 'bushy',
    climbing: 'climbing or trailing',
  };
  const lights = { either: 'light or dark', light: 'light', dark: 'dark' };
  const thermal = $derived(
    typeof crop.emergence === 'string' ? undefined : (crop.emergence as Thermal),
  );
  const START: Thermal = { base_c: 6, best_c: 24, upper_c: 34, days_at_best: 7 };
  const fields = [
    ['base_c', 'Comes up over', 'temperature_c'],
    ['best_c', 'best at', 'temperature_c'],
    ['upper_c', 'up to', 'temperature_c'],
    ['days_at_best', 'Days at best', 'days'],
  ] as const;
</script>

<div class="grid grid-cols-2 gap-x-2 gap-y-1 md:grid-cols-3">
  <ChoiceField
    label="Vigour"
    value={crop.vigour}
    choices={vigours}
    onset={(to) => onset('vigour', to)}
  />
  <ChoiceField
    label="Grows as"
    value={crop.habit ?? 'upright'}
    choices={habits}
    onset={(to) => onset('habit', to)}
  />
  <ChoiceField
    label="Germinates in"
    value={crop.germinates_in}
    choices={lights}
    onset={(to) => onset('germinates_in', to)}
  />
</div>
{#if thermal}
  <div class="mt-1 grid grid-cols-2 gap-x-2 gap-y-1">
    {#each fields as [field, label, quantity] (field)}
      <NumberField
        {label}
        value={thermal[field]}
        {quantity}
        onset={(value) => onset('emergence', { ...thermal, [field]: value })}
      />
    {/each}
  </div>
{:else}
  <p class="mt-1 text-sm">
    Days to come up are the handbook’s.
    <button class="quiet border-line! text-sm" onclick={() => onset('emergence', START)}
      >Give my own</button
    >
  </p>
{/if}
