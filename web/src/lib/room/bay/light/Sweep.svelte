<script lang="ts">
  // Daily light against the lamps' height, with the hours as they are now.
  import { scaleLinear } from 'd3-scale';
  import { area, line } from 'd3-shape';
  import type { BayOnDay, SweepPoint } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';

  interface Props {
    bay: BayOnDay;
    nowMm: number;
  }
  const { bay, nowMm }: Props = $props();

  const HEIGHT = 132;
  const PAD = { left: 34, right: 8, top: 20, bottom: 22 };

  let width = $state(0);
  const words = $derived(bench.words);
  const hang = $derived(bay.hang);
  const points = $derived(hang?.detail?.sweep ?? []);
  const first = $derived(points[0]?.height_mm ?? 0);
  const last = $derived(points.at(-1)?.height_mm ?? 1);
  // Right over the leaves the brightest cell would dwarf all that matters.
  const most = $derived(
    Math.max(...points.filter((p) => p.height_mm >= (hang?.lowest_mm ?? 0)).map((p) => p.best), 10),
  );
  const x = $derived(scaleLinear([first, last], [PAD.left, Math.max(width - PAD.right, PAD.left)]));
  const y = $derived(scaleLinear([0, most * 1.05], [HEIGHT - PAD.bottom, PAD.top]).clamp(true));
  const band = $derived(bay.light?.ppfd_target);
  const spread = $derived(
    area<SweepPoint>()
      .x((p) => x(p.height_mm))
      .y0((p) => y(p.worst))
      .y1((p) => y(p.best))(points) ?? '',
  );
  const mean = $derived(
    line<SweepPoint>()
      .x((p) => x(p.height_mm))
      .y((p) => y(p.mean))(points) ?? '',
  );
  const ticks = $derived.by(() => {
    const { factor } = words.unit('length_mm');
    return scaleLinear([first * factor, last * factor], [0, 1])
      .ticks(6)
      .map((shown) => ({ shown, mm: shown / factor }));
  });
</script>

<div bind:clientWidth={width}>
  {#if hang && width > 0 && points.length > 1}
    <svg
      {width}
      height={HEIGHT}
      role="img"
      aria-label="Light against lamp height; best at {words.number(
        hang.setting.height_mm,
        'length_mm',
      )}"
      class="block"
    >
      {#if band}
        <rect
          x={PAD.left}
          y={y(band.high)}
          width={Math.max(width - PAD.left - PAD.right, 0)}
          height={Math.max(y(band.low) - y(band.high), 0)}
          fill="var(--sage-soft)"
        />
      {/if}
      <path d={spread} fill="var(--straw)" opacity="0.35" />
      <path d={mean} fill="none" stroke="var(--ink)" stroke-width="2" />
      <line
        x1={PAD.left}
        x2={width - PAD.right}
        y1={HEIGHT - PAD.bottom}
        y2={HEIGHT - PAD.bottom}
        stroke="var(--frame)"
      />
      {#each ticks as tick (tick.shown)}
        <text x={x(tick.mm)} y={HEIGHT - 5} text-anchor="middle" font-size="14" fill="var(--soft)"
          >{tick.shown}</text
        >
      {/each}
      {#each y.ticks(3) as tick (tick)}
        <text x={PAD.left - 5} y={y(tick) + 5} text-anchor="end" font-size="14" fill="var(--soft)"
          >{tick}</text
        >
      {/each}
      {#each [{ mm: nowMm, name: 'now', stroke: 'var(--ink)', dash: '3 3' }, { mm: hang.setting.height_mm, name: 'best', stroke: 'var(--coral)', dash: '' }] as mark (mark.name)}
        {@const near = Math.abs(x(nowMm) - x(hang.setting.height_mm)) < 44}
        {@const isLeft = near
          ? (mark.name === 'now') === nowMm <= hang.setting.height_mm
          : x(mark.mm) > width - 60}
        <line
          x1={x(mark.mm)}
          x2={x(mark.mm)}
          y1={PAD.top - 6}
          y2={HEIGHT - PAD.bottom}
          stroke={mark.stroke}
          stroke-width="2"
          stroke-dasharray={mark.dash}
        />
        <text
          x={x(mark.mm) + (isLeft ? -5 : 5)}
          y="12"
          text-anchor={isLeft ? 'end' : 'start'}
          font-size="14"
          font-weight="600"
          fill={mark.stroke}>{mark.name}</text
        >
      {/each}
    </svg>
  {/if}
</div>
