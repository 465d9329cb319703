<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import type { Finding } from '../api/client';
  import { bench } from '../workbench.svelte';

  interface Props {
    finding: Finding;
    /** The first thing to act on stands out. */
    first?: boolean;
  }
  const { finding, first = false }: Props = $props();
  const words = $derived(bench.words);
  const tone = { harm: 'Harm', conflict: 'Does not fit', advice: 'Better so' } as const;
</script>

<article
  class="rounded-xl border p-3"
  class:bg-straw-soft={first && finding.severity === 'advice'}
  class:bg-wine-soft={finding.severity !== 'advice'}
>
  <p class="text-sm font-semibold" class:text-wine={finding.severity !== 'advice'}>
    {tone[finding.severity]}
  </p>
  <h3 class="text-lg">{words.say(finding.headline)}</h3>
  <p>{words.say(finding.reason)}</p>
  <div class="mt-2 flex flex-wrap items-center gap-2">
    {#each finding.fixes as fix (fix.label.text)}
      <Button
        class="bg-coral! text-on-coral! font-semibold hover:opacity-90"
        onclick={() => void bench.apply(fix)}>{words.say(fix.label)}</Button
      >
    {/each}
    <span class="text-sm" class:text-soft={!first && finding.severity === 'advice'}
      >{finding.source}</span
    >
  </div>
</article>
