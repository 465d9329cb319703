<script lang="ts">
  import { api, type Revision } from '../api/client';
  import { bench } from '../bench/workbench.svelte';

  let revisions: Revision[] = $state.raw([]);
  let problem = $state('');
  /** The word of each revision, to say what a branch came after. */
  const words = $derived(Object.fromEntries(revisions.map((r) => [r.number, `“${r.word}”`])));

  $effect(() => {
    const view = bench.view;
    if (!view) return;
    api.history(view.id).then(
      (list) => {
        revisions = list;
        problem = '';
      },
      (error: unknown) => (problem = String(error)),
    );
  });

  /** In the site's own form and time. */
  const when = (iso: string) =>
    new Date(iso).toLocaleString(bench.words.monthFirst ? 'en-US' : 'en-GB', {
      day: 'numeric',
      month: 'short',
      hour: 'numeric',
      minute: '2-digit',
      timeZone: bench.draft?.site.time_zone,
    });
</script>

{#if problem}<p class="text-wine" role="alert">{problem}</p>{/if}
<ol class="flex max-h-96 flex-col overflow-y-auto" data-testid="history">
  {#each revisions as revision (revision.number)}
    <li class="flex items-baseline gap-2 border-t py-1.5">
      <span
        class="grow"
        class:text-soft={revision.undone || revision.aside}
        class:line-through={revision.undone}
        >{revision.word}{#if revision.aside}<span class="ml-1 text-sm"
            >· beside the line, after {words[revision.parent ?? 0] ?? 'the beginning'}</span
          >{/if}</span
      >
      <span class="text-sm whitespace-nowrap text-soft">{when(revision.saved_at)}</span>
      {#if revision.current}
        <span class="rounded bg-sage-soft px-2 text-sm">here</span>
      {:else}
        <button
          class="quiet text-sm whitespace-nowrap"
          onclick={() => void bench.goTo(revision.number)}>Go here</button
        >
      {/if}
    </li>
  {/each}
</ol>
