<script lang="ts">
  // Days on which nobody waters, and what dries first then.
  import type { DateSpan } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';

  const words = $derived(bench.words);
  const spans = $derived(bench.draft?.away ?? []);
  const away = $derived(bench.room?.away);
  let from = $state('');
  let to = $state('');

  function keep(all: DateSpan[], word: string) {
    const there = bench.draft?.away !== undefined;
    bench.keep(
      all.length > 0
        ? [{ op: 'add', path: '/away', value: all }]
        : there
          ? [{ op: 'remove', path: '/away' }]
          : [],
      word,
    );
  }

  function add(event: SubmitEvent) {
    event.preventDefault();
    if (!from || !to) return;
    const all = [...spans, { from, to }].sort((a, b) => a.from.localeCompare(b.from));
    keep(all, `away ${words.shortDate(from)} to ${words.shortDate(to)}`);
    from = '';
    to = '';
  }
</script>

<ul>
  {#each spans as span, i (`${span.from} ${span.to}`)}
    <li class="flex items-center justify-between gap-2 border-t py-1">
      <button class="text-teal hover:underline" onclick={() => bench.go(span.from)}
        >{words.shortDate(span.from)} to {words.shortDate(span.to)}</button
      >
      <button
        class="quiet text-sm"
        onclick={() =>
          keep(
            spans.filter((_, j) => j !== i),
            `not away ${words.shortDate(span.from)} to ${words.shortDate(span.to)}`,
          )}>Remove</button
      >
    </li>
  {/each}
</ul>
<form class="mt-1 flex flex-wrap items-end gap-2" onsubmit={add}>
  <label class="text-sm text-soft"
    >Away from
    <input type="date" class="block rounded-lg border-line bg-raised text-ink" bind:value={from} />
  </label>
  <label class="text-sm text-soft"
    >up to
    <input
      type="date"
      class="block rounded-lg border-line bg-raised text-ink"
      min={from}
      bind:value={to}
    />
  </label>
  <button class="quiet border-line!" disabled={!from || !to || to < from}>Add</button>
</form>
{#if away}
  <p class="mt-2">
    First to dry after a good watering on {words.shortDate(away.days.from)}:
  </p>
  <ul data-testid="dries">
    {#each away.trays as tray (tray.tray)}
      <li class="border-t py-1">
        <b>{tray.label}</b>, {tray.bay_name}:
        {#if tray.dries_on == null}
          lasts
        {:else}
          <span class:text-wine={tray.too_soon}
            >dry by {words.shortDate(tray.dries_on)}{tray.too_soon
              ? ', before you are back'
              : ''}</span
          >{#if tray.too_soon && tray.filled_until !== tray.dries_on}; left filled from below {tray.filled_until ==
            null
              ? 'each lasts'
              : `by ${words.shortDate(tray.filled_until)}`}{/if}
        {/if}
      </li>
    {:else}
      <li class="text-soft">Nothing stands here then.</li>
    {/each}
  </ul>
{/if}
