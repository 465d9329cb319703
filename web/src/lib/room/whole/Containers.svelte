<script lang="ts">
  // The plan's own formats of tray, each with its figures to change.
  import { SvelteSet } from 'svelte/reactivity';
  import type { Quantity, TrayFormat } from '../../api/client';
  import { replace, setOptional } from '../../bench/edits';
  import { build } from '../build/actions';
  import { bench } from '../../bench/workbench.svelte';
  import { mixes } from './mixes';
  import CheckField from '../../fields/CheckField.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import NameField from '../../fields/NameField.svelte';
  import NumberField from '../../fields/NumberField.svelte';

  const words = $derived(bench.words);
  const formats = $derived(bench.draft?.tray_formats ?? []);
  const heldOf = $derived((id: string) =>
    bench.assessment?.season.capacity.own.find((held) => held.format === id),
  );
  const used = $derived(new Set(bench.draft?.trays.map((tray) => tray.format)));
  const open = new SvelteSet<string>();

  const figures: { label: string; field: keyof TrayFormat; quantity: Quantity }[] = [
    { label: 'Length', field: 'length_mm', quantity: 'length_mm' },
    { label: 'Width', field: 'width_mm', quantity: 'length_mm' },
    { label: 'Rim', field: 'height_mm', quantity: 'length_mm' },
    { label: 'Cells along', field: 'columns', quantity: 'count' },
    { label: 'Cells across', field: 'rows', quantity: 'count' },
    { label: 'A cell holds', field: 'cell_ml', quantity: 'volume_ml' },
    { label: 'Root depth', field: 'cell_depth_mm', quantity: 'length_mm' },
    { label: 'Wet mass', field: 'wet_kg', quantity: 'mass_kg' },
  ];

  function setReservoir(i: number, format: TrayFormat, ml: number | undefined) {
    const patch = setOptional(`/tray_formats/${i}/reservoir_ml`, ml, format.reservoir_ml != null);
    bench.keep(patch, `reservoir of ${format.name}`);
  }

  function setDome(i: number, format: TrayFormat, mm: number | undefined) {
    const patch = setOptional(
      `/tray_formats/${i}/dome_height_mm`,
      mm,
      format.dome_height_mm != null,
    );
    bench.keep(patch, `dome of ${format.name}`);
  }
</script>

{#each formats as format, i (format.id)}
  <details
    class="border-t py-1"
    ontoggle={(event) => (event.currentTarget.open ? open.add(format.id) : open.delete(format.id))}
  >
    <summary class="cursor-pointer py-1"
      >{format.name}
      <span class="text-sm text-soft"
        >{words.bare(format.length_mm, 'length_mm')} × {words.number(format.width_mm, 'length_mm')}; {words.number(
          format.cell_ml * format.columns * format.rows,
          'volume_ml',
        )} of {mixes[format.mix ?? 'peat']}{#if heldOf(format.id)}; the room holds {heldOf(
            format.id,
          )!.trays}, {heldOf(format.id)!.cells} cells{/if}</span
      ></summary
    >
    {#if open.has(format.id)}
      <div class="mt-1 flex flex-col gap-2 pb-2">
        <NameField
          label="Name"
          value={format.name}
          onset={(name) =>
            bench.keep([replace(`/tray_formats/${i}/name`, name)], `renamed ${format.name}`)}
        />
        <div class="grid grid-cols-3 gap-2">
          {#each figures as { label, field, quantity } (field)}
            <NumberField
              {label}
              value={format[field] as number}
              {quantity}
              onset={(value) =>
                bench.keep(
                  [replace(`/tray_formats/${i}/${field}`, value)],
                  `${label.toLowerCase()} of ${format.name}: ${words.number(value, quantity)}`,
                )}
            />
          {/each}
          <NumberField
            label="Reservoir below"
            value={format.reservoir_ml ?? undefined}
            quantity="volume_ml"
            none="none"
            onset={(ml) => setReservoir(i, format, ml)}
            onclear={() => setReservoir(i, format, undefined)}
          />
          <NumberField
            label="Dome over rim"
            value={format.dome_height_mm ?? undefined}
            quantity="length_mm"
            onset={(mm) => setDome(i, format, mm)}
            onclear={() => setDome(i, format, undefined)}
          />
        </div>
        <ChoiceField
          label="Filled with"
          value={format.mix ?? 'peat'}
          choices={mixes}
          onset={(mix) => bench.edit({ fill_with: { format: format.id, mix } })}
        />
        <CheckField
          label="No drainage holes: water can stand inside"
          value={format.holds_water}
          onset={(yes) =>
            bench.keep([replace(`/tray_formats/${i}/holds_water`, yes)], `holes of ${format.name}`)}
        />
        {#if !used.has(format.id)}
          <button
            class="quiet self-start border-line!"
            onclick={() =>
              bench.keep([{ op: 'remove', path: `/tray_formats/${i}` }], `removed ${format.name}`)}
            >Remove</button
          >
        {/if}
      </div>
    {/if}
  </details>
{/each}
{#if !bench.building}
  <button class="quiet mt-1 border-line!" onclick={() => void build()}
    >Take more from the shelf</button
  >
{/if}
