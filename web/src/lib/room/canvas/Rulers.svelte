<script lang="ts">
  // Two rulers at the edges of the view: heights over the floor, and lengths along the row.
  import { bench } from '../../bench/workbench.svelte';
  import { EDGE_PX, type Row } from './geometry';
  import { stage } from './stage.svelte';

  const { all }: { all: Row } = $props();

  const words = $derived(bench.words);
  const unit = $derived(words.unit('length_mm'));

  /** A step of whole shown units that leaves room between two labels. */
  const step = $derived.by(() => {
    const px = stage.shown / unit.factor;
    return [5, 10, 20, 50, 100, 200, 500, 1000].find((n) => n * px > 44) ?? 2000;
  });
  const marks = $derived((most_mm: number) => {
    const every = step / unit.factor;
    const count = Math.floor(most_mm / every);
    return Array.from({ length: count + 1 }, (_, i) => ({ mm: i * every, label: i * step }));
  });
</script>

<svg
  class="pointer-events-none absolute inset-0"
  width={stage.width}
  height={stage.height}
  aria-hidden="true"
  font-size="14"
>
  <rect width={EDGE_PX} height={stage.height} fill="var(--paper)" opacity="0.86" />
  <text x="6" y="16" fill="var(--soft)">{unit.unit}</text>
  {#each marks(all.tallest) as { mm, label } (mm)}
    {@const y = stage.floor - mm * stage.shown}
    {#if y > 30 && y < stage.height}
      <path d="M{EDGE_PX - 10} {y}h8" stroke="var(--frame)" />
      <text x={EDGE_PX - 13} y={y + 5} text-anchor="end" fill="var(--soft)">{label}</text>
    {/if}
  {/each}
  <path
    d="M{EDGE_PX - 2} {Math.max(stage.floor - all.tallest * stage.shown, 20)}V{stage.floor}"
    stroke="var(--frame)"
  />
  {#if bench.building}
    {@const y = Math.min(stage.floor + 44, stage.height - 22)}
    {#each marks(all.width) as { mm, label } (mm)}
      {@const x = stage.x + mm * stage.shown}
      {#if x > EDGE_PX && x < stage.width}
        <path d="M{x} {y}v6" stroke="var(--frame)" />
        <text {x} y={y + 20} text-anchor="middle" fill="var(--soft)">{label}</text>
      {/if}
    {/each}
    <path
      d="M{Math.max(stage.x, EDGE_PX)} {y}H{Math.min(
        stage.x + all.width * stage.shown,
        stage.width,
      )}"
      stroke="var(--frame)"
    />
  {/if}
</svg>
