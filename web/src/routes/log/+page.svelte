<script lang="ts">
  // What happened: found, looked back on tray by tray, and corrected.
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { type Entry, type LogAsked, type Told } from '$lib/api/client';
  import { logApi } from '$lib/api/log';
  import { bench } from '$lib/bench/workbench.svelte';
  import ChoiceField from '$lib/fields/ChoiceField.svelte';
  import AddEntry from '$lib/log/AddEntry.svelte';
  import EntryLine from '$lib/log/EntryLine.svelte';
  import LogTable from '$lib/log/LogTable.svelte';
  import { outbox } from '$lib/log/outbox.svelte';
  import { KINDS, trayOf, type FactKind } from '$lib/log/said';
  import TrayStory from '$lib/log/TrayStory.svelte';
  import Compare from '$lib/learn/Compare.svelte';
  import Lessons from '$lib/learn/Lessons.svelte';
  import { walk } from '$lib/today/walk.svelte';

  const words = $derived(bench.words);
  const plan = $derived(bench.view?.id);
  const PAGE = 100;

  let text = $state('');
  let kind: FactKind | '' = $state('');
  let list: Told[] = $state.raw([]);
  let more = $state(false);
  let problem = $state('');
  let adding = $state(false);
  let correcting: Entry | undefined = $state.raw();
  let all = $state(false);
  let asked = 0;

  /** The tray whose life is told: the address names it, so that a label's code opens it. */
  const tray = $derived(page.url.searchParams.get('tray') ?? undefined);
  const trays = $derived({
    '': 'all trays',
    ...Object.fromEntries((bench.draft?.trays ?? []).map((t) => [t.id, t.name])),
  } as Record<string, string>);

  // A label may be of another plan than the one that was open last.
  $effect(() => {
    const wanted = Number(page.url.searchParams.get('plan') ?? plan);
    if (plan !== undefined && wanted !== plan && Number.isInteger(wanted))
      void bench.load(null, wanted);
  });

  const query = $derived<LogAsked>({
    ...(tray ? { tray } : {}),
    ...(kind ? { kind } : {}),
    ...(text.trim() ? { text: text.trim() } : {}),
    limit: PAGE,
  });
  $effect(() => {
    void outbox.sent;
    void find(plan, query);
  });

  async function find(of: number | undefined, by: LogAsked, after?: Told) {
    if (of === undefined) return;
    const mine = ++asked;
    try {
      const found = await logApi.log(of, {
        ...by,
        ...(after ? { before: after.kept.number, before_on: after.kept.entry.on } : {}),
      });
      if (mine !== asked) return;
      list = after ? [...list, ...found] : found;
      more = found.length === PAGE;
      problem = '';
    } catch (error) {
      if (mine === asked) problem = error instanceof Error ? error.message : String(error);
    }
  }

  const shown = $derived(list.filter((told) => all || told.counts));
  const days = $derived.by(() => {
    const days: { on: string; told: Told[] }[] = [];
    for (const told of shown) {
      const on = told.kept.entry.on;
      if (days.at(-1)?.on !== on) days.push({ on, told: [] });
      days.at(-1)!.told.push(told);
    }
    return days;
  });
  const hidden = $derived(list.length - list.filter((told) => told.counts).length);
  const waits = $derived(outbox.waiting.filter((own) => own.plan === plan).length);

  const PARTS: Record<string, string> = {
    happened: 'Happened',
    learned: 'Learned',
    compare: 'Compare',
  };
  const part = $derived(page.url.searchParams.get('show') ?? 'happened');

  function show(id: string) {
    const url = new URL(page.url);
    if (id === 'happened') url.searchParams.delete('show');
    else url.searchParams.set('show', id);
    void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
  }

  function look(id: string | undefined) {
    const url = new URL(page.url);
    url.searchParams.delete('plan');
    if (id) url.searchParams.set('tray', id);
    else url.searchParams.delete('tray');
    void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
  }
</script>

<svelte:head><title>Log · Faint Sunrise</title></svelte:head>

