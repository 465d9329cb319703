<script lang="ts">
  // An entry of the log in words, with its text and its photo.
  import type { Entry } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import { Names, said } from './said';

  const { entry, plain = false }: { entry: Entry; plain?: boolean } = $props();
  const names = $derived(new Names(bench.draft));
</script>

<span
  >{entry.fact ? said(entry.fact, names, bench.words) : 'Taken back'}{#if entry.text}<span
      class="block text-sm text-soft">“{entry.text}”</span
    >{/if}{#if entry.photo && !plain}<a
      class="block"
      href="/api/plans/{bench.view?.id}/photos/{entry.photo}"
      target="_blank"
      rel="noreferrer"
      ><img
        class="mt-1 max-h-32 rounded-lg"
        src="/api/plans/{bench.view?.id}/photos/{entry.photo}"
        alt="Photo: {entry.text || 'without a text'}"
        loading="lazy"
      /></a
    >{/if}</span
>
