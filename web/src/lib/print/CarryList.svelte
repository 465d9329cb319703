<script lang="ts">
  // What is carried in on a night of frost, to tick off.
  import { api, type FrostNight } from '../api/client';
  import { bench } from '../bench/workbench.svelte';

  const { date }: { date: string } = $props();
  const words = $derived(bench.words);
  let night: FrostNight | null | undefined = $state.raw();
  let problem = $state('');

  $effect(() => {
    const draft = bench.draft;
    if (!draft) return;
    api.frostNight(draft, date).then(
      (found) => (night = found),
      (error: unknown) => (problem = error instanceof Error ? error.message : String(error)),
    );
  });
</script>

<h1 class="text-2xl">Bring in for the night of {words.date(date)}</h1>
{#if problem}
  <p role="alert">{problem}</p>
{:else if night}
  <p>{words.say(night.verdict)}.</p>
  <table class="w-full max-w-2xl text-left" data-testid="carry-list">
    <thead>
      <tr><th>Done</th><th>Tray</th><th>In it</th><th>From</th><th>To</th></tr>
    </thead>
    <tbody>
      {#each night.carry as tray (tray.tray)}
        <tr class="border-t">
          <td><span class="inline-block size-4 border border-frame" aria-hidden="true"></span></td>
          <td class="font-semibold">{tray.label}</td>
          <td>{tray.holds.join(', ')}</td>
          <td>{tray.from ?? 'outside'}</td>
          <td>{words.say(tray.to)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  {#if night.left.length > 0}
    <p><b>No room inside:</b> {night.left.join(', ')}. Cover them where they are.</p>
  {/if}
{:else if night === null}
  <p>Nothing is outside on that day.</p>
{/if}
