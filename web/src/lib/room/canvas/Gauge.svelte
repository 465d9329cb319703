<script lang="ts">
  // Daily light: the mean against the band that seedlings here want.
  import type { BayLight } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';

  interface Props {
    light: BayLight;
    x: number;
    /** The deck and what is over it, on the screen. */
    deck: number;
    ceiling: number;
    /** Whether there is room for words. */
    near: boolean;
  }
  const { light, x, deck, ceiling, near }: Props = $props();

  const words = $derived(bench.words);
  const high = $derived(Math.max(Math.min(deck - ceiling - 30, 84), 10));
  const most = $derived(Math.max(20, light.target?.high ?? 0));
  const y = $derived((share: number) => deck - 4 - Math.min(share / most, 1) * high);
</script>

<rect {x} y={deck - 4 - high} width="9" height={high} rx="4.5" fill="var(--line)" />
{#if light.target}
  <rect
    x={x - 2}
    y={y(light.target.high)}
    width="13"
    height={y(light.target.low) - y(light.target.high)}
    rx="3"
    fill="var(--sage-soft)"
    stroke="var(--sage)"
  />
{/if}
<rect
  x={x + 2}
  y={y(light.dli.mean)}
  width="5"
  height={deck - 4 - y(light.dli.mean)}
  rx="2.5"
  fill="var(--straw)"
/>
{#if near}
  <text x={x + 15} y={deck - 4} font-size="14" fill="var(--soft)"
    >{words.bare(light.dli.mean, 'dli_mol_m2_d')}</text
  >
{/if}
