<script lang="ts">
  // A tier's own figures: its name, its deck, its sides.
  import type { BayOnDay, Place, Tier } from '../../api/client';
  import { replace, setOptional, tierPath } from '../../bench/edits';
  import { bench } from '../../bench/workbench.svelte';
  import CheckField from '../../fields/CheckField.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import NameField from '../../fields/NameField.svelte';
  import NumberField from '../../fields/NumberField.svelte';
  import { again, takeOut } from '../build/actions';
  import Vents from '../place/Vents.svelte';

  const { bay, place, tier }: { bay: BayOnDay; place: Place; tier: Tier } = $props();
  const words = $derived(bench.words);
  const sides = { open: 'open', white: 'white board', foil: 'foil film', curtain: 'curtain' };
  const sideNames = { left: 'Left', right: 'Right', back: 'Back', front: 'Front' } as const;

  const linings = { ...sides, open: 'bare' };

  function lineTop(to: keyof typeof linings) {
    const path = `${tierPath(bench.draft!, bay.bay)}/sides/top`;
    const lining = to === 'open' ? undefined : to;
    bench.keep(
      setOptional(path, lining, tier?.sides.top !== undefined),
      `underside of the shelf above ${bay.name}: ${linings[to]}`,
    );
  }

  const closed = $derived(
    (Object.keys(sideNames) as (keyof typeof sideNames)[]).every(
      (side) => tier.sides[side] !== 'open',
    ),
  );

  function keepOptional(
    field: 'lamps_germinating' | 'mats_growing' | 'domes_growing',
    yes: boolean,
    word: string,
  ) {
    const path = `${tierPath(bench.draft!, bay.bay)}/${field}`;
    bench.keep(setOptional(path, yes || undefined, tier[field] !== undefined), word);
  }

  function keep(field: string, value: unknown, word: string) {
    bench.keep([replace(`${tierPath(bench.draft!, bay.bay)}/${field}`, value)], word);
  }
</script>

<NameField
  label="Name"
  value={tier.name}
  onset={(name) => keep('name', name, `renamed ${bay.name} to ${name}`)}
/>
<div class="mt-2 flex items-end gap-3">
  <NumberField
    label="Height above the floor"
    value={tier.deck_height_mm}
    quantity="length_mm"
    min={bay.deck_range_mm[0]!}
    max={bay.deck_range_mm[1]!}
    onset={(mm) =>
      keep('deck_height_mm', mm, `set ${bay.name} to ${words.number(mm, 'length_mm')}`)}
  />
</div>
<CheckField
  label="Used for storage"
  value={tier.storage}
  onset={(yes) => keep('storage', yes, `storage on ${bay.name}`)}
/>
<CheckField
  label="Waterproof liner on the shelf"
  value={tier.liner}
  onset={(yes) => keep('liner', yes, `liner on ${bay.name}`)}
/>
<div class="mt-1 grid grid-cols-2 gap-2">
  {#each Object.entries(sideNames) as [side, name] (side)}
    <ChoiceField
      label="{name} side"
      value={tier.sides[side as keyof typeof sideNames]}
      choices={sides}
      onset={(to) =>
        keep(`sides/${side}`, to, `${name.toLowerCase()} side of ${bay.name}: ${sides[to]}`)}
    />
  {/each}
  <ChoiceField
    label="Underside of the shelf above"
    value={tier.sides.top ?? 'open'}
    choices={linings}
    onset={lineTop}
  />
</div>
<CheckField
  label="Lamps on while trays germinate"
  value={tier.lamps_germinating ?? false}
  onset={(yes) =>
    keepOptional('lamps_germinating', yes, `lamps over what germinates on ${bay.name}`)}
/>
<CheckField
  label="Mats stay on under what grows"
  value={tier.mats_growing ?? false}
  onset={(yes) => keepOptional('mats_growing', yes, `mats under what grows on ${bay.name}`)}
/>
<CheckField
  label="Domes stay on over what grows"
  value={tier.domes_growing ?? false}
  onset={(yes) => keepOptional('domes_growing', yes, `domes over what grows on ${bay.name}`)}
/>
{#if closed}
  <Vents
    vents={tier.vents}
    path="{tierPath(bench.draft!, bay.bay)}/vents"
    name={bay.name}
    new_at_mm={bay.clear_height_mm - 30}
    title="Holes in what closes it"
    over="Over the shelf"
  />
{/if}
<div class="mt-3 flex flex-wrap gap-1.5">
  <button class="quiet border-line!" onclick={() => void again([bay.bay])}
    >Add another shelf like this <kbd>a</kbd></button
  >
  <button class="quiet border-line!" onclick={() => void takeOut([bay.bay])}
    >Remove this shelf <kbd>Del</kbd></button
  >
  <button class="quiet border-line!" onclick={() => bench.pick({ place: bay.bay.place })}
    >The whole {place.name}</button
  >
</div>
