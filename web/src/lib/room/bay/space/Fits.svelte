<script lang="ts">
  // How many trays of each format fit here, which way round, and under what.
  import type { BayFit, BayOnDay, Place } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';

  const { bay, place }: { bay: BayOnDay; place: Place } = $props();

  const words = $derived(bench.words);
  const nameOf = $derived(
    (id: string) => bench.draft?.tray_formats.find((format) => format.id === id)?.name ?? id,
  );
  let shown = $state('');
  const fits = $derived(bay.detail?.fits ?? []);
  const fit = $derived(fits.find((f) => f.format === shown) ?? fits[0]);
  const format = $derived(bench.draft?.tray_formats.find((f) => f.id === fit?.format));
  const scale = $derived(150 / place.width_mm);

  function way(round: BayFit['lengthwise']): string {
    const over = round.overhanging;
    return over && over.trays > round.trays ? `${round.trays} (${over.trays}*)` : `${round.trays}`;
  }
  const overhangs = $derived(
    fits.flatMap((f) =>
      [f.lengthwise.overhanging, f.crosswise.overhanging]
        .filter((over, i) => over && over.trays > (i ? f.crosswise : f.lengthwise).trays)
        .map(
          (over) =>
            `${nameOf(f.format)}: ${over!.trays}, sticking out by ${words.number(over!.overhang_mm, 'length_mm')}`,
        ),
    ),
  );
</script>

<table class="w-full text-right">
  <thead class="text-sm text-soft">
    <tr>
      <th class="text-left font-normal">how many fit</th>
      <th class="pl-2 font-normal" title="length along the front">lengthways</th>
      <th class="pl-2 font-normal" title="length from front to back">crossways</th>
      <th class="pl-2 font-normal" title="both ways mixed, none over an edge">at most</th>
      <th class="pl-2 font-normal" title="beside what stands here on this day">free</th>
      <th class="pl-2 font-normal" title="from its dome to the lowest lamp or shelf">over dome</th>
    </tr>
  </thead>
  <tbody data-testid="fits">
    {#each fits as f (f.format)}
      {@const over = f.over_dome_mm ?? f.over_rim_mm}
      <tr class="border-t" class:bg-straw-soft={f.format === fit?.format}>
        <th class="text-left leading-tight font-normal">
          <button class="text-left hover:underline" onclick={() => (shown = f.format)}
            >{nameOf(f.format)}</button
          >
        </th>
        <td class="pl-2">{way(f.lengthwise)}</td>
        <td>{way(f.crosswise)}</td>
        <td class="font-semibold">{f.proven ? '' : '≥ '}{f.most}</td>
        <td>{f.free_proven ? '' : '≥ '}{f.free}</td>
        <td class:text-wine={over < 0} class="pl-2 whitespace-nowrap"
          >{over < 0
            ? `${words.number(-over, 'length_mm')} too tall`
            : words.number(over, 'length_mm')}{f.over_dome_mm == null ? ' °' : ''}</td
        >
      </tr>
    {/each}
  </tbody>
</table>
{#each new Set(overhangs) as over (over)}
  <p class="text-sm text-soft" data-testid="overhang">* {over} front and back together</p>
{/each}
<p class="text-sm text-soft">
  along and across the front, at most with both mixed, free today beside what stands here; “over
  dome” is the air above the dome, up to the lowest lamp or shelf
</p>
{#if fits.some((f) => f.over_dome_mm == null)}
  <p class="text-sm text-soft">° without a dome: over the rim</p>
{/if}
{#if fit && format && fit.most > 0}
  <svg
    width={place.width_mm * scale}
    height={place.depth_mm * scale}
    class="mt-2"
    role="img"
    aria-label="{fit.most} of {format.name} on the shelf, seen from above"
  >
    <rect
      width={place.width_mm * scale}
      height={place.depth_mm * scale}
      rx="3"
      fill="var(--line)"
      opacity="0.5"
    />
    {#each fit.laid as laid, i (i)}
      {@const long = laid.along === 'x' ? format.length_mm : format.width_mm}
      {@const deep = laid.along === 'x' ? format.width_mm : format.length_mm}
      <rect
        x={laid.x_mm * scale + 0.7}
        y={(place.depth_mm - laid.y_mm - deep) * scale + 0.7}
        width={long * scale - 1.4}
        height={deep * scale - 1.4}
        rx="2"
        fill="var(--mix)"
      />
    {/each}
  </svg>
{/if}
