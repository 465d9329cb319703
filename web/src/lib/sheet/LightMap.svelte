<script lang="ts">
  // Light on every cell, seen from above: the front of the shelf is at the bottom.
  import type { BayOnDay, Place } from '../api/client';
  import { bench } from '../workbench.svelte';

  interface Props {
    bay: BayOnDay;
    place: Place;
  }
  const { bay, place }: Props = $props();

  let width = $state(0);
  const words = $derived(bench.words);
  // The deck, and whatever hangs over its edges.
  const edges = $derived({
    left: Math.min(0, ...bay.trays.map((tray) => tray.x_mm[0]!)),
    right: Math.max(place.width_mm, ...bay.trays.map((tray) => tray.x_mm[1]!)),
    front: Math.min(0, ...bay.trays.map((tray) => tray.y_mm[0]!)),
    back: Math.max(place.depth_mm, ...bay.trays.map((tray) => tray.y_mm[1]!)),
  });
  const scale = $derived(width / (edges.right - edges.left));
  const height = $derived((edges.back - edges.front) * scale);
  const px = $derived((x: number) => (x - edges.left) * scale);
  /** The back is at the top. */
  const py = $derived((y: number) => (edges.back - y) * scale);
  const most = $derived(Math.max(bay.light?.ppfd.best ?? 1, 1));

  // A perceptually even ramp from dark violet to pale straw: lightness rises in equal steps.
  const RAMP = [
    '#2b1c4f',
    '#4b2466',
    '#6f2f6f',
    '#94406c',
    '#b75a61',
    '#d27b53',
    '#e4a24e',
    '#efcb66',
    '#f7efa5',
  ];
  const colour = (ppfd: number) =>
    RAMP[Math.min(RAMP.length - 1, Math.floor((ppfd / most) * RAMP.length))]!;

  const cells = $derived(
    bay.trays.flatMap((tray) =>
      tray.parts.flatMap((part, p) => {
        const w = (part.x_mm[1]! - part.x_mm[0]!) / part.columns;
        const d = (part.y_mm[1]! - part.y_mm[0]!) / part.rows;
        return part.ppfd.map((ppfd, i) => ({
          key: `${tray.tray}-${p}-${i}`,
          x: px(part.x_mm[0]! + (i % part.columns) * w),
          y: py(part.y_mm[0]! + (Math.floor(i / part.columns) + 1) * d),
          w: w * scale,
          d: d * scale,
          fill: colour(ppfd),
        }));
      }),
    ),
  );
  /** Where cells of the wanted band border on others: the edge of the band. */
  const contour = $derived.by(() => {
    const band = bay.light?.ppfd_target;
    if (!band) return '';
    const side = (ppfd: number) => (ppfd < band.low ? -1 : ppfd > band.high ? 1 : 0);
    const steps: string[] = [];
    for (const part of bay.trays.flatMap((tray) => tray.parts)) {
      const w = (part.x_mm[1]! - part.x_mm[0]!) / part.columns;
      const d = (part.y_mm[1]! - part.y_mm[0]!) / part.rows;
      part.ppfd.forEach((ppfd, i) => {
        const [column, row] = [i % part.columns, Math.floor(i / part.columns)];
        const [right, back] = [
          px(part.x_mm[0]! + (column + 1) * w),
          py(part.y_mm[0]! + (row + 1) * d),
        ];
        const differs = (j: number) => side(part.ppfd[j]!) !== side(ppfd);
        if (column + 1 < part.columns && differs(i + 1)) {
          steps.push(`M${right} ${back}v${d * scale}`);
        }
        if (row + 1 < part.rows && differs(i + part.columns)) {
          steps.push(`M${right} ${back}h${-w * scale}`);
        }
      });
    }
    return steps.join('');
  });
  const at = $derived((cell: { x_mm: number; y_mm: number }) => ({
    x: px(cell.x_mm),
    y: py(cell.y_mm),
  }));
</script>

<div bind:clientWidth={width}>
  {#if width > 0 && bay.light}
    {@const worst = at(bay.light.worst)}
    {@const best = at(bay.light.best)}
    <svg
      {width}
      {height}
      role="img"
      aria-label="Light map from above: best cell {words.number(
        bay.light.ppfd.best,
        'ppfd_umol_m2_s',
      )} in tray {bay.trays.find((t) => t.tray === bay.light?.best.tray)
        ?.label}, worst {words.number(
        bay.light.ppfd.worst,
        'ppfd_umol_m2_s',
      )} in tray {bay.trays.find((t) => t.tray === bay.light?.worst.tray)?.label}"
      class="block overflow-visible rounded-md"
    >
      <rect
        x={px(0)}
        y={py(place.depth_mm)}
        width={place.width_mm * scale}
        height={place.depth_mm * scale}
        rx="4"
        fill="var(--line)"
        opacity="0.5"
      />
      {#each cells as cell (cell.key)}
        <rect x={cell.x} y={cell.y} width={cell.w + 0.4} height={cell.d + 0.4} fill={cell.fill} />
      {/each}
      <path d={contour} fill="none" stroke="#23283a" stroke-width="3" stroke-linecap="square" />
      <path d={contour} fill="none" stroke="#ffffff" stroke-width="1.4" stroke-linecap="square" />
      {#each bay.trays as tray (tray.tray)}
        {@const x = px(tray.x_mm[0]!)}
        {@const y = py(tray.y_mm[1]!)}
        <rect
          {x}
          {y}
          width={(tray.x_mm[1]! - tray.x_mm[0]!) * scale}
          height={(tray.y_mm[1]! - tray.y_mm[0]!) * scale}
          rx="3"
          fill="none"
          stroke="var(--ink)"
          stroke-width="1.5"
        />
        <g transform="translate({x + 5} {y + 4})">
          <rect
            width={tray.label.length * 8.4 + 8}
            height="19"
            rx="4"
            fill="var(--raised)"
            opacity="0.92"
          />
          <text x="4" y="14.5" font-size="14" font-weight="600" fill="var(--ink)">{tray.label}</text
          >
        </g>
      {/each}
      <!-- Best: a ring. Worst: a cross. -->
      <circle cx={best.x} cy={best.y} r="7" fill="none" stroke="#ffffff" stroke-width="5" />
      <circle cx={best.x} cy={best.y} r="7" fill="none" stroke="#23283a" stroke-width="2.2" />
      {#each [{ stroke: '#ffffff', size: 5.5 }, { stroke: '#23283a', size: 2.4 }] as { stroke, size } (stroke)}
        <path
          d="M{worst.x - 5} {worst.y - 5}l10 10m0 -10l-10 10"
          {stroke}
          stroke-width={size}
          stroke-linecap="round"
        />
      {/each}
    </svg>
    <p class="mt-1 flex justify-between text-sm text-soft">
      <span>✕ worst {words.bare(bay.light.ppfd.worst, 'ppfd_umol_m2_s')}</span>
      <span>mean {words.bare(bay.light.ppfd.mean, 'ppfd_umol_m2_s')}</span>
      <span>○ best {words.number(bay.light.ppfd.best, 'ppfd_umol_m2_s')}</span>
    </p>
    {#if contour}
      <p class="text-sm text-soft">The white line runs along the edge of the wanted band.</p>
    {/if}
  {/if}
</div>
