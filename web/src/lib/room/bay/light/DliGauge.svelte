<script lang="ts">
  // Daily light of all cells, worst to best, against the band that suits the crop.
  import type { Band } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';

  interface Props {
    dli: { mean: number; worst: number; best: number };
    target: Band | null | undefined;
    width?: number;
  }
  const { dli, target, width = 180 }: Props = $props();

  const HEIGHT = 22;
  const most = $derived(Math.max(20, dli.best * 1.05, (target?.high ?? 0) * 1.2));
  const x = $derived((value: number) => (value / most) * width);
  const text = $derived(
    `daily light from ${bench.words.bare(dli.worst, 'dli_mol_m2_d')} to ${bench.words.number(dli.best, 'dli_mol_m2_d')}, average ${bench.words.bare(dli.mean, 'dli_mol_m2_d')}` +
      (target ? `; wanted ${target.low} to ${target.high}` : ''),
  );
</script>

<svg {width} height={HEIGHT} viewBox="0 0 {width} {HEIGHT}" role="img" aria-label={text}>
  <rect y="8" {width} height="6" rx="3" fill="var(--line)" />
  {#if target}
    <rect
      x={x(target.low)}
      y="2"
      width={x(target.high) - x(target.low)}
      height="18"
      rx="3"
      fill="var(--sage-soft)"
      stroke="var(--sage)"
      stroke-width="1.2"
    />
  {/if}
  <line
    x1={x(dli.worst)}
    x2={x(dli.best)}
    y1="11"
    y2="11"
    stroke="var(--straw)"
    stroke-width="6"
    stroke-linecap="round"
  />
  <path d="M{x(dli.worst)} 5v12M{x(dli.best)} 5v12" stroke="var(--ink)" stroke-width="1.4" />
  <circle cx={x(dli.mean)} cy="11" r="5" fill="var(--ink)" />
</svg>
