<script lang="ts">
  // The plan of a tray from above, in millimetres: each kind's cells, named, with its label at the
  // front.
  import type { Tray, TrayFormat } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import { blocksOf, kindsOf } from './blocks';

  interface Props {
    tray: Tray;
    format: TrayFormat;
    svg?: SVGSVGElement | undefined;
  }
  let { tray, format, svg = $bindable() }: Props = $props();

  const HEAD_MM = 34;
  /** Hatches that tell kinds apart without colour. */
  const HATCHES = ['none', 'rise', 'fall', 'flat', 'upright', 'dots'];
  const words = $derived(bench.words);
  const across = $derived(format.length_mm / format.columns);
  const deep = $derived(format.width_mm / format.rows);
  const kinds = $derived(kindsOf(tray, format).map((kind) => kind.sowing));
  const datesOf = (sowing: string) =>
    bench.assessment?.sowings.find((dates) => dates.sowing === sowing);
  const blocks = $derived(
    blocksOf(tray, format).map(({ sowing, columns: [x0, x1], rows: [y0, y1] }) => ({
      sowing,
      x: x0 * across,
      width: (x1 - x0) * across,
      // The front is at the bottom.
      y: HEAD_MM + format.width_mm - y1 * deep,
      height: (y1 - y0) * deep,
    })),
  );
  const potted = $derived(
    datesOf(kinds[0]!)?.potting.find((day) => day.trays.includes(tray.id))?.on,
  );
  const sown = $derived(
    kinds
      .map((id) => datesOf(id)?.sow)
      .filter((day) => day !== undefined)
      .sort()[0],
  );
  /** Names go along their block where that is longer, and shrink until they fit. */
  const fit = (text: string, long: number, thick: number) =>
    Math.max(Math.min(long / (text.length * 0.55), thick * 0.5, 16), 5);
</script>

<svg
  bind:this={svg}
  xmlns="http://www.w3.org/2000/svg"
  viewBox="-4 0 {format.length_mm + 8} {HEAD_MM + format.width_mm + 8}"
  class="w-full"
  style:max-width="{format.length_mm * 1.6}px"
  role="img"
  aria-label="Plan of {tray.name} from above"
  font-family="sans-serif"
  data-testid="tray-plan"
>
  <defs>
    <pattern id="hatch-rise" width="9" height="9" patternUnits="userSpaceOnUse">
      <path d="M0 9L9 0" stroke="#999" stroke-width="0.7" />
    </pattern>
    <pattern id="hatch-fall" width="9" height="9" patternUnits="userSpaceOnUse">
      <path d="M0 0L9 9" stroke="#999" stroke-width="0.7" />
    </pattern>
    <pattern id="hatch-flat" width="9" height="7" patternUnits="userSpaceOnUse">
      <path d="M0 3H9" stroke="#999" stroke-width="0.7" />
    </pattern>
    <pattern id="hatch-upright" width="7" height="9" patternUnits="userSpaceOnUse">
      <path d="M3 0V9" stroke="#999" stroke-width="0.7" />
    </pattern>
    <pattern id="hatch-dots" width="9" height="9" patternUnits="userSpaceOnUse">
      <circle cx="4" cy="4" r="0.9" fill="#999" />
    </pattern>
  </defs>
  <rect x="-4" width={format.length_mm + 8} height={HEAD_MM + format.width_mm + 8} fill="white" />
  <text y="20" font-size="18" font-weight="700" fill="black">{tray.name}</text>
  <text x={format.length_mm} y="20" font-size="11" text-anchor="end" fill="black"
    >{format.name}{sown
      ? `; ${tray.potted ? 'potted on' : 'sown'} ${words.date(tray.potted ? (potted ?? sown) : sown)}`
      : ''}</text
  >
  {#each blocks as block, i (i)}
    {@const hatch = HATCHES[kinds.indexOf(block.sowing) % HATCHES.length]}
    {@const name = datesOf(block.sowing)?.name ?? block.sowing}
    {@const upright = block.height > block.width}
    {@const size = fit(
      name,
      upright ? block.height : block.width,
      upright ? block.width : block.height,
    )}
    {@const cx = block.x + block.width / 2}
    {@const cy = block.y + block.height / 2}
    <rect
      x={block.x}
      y={block.y}
      width={block.width}
      height={block.height}
      fill={hatch === 'none' ? 'white' : `url(#hatch-${hatch})`}
    />
    <g stroke="#bbb" stroke-width="0.5">
      {#each { length: Math.round(block.width / across) - 1 } as _, column (column)}
        {@const x = block.x + (column + 1) * across}
        <line x1={x} x2={x} y1={block.y} y2={block.y + block.height} />
      {/each}
      {#each { length: Math.round(block.height / deep) - 1 } as _, row (row)}
        {@const y = block.y + (row + 1) * deep}
        <line x1={block.x} x2={block.x + block.width} y1={y} y2={y} />
      {/each}
    </g>
    <rect
      x={block.x}
      y={block.y}
      width={block.width}
      height={block.height}
      fill="none"
      stroke="black"
      stroke-width="1.4"
    />
    <text
      x={cx}
      y={cy}
      transform={upright ? `rotate(-90 ${cx} ${cy})` : undefined}
      text-anchor="middle"
      dominant-baseline="central"
      font-size={size}
      font-weight="600"
      fill="black"
      stroke="white"
      stroke-width="3"
      paint-order="stroke">{name}</text
    >
  {/each}
  <text
    x={format.length_mm / 2}
    y={HEAD_MM + format.width_mm + 7}
    font-size="7"
    text-anchor="middle"
    fill="black">front</text
  >
</svg>
