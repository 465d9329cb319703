<script lang="ts">
  // What a germination chamber is made of: walls by what they are, vents, thermostat and limit.
  import { onMount } from 'svelte';
  import type { Place } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import NameField from '../../fields/NameField.svelte';
  import NumberField from '../../fields/NumberField.svelte';
  import { figuresOf } from './figures';
  import Vents from './Vents.svelte';

  type Chamber = Extract<Place['kind'], { chamber: unknown }>['chamber'];
  interface Props {
    place: Place;
    chamber: Chamber;
    /** Where the place stands in the document. */
    path: string;
  }
  const { place, chamber, path }: Props = $props();
  onMount(() => void bench.facts.fetchKinds(bench.draft!.site.units));

  const wallsKnown = $derived(bench.facts.kinds?.walls ?? []);
  const figures = $derived(figuresOf(place, path));
  const at = $derived(figures.at);
  const number = $derived(figures.number);
  const optional = $derived(figures.optional);
  const walls = $derived(chamber.walls);
  const probe_mm = $derived(chamber.probe_mm);
  const limit_c = $derived(chamber.limit_c);
</script>

<section aria-label="Walls">
  <h3>Walls, from the inside out</h3>
  {#each walls as wall, i (i)}
    <div class="mt-1 border-t pt-1">
      <ChoiceField
        label="Layer {i + 1}"
        value={wallsKnown.some((known) => known.name === wall.name) ? wall.name : ''}
        choices={{
          ...(wallsKnown.some((known) => known.name === wall.name) ? {} : { '': wall.name }),
          ...Object.fromEntries(wallsKnown.map((known) => [known.name, known.name])),
        }}
        onset={(name) => {
          const known = wallsKnown.find((known) => known.name === name);
          if (known)
            bench.keep(
              at(`kind/chamber/walls/${i}`, { ...known }),
              `wall of ${place.name}: ${name}`,
            );
        }}
      />
    </div>
    <details class="mt-1">
      <summary class="cursor-pointer text-sm text-soft">Its figures</summary>
      <div class="mt-1 grid grid-cols-2 items-end gap-2">
        <NameField
          label="Called"
          value={wall.name}
          onset={(name) =>
            bench.keep(at(`kind/chamber/walls/${i}/name`, name), `wall of ${place.name}`)}
        />
        <NumberField
          {...number('Thickness', `kind/chamber/walls/${i}/thickness_mm`, wall.thickness_mm)}
        />
        <NumberField
          {...number(
            'Conducts',
            `kind/chamber/walls/${i}/conductivity_w_mk`,
            wall.conductivity_w_mk,
            'conductivity_w_mk',
          )}
        />
      </div>
    </details>
    {#if walls.length > 1}
      <button
        class="quiet text-sm"
        onclick={() =>
          bench.keep(
            [{ op: 'remove', path: `${path}/kind/chamber/walls/${i}` }],
            `removed ${wall.name} from ${place.name}`,
          )}>Take this layer off</button
      >
    {/if}
  {/each}
  <button
    class="quiet border-line! text-sm"
    onclick={() =>
      bench.keep(
        [{ op: 'add', path: `${path}/kind/chamber/walls/-`, value: { ...walls.at(-1)! } }],
        `added a layer to ${place.name}`,
      )}>One more layer</button
  >
  <Vents
    vents={chamber.vents}
    path="{path}/kind/chamber/vents"
    name={place.name}
    new_at_mm={place.height_mm - 50}
  />
  <h3 class="mt-3">Thermostat and limit</h3>
  <div class="mt-1 grid grid-cols-2 gap-2">
    <NumberField
      {...optional('Probe above the floor', 'kind/chamber/probe_mm', probe_mm, 'length_mm')}
    />
    <NumberField {...optional('Upper limit', 'kind/chamber/limit_c', limit_c, 'temperature_c')} />
  </div>
  <p class="text-sm text-soft">
    Left empty, the probe hangs half way up and the usual limit holds. The thermostat’s setting is
    its mat’s.
  </p>
</section>
