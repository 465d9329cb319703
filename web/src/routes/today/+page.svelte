<script lang="ts">
  // A walk round the room: every stop with its jobs, by thumb.
  import { untrack } from 'svelte';
  import { bench } from '$lib/bench/workbench.svelte';
  import AddEntry from '$lib/log/AddEntry.svelte';
  import EntryLine from '$lib/log/EntryLine.svelte';
  import { outbox } from '$lib/log/outbox.svelte';
  import JobCard from '$lib/today/JobCard.svelte';
  import WaterAhead from '$lib/today/WaterAhead.svelte';
  import { walk } from '$lib/today/walk.svelte';
  import type { Entry } from '$lib/api/client';

  const words = $derived(bench.words);
  const plan = $derived(bench.view?.id);
  const today = $derived(walk.today?.date === bench.date ? walk.today : undefined);
  const isToday = $derived(bench.date === bench.view?.today);
  const season = $derived(bench.draft?.season);
  const inSeason = $derived(
    season && bench.view && season.from <= bench.view.today && bench.view.today <= season.to,
  );
  let adding = $state(false);
  let caughtUp = $state(false);

  // Another day, another plan, another edit, or something noted: the walk may be another.
  $effect(() => {
    const date = bench.date;
    void bench.view?.revision;
    void outbox.sent;
    // What the asking itself looks at and changes is no reason to ask again.
    if (plan !== undefined && date) untrack(() => void walk.ask(plan, date));
  });
  $effect(() => {
    if (bench.connected) void outbox.send();
  });

  const here = $derived(outbox.waiting.filter((own) => own.plan === plan));
  const noted = $derived([
    ...here.map(({ entry }) => ({ entry, waits: true })),
    ...walk.noted.map(({ kept }) => ({ entry: kept.entry, waits: false })),
  ]);

  /** Notes jobs of long ago as if all had gone as planned. */
  function catchUp() {
    const facts = today?.unlogged?.facts ?? [];
    const entries = facts.map(({ on, fact }) => walk.entry(fact, { on, at_h: null }) as Entry);
    if (plan !== undefined) outbox.note(plan, entries);
    caughtUp = true;
  }
</script>

<svelte:head><title>Today · Faint Sunrise</title></svelte:head>

