<script lang="ts">
  // What hangs and lies in a bay, each with its own figures to change.
  import { SvelteSet } from 'svelte/reactivity';
  import type { BayOnDay, Fan, GearList, Lamp, Mat, Quantity, Tier } from '../../../api/client';
  import { replace, setOptional, tierPath } from '../../../bench/edits';
  import { again, takeOut } from '../../build/actions';
  import { bench } from '../../../bench/workbench.svelte';
  import AsMeasured from '../../../learn/AsMeasured.svelte';
  import CheckField from '../../../fields/CheckField.svelte';
  import ChoiceField from '../../../fields/ChoiceField.svelte';
  import LampLight from '../light/LampLight.svelte';
  import NameField from '../../../fields/NameField.svelte';
  import NumberField from '../../../fields/NumberField.svelte';

  const { bay, tier }: { bay: BayOnDay; tier: Tier } = $props();

  type Item = Lamp | Mat | Fan;
  interface Figure {
    label: string;
    field: string;
    quantity: Quantity;
    optional?: boolean;
  }
  const at: Figure[] = [
    { label: 'From the left', field: 'x_mm', quantity: 'length_mm' },
    { label: 'From the front', field: 'y_mm', quantity: 'length_mm' },
  ];
  const figures: Record<GearList, Figure[]> = {
    lamps: [
      { label: 'Power', field: 'watts', quantity: 'power_w' },
      { label: 'Power factor', field: 'power_factor', quantity: 'plain', optional: true },
      { label: 'Inrush current', field: 'inrush_a', quantity: 'current_a', optional: true },
      { label: 'Light', field: 'flux_lm', quantity: 'flux_lm' },
      { label: 'Photons', field: 'ppf_umol_s', quantity: 'ppf_umol_s', optional: true },
      { label: 'Colour', field: 'cct_k', quantity: 'colour_temperature_k' },
      { label: 'Beam', field: 'beam_deg', quantity: 'angle_deg' },
      { label: 'Smallest gap', field: 'least_gap_mm', quantity: 'length_mm' },
      { label: 'Body', field: 'body_height_mm', quantity: 'length_mm' },
      { label: 'Above the shelf', field: 'height_mm', quantity: 'length_mm' },
      ...at,
    ],
    mats: [
      { label: 'Power', field: 'watts', quantity: 'power_w' },
      { label: 'Length', field: 'length_mm', quantity: 'length_mm' },
      { label: 'Width', field: 'width_mm', quantity: 'length_mm' },
      { label: 'Thermostat', field: 'thermostat_c', quantity: 'temperature_c', optional: true },
      {
        label: 'Thermostat swing',
        field: 'hysteresis_k',
        quantity: 'difference_k',
        optional: true,
      },
      { label: 'Dial error', field: 'dial_error_k', quantity: 'difference_k', optional: true },
      { label: 'Foam underneath', field: 'pad_mm', quantity: 'length_mm', optional: true },
      ...at,
    ],
    fans: [
      { label: 'Power', field: 'watts', quantity: 'power_w' },
      { label: 'Air moved', field: 'flow_m3_h', quantity: 'flow_m3_h' },
      { label: 'Diameter', field: 'diameter_mm', quantity: 'length_mm' },
      { label: 'Above the shelf', field: 'height_mm', quantity: 'length_mm' },
      ...at,
    ],
  };
  const lists: GearList[] = ['lamps', 'mats', 'fans'];
  const ways = { x: 'along the front', y: 'front to back' };
  const probes = { mix: 'in the mix', mat: 'on the mat', air: 'in the air' };
  const words = $derived(bench.words);

  /** Only what is open is drawn: a dozen fields each would slow every drag. */
  const open = new SvelteSet<string>();
  function toggle(key: string, isOpen: boolean) {
    if (isOpen) open.add(key);
    else open.delete(key);
  }

  const path = (list: GearList, i: number) => `${tierPath(bench.draft!, bay.bay)}/${list}/${i}`;
  const read = (item: Item, field: string): number | undefined => {
    const value = (item as unknown as Record<string, number | null | undefined>)[field];
    return value ?? undefined;
  };

  function set(list: GearList, i: number, item: Item, figure: Figure, value: number | undefined) {
    const there = read(item, figure.field) !== undefined;
    const where = `${path(list, i)}/${figure.field}`;
    const patch = figure.optional ? setOptional(where, value, there) : [replace(where, value)];
    const said = value === undefined ? 'unknown' : words.number(value, figure.quantity);
    bench.keep(patch, `${figure.label.toLowerCase()} of ${item.name}: ${said}`);
  }

  /** The other shelves of its place. */
  const others = $derived(
    bench
      .draft!.places.find((place) => place.id === bay.bay.place)!
      .tiers.filter((other) => other.id !== tier.id),
  );

  function carry(i: number, fan: Fan, to: string, yes: boolean) {
    const before = fan.by_turns ?? [];
    const tiers = yes ? [...before, to] : before.filter((id) => id !== to);
    bench.keep(
      setOptional(
        `${path('fans', i)}/by_turns`,
        tiers.length > 0 ? tiers : undefined,
        fan.by_turns !== undefined,
      ),
      `${fan.name}: on ${tiers.length + 1} shelves by turns`,
    );
  }

  const thing = (list: GearList, id: string) => ({ ...bay.bay, gear: { list, id } });
</script>

