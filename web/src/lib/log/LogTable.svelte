<script lang="ts">
  // The log as a table: out as CSV, and in again with what is wrong row by row.
  import { type TableRead } from '../api/client';
  import { logApi } from '../api/log';
  import { bench } from '../bench/workbench.svelte';
  import { outbox } from './outbox.svelte';

  const { onread }: { onread: () => void } = $props();
  let input: HTMLInputElement | undefined = $state();
  let text = $state('');
  let read: TableRead | undefined = $state.raw();
  const path = $derived(`/api/plans/${bench.view?.id}/log.csv`);

  async function open() {
    const file = input?.files?.[0];
    if (!file) return;
    text = await file.text();
    input!.value = '';
    await send(false);
  }

  async function send(keepSound: boolean) {
    try {
      read = await logApi.logTable(bench.view!.id, text, keepSound);
      outbox.sent += 1;
      if (read.added > 0) await bench.noted(false);
      onread();
    } catch (error) {
      read = undefined;
      bench.explain(error);
    }
  }
</script>

<div class="flex flex-wrap gap-2">
  <a class="quiet border-frame!" href={path} download="faint-sunrise-log.csv">Save as CSV</a>
  <button class="quiet border-frame!" onclick={() => input?.click()}>Read a CSV file</button>
  <input
    bind:this={input}
    type="file"
    accept=".csv,text/csv"
    class="hidden"
    aria-label="CSV file"
    onchange={() => void open()}
  />
</div>
{#if read}
  <div class="mt-2 text-sm" role="status" data-testid="table-read">
    {#if read.added + read.before > 0}
      <p>
        {read.added} added{read.before > 0 ? `, ${read.before} there already` : ''}.
      </p>
    {/if}
    {#if read.problems.length > 0}
      <p class="text-wine">
        {read.added === 0 && read.before === 0 ? 'Nothing was added. ' : ''}These rows cannot be
        read:
      </p>
      <ul class="ml-4 list-disc">
        {#each read.problems as { row, faults } (row)}
          <li>
            Row {row}: {faults
              .map(
                (f) =>
                  `${f.path.slice(1)}: ${bench.words.say(f.problem)}; ${bench.words.say(f.remedy)}`,
              )
              .join('. ')}
          </li>
        {/each}
      </ul>
      {#if read.added === 0 && read.before === 0}
        <button class="quiet mt-1 border-frame!" onclick={() => void send(true)}
          >Add the other rows</button
        >
      {/if}
    {/if}
  </div>
{/if}
