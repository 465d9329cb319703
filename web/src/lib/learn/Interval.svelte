<script lang="ts">
  // A figure with where it lies for certain: a bar between its ends, a mark where it is, and one where the plan has it.
  import type { Quantity } from '../api/client';
  import { bench } from '../bench/workbench.svelte';

  interface Props {
    value: number;
    low: number;
    high: number;
    /** What it stands beside: what the plan has, or no difference. */
    beside: number;
    besideName: string;
    quantity: Quantity;
    label: string;
  }
  const { value, low, high, beside, besideName, quantity, label }: Props = $props();
  const words = $derived(bench.words);
  const WIDTH = 280;
  const ends = $derived.by(() => {
    const [least, most] = [Math.min(low, beside), Math.max(high, beside)];
    const room = (most - least || 1) * 0.15;
    return [least - room, most + room] as const;
  });
  const x = $derived((at: number) => ((at - ends[0]) / (ends[1] - ends[0])) * WIDTH);
  const anchor = $derived((at: number) =>
    x(at) < 50 ? 'start' : x(at) > WIDTH - 50 ? 'end' : 'middle',
  );
</script>

<svg viewBox="0 0 {WIDTH} 56" class="w-full max-w-72" role="img" aria-label={label}>
  <line x1="0" x2={WIDTH} y1="28" y2="28" class="rule" />
  <line x1={x(beside)} x2={x(beside)} y1="14" y2="38" class="beside" />
  <text x={x(beside)} y="51" text-anchor={anchor(beside)} class="soft">{besideName}</text>
  <rect x={x(low)} y="23" width={Math.max(x(high) - x(low), 2)} height="10" rx="5" class="bar" />
  <circle cx={x(value)} cy="28" r="6" class="dot" />
  <text x={x(value)} y="12" text-anchor={anchor(value)} class="strong"
    >{words.number(value, quantity)}</text
  >
</svg>

<style>
  .rule {
    stroke: var(--line);
  }
  .beside {
    stroke: var(--soft);
    stroke-dasharray: 3 3;
    stroke-width: 2;
  }
  .bar {
    fill: var(--teal-soft);
    stroke: var(--teal);
  }
  .dot {
    fill: var(--coral);
  }
  text {
    font-size: 13px;
    fill: var(--ink);
  }
  .soft {
    fill: var(--soft);
  }
  .strong {
    font-weight: 700;
  }
</style>