<div class="mx-auto grid w-full max-w-6xl items-start gap-x-8 gap-y-4 p-4 lg:grid-cols-[1fr_22rem]">
  <div class="min-w-0">
    <div class="flex flex-wrap items-baseline justify-between gap-x-4">
      <h1 class="text-2xl">{isToday ? 'Today' : words.date(bench.date)}</h1>
      <p class="text-soft" data-testid="how-much">
        {#if today}
          {today.open === 0 ? 'Nothing presses' : `${today.open} to do`}{today.waiting > 0
            ? `, ${today.waiting} can wait`
            : ''}
        {/if}
      </p>
    </div>
    {#if !isToday && bench.view}
      <p class="text-sm text-soft">
        {bench.date > bench.view.today ? 'This day is still to come; what' : 'What'} you tap is noted
        on {words.date(walk.on)}.
        {#if inSeason}
          <button class="quiet border-frame!" onclick={() => bench.today()}>Go to today</button>
        {/if}
      </p>
    {/if}
    {#if walk.old}
      <p class="mt-2 rounded-xl bg-straw-soft px-3 py-2 text-sm" role="status">
        No connection: this is the walk as it was seen last. What you note waits here and is sent
        once.
      </p>
    {/if}
    {#each outbox.refused as { entry, why } (entry.id)}
      <p
        class="mt-2 flex items-start gap-2 rounded-xl bg-wine-soft px-3 py-2 text-wine"
        role="alert"
      >
        <span class="grow"><b>Not kept:</b> {why}. <EntryLine {entry} plain /></span>
        <button class="quiet" onclick={() => outbox.dismiss(entry.id)}>Dismiss</button>
      </p>
    {/each}
    {#if today?.unlogged && !caughtUp}
      {@const gone = today.unlogged}
      <details class="card mt-3 px-4 py-2">
        <summary class="flex min-h-11 cursor-pointer items-center">
          {gone.jobs === 1 ? 'One older job was' : `${gone.jobs} older jobs were`} never logged ({words.shortDate(
            gone.from,
          )}{gone.to === gone.from ? '' : ` to ${words.shortDate(gone.to)}`})
        </summary>
        <p class="mb-2 text-sm text-soft">
          If all went as planned, note them on their planned days. Counts are left out: nobody can
          know them. What was otherwise can be corrected in the Log.
        </p>
        <button class="quiet mb-2 min-h-11! border-frame! font-semibold" onclick={catchUp}
          >Note {gone.facts.length} as planned</button
        >
      </details>
    {/if}

    {#if today}
      <ol class="mt-3" data-testid="walk">
        {#each today.stops as stop (stop.place ?? words.say(stop.name))}
          <li class="stop" data-stop={stop.place ?? words.say(stop.name)}>
            {#if stop.jobs.length > 0}
              <h2 class="text-lg">{words.say(stop.name)}</h2>
              <div class="mt-1.5 flex flex-col gap-2">
                {#each stop.jobs as job (job.id + job.bay_name)}<JobCard {job} />{/each}
              </div>
            {/if}
            {#if stop.waiting.length > 0}
              <details>
                <summary
                  class="flex min-h-11 cursor-pointer items-baseline justify-between gap-3 text-soft"
                  >{#if stop.jobs.length === 0}<h2 class="text-lg text-ink">
                      {words.say(stop.name)}
                    </h2>{/if}{stop.waiting.length} can wait</summary
                >
                <div class="mt-1 flex flex-col gap-2">
                  {#each stop.waiting as job (job.id + job.bay_name)}<JobCard {job} />{/each}
                </div>
              </details>
            {/if}
          </li>
        {:else}
          <li class="card px-4 py-6 text-center" data-testid="nothing">
            <p class="text-lg">Nothing to do in this room today.</p>
            <p class="mt-1 text-soft">
              {#if (bench.draft?.sowings.length ?? 0) === 0}
                Sow something first: press <kbd>s</kbd>, or choose a crop in Seeds.
              {:else if today.next}
                The next job is due on {words.date(today.next)}.
              {:else}
                The season is over.
              {/if}
            </p>
          </li>
        {/each}
      </ol>
    {:else if walk.problem}
      <p class="mt-4 text-wine" role="alert">{walk.problem}</p>
    {:else}
      <p class="mt-4 text-soft" role="status">Working out the walk…</p>
    {/if}
  </div>

  <aside class="flex min-w-0 flex-col gap-4">
    <section class="card px-4 py-3" aria-label="Note or measure">
      {#if adding}
        <AddEntry onkept={() => (adding = false)} oncancel={() => (adding = false)} />
      {:else}
        <button
          class="quiet min-h-11! w-full justify-center border-frame! font-semibold"
          onclick={() => (adding = true)}>Note, measure or photograph</button
        >
      {/if}
    </section>
    <WaterAhead />
    <section class="card px-4 py-3" aria-label="Noted">
      <h2 class="text-lg">Noted {isToday ? 'today' : `on ${words.shortDate(bench.date)}`}</h2>
      <ul class="mt-1" data-testid="noted">
        {#each noted as { entry, waits } (entry.id)}
          <li class="flex items-center gap-2 border-t py-1">
            <span class="min-w-0 grow"
              ><EntryLine {entry} />{#if waits}<span class="block text-sm text-teal"
                  >waits to be sent</span
                >{/if}</span
            >
            {#if entry.fact}<button class="quiet min-h-11!" onclick={() => walk.takeBack(entry)}
                >Take back</button
              >{/if}
          </li>
        {:else}
          <li class="text-soft">Nothing yet.</li>
        {/each}
      </ul>
    </section>
  </aside>
</div>

<style>
  .stop {
    position: relative;
    padding: 0 0 1rem 1.4rem;
  }
  .stop::before {
    position: absolute;
    top: 1.1rem;
    bottom: -0.2rem;
    left: 0.3rem;
    width: 2px;
    background: var(--line);
    content: '';
  }
  .stop:last-child::before {
    display: none;
  }
  .stop::after {
    position: absolute;
    top: 0.4rem;
    left: 0;
    width: 0.7rem;
    height: 0.7rem;
    border-radius: 50%;
    background: var(--ink);
    content: '';
  }
</style>
