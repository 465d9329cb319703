<script lang="ts">
  // Openings in what closes a place or a shelf: one row each, one more, one less.
  import type { PatchStep } from '../../api/client';
  import { replace } from '../../bench/edits';
  import { bench } from '../../bench/workbench.svelte';
  import NumberField from '../../fields/NumberField.svelte';

  interface Vent {
    width_mm: number;
    height_mm: number;
    at_mm: number;
  }
  interface Props {
    vents: Vent[] | undefined;
    /** Where the list stands in the document. */
    path: string;
    /** What they are in. */
    name: string;
    /** How high a new one is cut. */
    new_at_mm: number;
    title?: string;
    over?: string;
  }
  const {
    vents,
    path,
    name,
    new_at_mm,
    title = 'Vents',
    over = 'Over the floor',
  }: Props = $props();
  const all = $derived(vents ?? []);
  const words = $derived(bench.words);
  const fields = $derived([
    ['Width', 'width_mm'],
    ['Height', 'height_mm'],
    [over, 'at_mm'],
  ] as [string, keyof Vent][]);

  function cut() {
    const vent: Vent = { width_mm: 100, height_mm: 20, at_mm: Math.max(0, new_at_mm) };
    const step: PatchStep = { op: 'add', path, value: [...all, vent] };
    bench.keep([step], `cut a vent into ${name}`);
  }
</script>

<h3 class="mt-3">{title}</h3>
{#each all as vent, i (i)}
  <div class="mt-1 grid grid-cols-3 gap-2 border-t pt-1">
    {#each fields as [label, field] (field)}
      <NumberField
        {label}
        value={vent[field]}
        quantity="length_mm"
        onset={(mm) =>
          bench.keep(
            [replace(`${path}/${i}/${field}`, mm)],
            `${label.toLowerCase()} of a vent of ${name}: ${words.number(mm, 'length_mm')}`,
          )}
      />
    {/each}
  </div>
  <button
    class="quiet text-sm"
    onclick={() => bench.keep([{ op: 'remove', path: `${path}/${i}` }], `closed a vent of ${name}`)}
    >Close this vent</button
  >
{/each}
<button class="quiet border-line! text-sm" onclick={cut}>One more vent</button>
