<script lang="ts">
  // What a bay shows under the hand that holds trays over it: the free spot nearest to the hand, and
  // what speaks against it.
  import type { BayRef } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import { held } from '../trays/held.svelte';

  interface Props {
    bay: BayRef;
    /** How far along the deck the hand is. */
    at_mm: number;
    left: number;
    ceiling: number;
    mm: (length: number) => number;
    up: (height: number) => number;
  }
  const { bay, at_mm, left, ceiling, mm, up }: Props = $props();
  const ghost = $derived(held.nearest(bay, at_mm));
  const against = $derived(held.of(bay)?.against);
  const rim_mm = $derived(held.now?.rim_mm ?? 0);
</script>

<g class="pointer-events-none">
  {#if ghost}
    <rect
      data-testid="ghost"
      x={left + mm(ghost.x_mm[0]!)}
      y={up(rim_mm)}
      width={mm(ghost.x_mm[1]! - ghost.x_mm[0]!)}
      height={Math.max(mm(rim_mm), 4)}
      fill="var(--coral)"
      fill-opacity="0.35"
      stroke="var(--coral)"
      stroke-width="2"
      stroke-dasharray="5 3"
    />
  {/if}
  {#if against}
    {@const text = bench.words.say(against)}
    <rect
      x={left + 6}
      y={ceiling + 4}
      width={text.length * 7.4 + 14}
      height="24"
      rx="5"
      fill="var(--raised)"
      stroke="var(--wine)"
    />
    <text
      data-testid="against"
      x={left + 13}
      y={ceiling + 21}
      font-size="14"
      font-weight="600"
      fill="var(--wine)">{text}</text
    >
  {/if}
</g>
