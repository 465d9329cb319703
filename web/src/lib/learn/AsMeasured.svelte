<script lang="ts">
  // A figure that was corrected says so, and how to have it as it was.
  import type { Learned, Quantity } from '../api/client';
  import { bench } from '../bench/workbench.svelte';

  interface Props {
    learned: Learned;
    quantity: Quantity;
    /** What was found, before the figure; and of what, after it. */
    before: string;
    after: string;
    /** What is had back, on the button. */
    back: string;
    onback: () => void;
  }
  const { learned, quantity, before, after, back, onback }: Props = $props();
  const words = $derived(bench.words);
</script>

<p class="flex flex-wrap items-baseline gap-x-2 text-sm" data-testid="measured">
  <span
    >{before} <b>{words.number(learned.value, quantity)}</b>
    {after} ({words.number(learned.low, quantity)} to {words.number(learned.high, quantity)}), as
    measured up to {words.shortDate(learned.on)}.</span
  >
  <button class="quiet text-sm" onclick={onback}>{back}</button>
</p>