{#each lists as list (list)}
  {#each tier[list] as item, i (item.id)}
    <details
      class="border-t py-1"
      ontoggle={(event) => toggle(`${list}/${item.id}`, event.currentTarget.open)}
    >
      <summary class="cursor-pointer py-1">{item.name}</summary>
      {#if open.has(`${list}/${item.id}`)}
        <div class="mt-1 flex flex-col gap-2 pb-2">
          <NameField
            label="What it is"
            value={item.name}
            onset={(name) =>
              bench.keep([replace(`${path(list, i)}/name`, name)], `renamed ${item.name}`)}
          />
          <div class="grid grid-cols-3 gap-2">
            {#each figures[list] as figure (figure.field)}
              <NumberField
                label={figure.label}
                value={read(item, figure.field)}
                quantity={figure.quantity}
                onset={(value) => set(list, i, item, figure, value)}
                onclear={figure.optional ? () => set(list, i, item, figure, undefined) : undefined}
              />
            {/each}
          </div>
          {#if 'measured' in item && item.measured}
            <AsMeasured
              learned={item.measured}
              quantity="share"
              before="Taken at"
              after="of what is above"
              back="As its label says"
              onback={() =>
                bench.keep(
                  setOptional(`${path(list, i)}/measured`, undefined, true),
                  `${item.name} as its label says`,
                )}
            />
          {/if}
          {#if list === 'fans'}
            {@const fan = item as Fan}
            <CheckField
              label="Turns from side to side, over other places too"
              value={fan.turns ?? false}
              onset={(yes) =>
                bench.keep(
                  setOptional(`${path(list, i)}/turns`, yes || undefined, fan.turns !== undefined),
                  `${fan.name} ${yes ? 'turns' : 'stands still'}`,
                )}
            />
            <div class="grid grid-cols-2 items-end gap-2">
              {#if fan.speeds_m3_h?.length}
                <ChoiceField
                  label="Speed in use"
                  value={String(fan.flow_m3_h)}
                  choices={Object.fromEntries(
                    [...new Set([fan.flow_m3_h, ...fan.speeds_m3_h])]
                      .sort((a, b) => a - b)
                      .map((flow) => [String(flow), words.number(flow, 'flow_m3_h')]),
                  )}
                  onset={(flow) =>
                    bench.keep(
                      [replace(`${path(list, i)}/flow_m3_h`, Number(flow))],
                      `${fan.name} at ${words.number(Number(flow), 'flow_m3_h')}`,
                    )}
                />
              {/if}
              <NumberField
                label="Another speed of its switch"
                value={undefined}
                quantity="flow_m3_h"
                none="add one"
                onset={(flow) =>
                  bench.keep(
                    setOptional(
                      `${path(list, i)}/speeds_m3_h`,
                      [...new Set([...(fan.speeds_m3_h ?? []), fan.flow_m3_h, flow])],
                      fan.speeds_m3_h !== undefined,
                    ),
                    `${fan.name} can move ${words.number(flow, 'flow_m3_h')}`,
                  )}
              />
            </div>
            {#if others.length > 0}
              <fieldset class="flex flex-wrap gap-x-3">
                <legend class="text-sm text-soft">Carried by turns, a day each, to</legend>
                {#each others as other (other.id)}
                  <CheckField
                    label={other.name}
                    value={fan.by_turns?.includes(other.id) ?? false}
                    onset={(yes) => carry(i, fan, other.id, yes)}
                  />
                {/each}
              </fieldset>
            {/if}
          {/if}
          {#if 'along' in item}
            <ChoiceField
              label="Length runs"
              value={item.along}
              choices={ways}
              onset={(along) =>
                bench.keep([replace(`${path(list, i)}/along`, along)], `turned ${item.name}`)}
            />
          {/if}
          {#if list === 'mats' && tier.mats.length > 1}
            {@const mat = item as Mat}
            <ChoiceField
              label="Switched by"
              value={mat.switched_with ?? ''}
              choices={{
                '': 'itself, or its own thermostat',
                ...Object.fromEntries(
                  tier.mats
                    .filter((other) => other.id !== mat.id && !other.switched_with)
                    .map((other) => [other.id, `the thermostat of ${other.name} (${other.id})`]),
                ),
              }}
              onset={(lead) =>
                bench.keep(
                  setOptional(
                    `${path(list, i)}/switched_with`,
                    lead || undefined,
                    mat.switched_with != null,
                  ),
                  lead ? `${item.name} switched with ${lead}` : `${item.name} on its own`,
                )}
            />
          {/if}
          {#if list === 'mats' && read(item, 'thermostat_c') !== undefined}
            {@const mat = item as Mat}
            <ChoiceField
              label="Probe"
              value={mat.probe ?? 'mix'}
              choices={probes}
              onset={(probe) =>
                bench.keep(
                  setOptional(`${path(list, i)}/probe`, probe, mat.probe != null),
                  `probe of ${item.name}: ${probes[probe]}`,
                )}
            />
          {/if}
          {#if list === 'lamps'}
            <LampLight lamp={item as Lamp} path={path(list, i)} />
          {/if}
          <div class="flex gap-2">
            <button class="quiet border-line!" onclick={() => void again([thing(list, item.id)])}
              >Add another</button
            >
            <button class="quiet border-line!" onclick={() => void takeOut([thing(list, item.id)])}
              >Remove</button
            >
          </div>
        </div>
      {/if}
    </details>
  {/each}
{:else}
  <p class="text-soft">Nothing hangs or lies here.</p>
{/each}
