<script lang="ts">
  // What to do: the gravest first, alike ones together, and no more than a person reads.
  import { untrack, type Snippet } from 'svelte';
  import type { Finding } from '../api/client';
  import FindingCard from './FindingCard.svelte';
  import { grouped } from './grouped';
  import { shell } from '../shell/shell.svelte';

  interface Props {
    findings: Finding[];
    /** What to say above a finding: where it is. */
    where?: Snippet<[Finding]>;
    /** What to say when there is nothing to do. */
    nothing?: Snippet;
  }
  const { findings, where, nothing }: Props = $props();

  /** So many groups are shown before one asks for the rest. */
  const SHOWN = 5;
  /** So many of a group that was opened. */
  const MOST = 60;
  const groups = $derived(grouped(findings));
  let all = $state(false);
  let open: string[] = $state.raw([]);
  // What was opened by Find is not left in a fold.
  $effect(() => {
    const at = groups.findIndex((group) => group.some((finding) => finding.id === shell.pointed));
    const group = groups[at];
    if (!group) return;
    untrack(() => {
      if (at >= SHOWN) all = true;
      if (group[0]!.id !== shell.pointed && !open.includes(group[0]!.code))
        open = [...open, group[0]!.code];
    });
  });
  const shown = $derived(all ? groups : groups.slice(0, SHOWN));
  const folded = $derived(groups.slice(SHOWN).reduce((sum, group) => sum + group.length, 0));
</script>

{#each shown as group, i (group[0]!.id)}
  {@const code = group[0]!.code}
  {@const opened = open.includes(code)}
  <div>
    {#each opened ? group.slice(0, MOST) : group.slice(0, 1) as finding, j (finding.id)}
      <div class:mt-3={j > 0}>
        {@render where?.(finding)}
        <FindingCard {finding} first={i === 0 && j === 0} />
      </div>
    {/each}
    {#if group.length > 1}
      <button
        class="quiet mt-1 text-sm"
        aria-expanded={opened}
        onclick={() => (open = opened ? open.filter((c) => c !== code) : [...open, code])}
      >
        {opened ? 'Show one of them' : `${group.length - 1} more like this`}
      </button>
    {/if}
    {#if opened && group.length > MOST}
      <p class="text-sm text-soft">and {group.length - MOST} more</p>
    {/if}
  </div>
{:else}
  {@render nothing?.()}
{/each}
{#if folded > 0}
  <button class="quiet border-frame!" aria-expanded={all} onclick={() => (all = !all)}>
    {all ? 'Show the first five' : `Show ${folded} more`}
  </button>
{/if}