<div class="mx-auto grid w-full max-w-6xl items-start gap-6 p-4 lg:grid-cols-[1fr_27rem]">
  <div class="min-w-0 max-lg:order-2">
    <h1 class="text-2xl">Log</h1>
    <div class="mt-2 flex flex-wrap gap-1" role="group" aria-label="What to look at">
      {#each Object.entries(PARTS) as [id, name] (id)}
        <button
          class="quiet min-h-11! border-line!"
          aria-pressed={part === id}
          onclick={() => show(id)}>{name}</button
        >
      {/each}
    </div>
    {#if part === 'learned'}
      <div class="mt-3"><Lessons /></div>
    {:else if part === 'compare'}
      <div class="mt-3"><Compare /></div>
    {:else}
      <div class="mt-2 grid grid-cols-2 items-end gap-2 sm:grid-cols-[1fr_auto_auto]">
        <label class="block text-sm text-soft max-sm:col-span-2"
          >Search
          <input
            type="search"
            class="mt-0.5 w-full rounded-lg border-line bg-raised px-2 py-1.5 text-base text-ink"
            placeholder="a word, a crop, a tray"
            bind:value={text}
          /></label
        >
        <ChoiceField
          label="What"
          value={kind}
          choices={{ '': 'everything', ...KINDS } as Record<string, string>}
          onset={(to: string) => (kind = to as FactKind | '')}
        />
        <ChoiceField
          label="Tray"
          value={tray ?? ''}
          choices={trays}
          onset={(to: string) => look(to || undefined)}
        />
      </div>
      {#if waits > 0}
        <p class="mt-2 rounded-xl bg-straw-soft px-3 py-2 text-sm" role="status">
          {waits === 1 ? 'One entry waits' : `${waits} entries wait`} on this device to be sent.
        </p>
      {/if}
      {#if problem}<p class="mt-2 text-wine" role="alert">{problem}</p>{/if}
      <ol class="mt-2" data-testid="entries">
        {#each days as { on, told } (on)}
          <li>
            <h2 class="mt-3 text-base">{words.date(on)}</h2>
            <ul>
              {#each told as { kept, counts } (kept.entry.id)}
                {@const entry = kept.entry}
                {@const its = trayOf(entry)}
                <li class="border-t py-1.5" class:gone={!counts}>
                  <div class="flex flex-wrap items-center gap-x-2">
                    {#if entry.at_h != null}<span class="w-14 shrink-0 text-sm text-soft"
                        >{words.number(entry.at_h, 'clock_h')}</span
                      >{/if}
                    <span class="min-w-0 grow"><EntryLine {entry} /></span>
                    <span class="flex text-sm">
                      {#if its && its !== tray}<button class="quiet" onclick={() => look(its)}
                          >Look back</button
                        >{/if}
                      {#if counts}
                        <button class="quiet" onclick={() => (correcting = entry)}>Correct</button>
                        <button class="quiet" onclick={() => walk.takeBack(entry)}>Take back</button
                        >
                      {/if}
                    </span>
                  </div>
                  {#if correcting?.id === entry.id}
                    <div class="card my-2 p-3">
                      <AddEntry
                        corrects={entry}
                        onkept={() => (correcting = undefined)}
                        oncancel={() => (correcting = undefined)}
                      />
                    </div>
                  {/if}
                </li>
              {/each}
            </ul>
          </li>
        {:else}
          <li class="card px-4 py-6 text-center">
            {#if text || kind || tray}
              <p>Nothing like that was noted.</p>
            {:else}
              <p class="text-lg">Nothing has been noted yet.</p>
              <p class="mt-1 text-soft">
                Tap jobs in Today when they are done, or note something here. From then on what
                happened counts, not what was reckoned.
              </p>
            {/if}
          </li>
        {/each}
      </ol>
      <div class="mt-2 flex flex-wrap gap-2">
        {#if more}
          <button class="quiet border-frame!" onclick={() => void find(plan, query, list.at(-1))}
            >Earlier entries</button
          >
        {/if}
        {#if hidden > 0}
          <button class="quiet" aria-pressed={all} onclick={() => (all = !all)}
            >{all ? 'Hide' : 'Show'} what was corrected or taken back ({hidden})</button
          >
        {/if}
      </div>
    {/if}
  </div>
  <aside class="flex min-w-0 flex-col gap-4 max-lg:order-1">
    {#if tray}<TrayStory {tray} onclose={() => look(undefined)} />{/if}
    <section class="card px-4 py-3" aria-label="Note or measure">
      {#if adding}
        <AddEntry {tray} onkept={() => (adding = false)} oncancel={() => (adding = false)} />
      {:else}
        <button
          class="quiet min-h-11! w-full justify-center border-frame! font-semibold"
          onclick={() => (adding = true)}>Note, measure or photograph</button
        >
      {/if}
    </section>
    <section class="card px-4 py-3" aria-label="As a table">
      <h2 class="mb-1 text-lg">As a table</h2>
      <p class="mb-2 text-sm text-soft">
        One row for each entry. A file that is read twice adds nothing the second time.
      </p>
      <LogTable onread={() => void find(plan, query)} />
    </section>
  </aside>
</div>

<style>
  [aria-pressed='true'] {
    background: var(--teal-soft);
    font-weight: 600;
  }
  .gone {
    color: var(--soft);
    text-decoration: line-through;
  }
</style>
