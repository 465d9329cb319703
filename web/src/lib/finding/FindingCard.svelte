<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Finding } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import { shell } from '../shell/shell.svelte';

  interface Props {
    finding: Finding;
    /** The first thing to act on stands out. */
    first?: boolean;
  }
  const { finding, first = false }: Props = $props();
  const words = $derived(bench.words);
  const tone = { harm: 'Urgent', conflict: 'Needs putting right', advice: '' } as const;

  /** What was opened by Find is brought into sight. */
  function shown(card: HTMLElement) {
    if (shell.pointed !== finding.id) return;
    shell.pointed = undefined;
    card.scrollIntoView({ block: 'center' });
  }
</script>

<article
  {@attach shown}
  class="rounded-xl border p-3"
  class:bg-straw-soft={first && finding.severity === 'advice'}
  class:bg-wine-soft={finding.severity !== 'advice'}
>
  {#if tone[finding.severity]}
    <p class="text-sm font-semibold text-wine">{tone[finding.severity]}</p>
  {/if}
  <div class="flex flex-wrap items-center justify-between gap-x-3 gap-y-2">
    <h3 class="min-w-48 flex-1 text-lg">{words.say(finding.headline)}</h3>
    {#if finding.fixes.length === 1}{@render fixes()}{/if}
  </div>
  <p class="mt-1">{words.say(finding.reason)}</p>
  {#if finding.fixes.length > 1}
    <div class="mt-2 flex flex-wrap gap-2">{@render fixes()}</div>
  {/if}
  <p class="mt-1 text-sm">Based on: {finding.source}</p>
</article>

{#snippet fixes()}
  {#each finding.fixes as fix, i (i)}
    <Button
      class="shrink-0 bg-coral! px-4! py-2! font-semibold text-on-coral! hover:opacity-90"
      onclick={() => void bench.apply(fix)}>{words.say(fix.label)}</Button
    >
  {/each}
{/snippet}
