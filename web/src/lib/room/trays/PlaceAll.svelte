<script lang="ts">
  // Places every tray on every day: how far it is, the best so far, and a way to stop there.
  import type { Tick } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import Working from '../../fields/Working.svelte';
  import { placeAll } from './placeAll';

  interface Props {
    label: string;
    /** As if no tray stood anywhere yet. */
    afresh?: boolean;
  }
  const { label, afresh = false }: Props = $props();

  const words = $derived(bench.words);
  const count = $derived((n: number) => words.number(n, 'count'));
  let placing = $state(false);
  let tick: Tick | undefined = $state();
  let outcome = $state('');

  async function place() {
    placing = true;
    outcome = '';
    outcome = (await placeAll(afresh, (now) => (tick = now))) ?? '';
    placing = false;
    tick = undefined;
  }

  const soFar = $derived.by(() => {
    if (!tick) return 'Working out the days…';
    if (tick.unplaced === 0)
      return `Every tray has a spot; cost of moves, lit shelves and poor spots so far: ${count(tick.cost)}`;
    const least =
      tick.unplaced_bound > 0 ? `; at least ${count(tick.unplaced_bound)} can have none` : '';
    return `Plants times days without a spot so far: ${count(tick.unplaced)}${least}`;
  });
</script>

<div class="flex flex-wrap items-center gap-x-3 gap-y-1" data-testid="place-all">
  {#if placing}
    <Working label="Placing" done={tick?.done ?? 0} {soFar} run={tick?.run} />
  {:else}
    <button class="quiet border-line! text-sm" onclick={() => void place()}>{label}</button>
    {#if outcome}<span class="text-sm" role="status">{outcome}</span>{/if}
  {/if}
</div>
