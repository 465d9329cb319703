<script lang="ts">
  // A job: what, why, and one tap when it is done.
  import type { Fact, Job, JobFact } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import CountField from '../fields/CountField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { outbox, type Waiting } from '../log/outbox.svelte';
  import { mixes } from '../room/whole/mixes';
  import { plusDays } from '../say/dates';
  import { walk } from './walk.svelte';

  const { job }: { job: Job } = $props();
  const words = $derived(bench.words);

  /** Trays that were left out by a tap. */
  let left: string[] = $state([]);
  /** What was typed instead of what is expected, by row. */
  let typed: Record<number, number> = $state({});
  let amounts = $state(false);
  let later = $state(false);
  let why = $state('');

  const answers = (own: Waiting) => own.job === job.id && own.plan === bench.view?.id;
  const unsent = $derived(outbox.waiting.filter(answers));
  /** What was noted of it since the walk was asked for. */
  const noted = $derived([...unsent, ...outbox.taken.filter(answers)]);
  /** Put off, skipped or done as a whole: nothing of it is left. */
  const settled = $derived(
    noted.some(({ entry: { fact } }) => fact && ('put_off' in fact || 'skipped' in fact)),
  );
  const same = (a: Fact, b: Fact | null | undefined) => trayIn(a) === (b ? trayIn(b) : undefined);
  const rows = $derived(
    job.notes
      .map((note, i) => ({ note, i }))
      // What was noted is done already, whether the server knows or not.
      .filter(({ note }) => !settled && !noted.some(({ entry }) => same(note.fact, entry.fact))),
  );
  const trays = $derived(rows.filter(({ note }) => note.tray));
  const chosen = $derived(rows.filter(({ note }) => !note.tray || !left.includes(note.tray)));
  const counted = $derived(job.asks === 'count' || job.asks === 'plants');
  const late = $derived(
    typeof job.pressing === 'object' && 'overdue' in job.pressing ? job.pressing.overdue : 0,
  );
  const early = $derived(
    typeof job.pressing === 'object' && 'early' in job.pressing ? job.pressing.early : 0,
  );
  const reason = $derived(words.say(job.reason));
  const days = (n: number) => (n === 1 ? '1 day' : `${n} days`);
  const button = $derived(
    job.asks === 'count' ? 'Log the count' : job.asks === 'plants' ? 'Log' : 'Done',
  );

  function trayIn(fact: Fact): string | undefined {
    const own = Object.values(fact)[0] as { tray?: string; sowing?: string };
    return own.tray && `${own.tray}/${own.sowing ?? ''}`;
  }

  /** The fact with the number that was typed. */
  function filled({ fact }: JobFact, i: number): Fact {
    const value = typed[i];
    if (value === undefined) return fact;
    const [kind, own] = Object.entries(fact)[0] as [string, Record<string, unknown>];
    const field = ['count', 'left', 'plants', 'water_ml'].find((name) => name in own);
    return { [kind]: { ...own, [field!]: value } } as unknown as Fact;
  }

  function expected({ fact }: JobFact): number {
    const own = Object.values(fact)[0] as Record<string, number>;
    return own.count ?? own.left ?? own.plants ?? own.water_ml ?? 0;
  }

  function done() {
    walk.done(
      job,
      chosen.map(({ note, i }) => filled(note, i)),
    );
    typed = {};
    left = [];
  }

  function putOff(by: number) {
    walk.done(job, [{ put_off: { job: job.id, until: plusDays(walk.on, by) } }]);
    later = false;
  }

  function skip() {
    const text = why.trim();
    if (!text) return;
    walk.done(job, [{ skipped: { job: job.id } }], { text });
    later = false;
  }

  const toggle = (tray: string) =>
    (left = left.includes(tray) ? left.filter((own) => own !== tray) : [...left, tray]);
</script>

{#if rows.length === 0}
  <article class="card flex items-center gap-3 bg-sage-soft! px-4 py-3" data-job={job.id}>
    <span class="min-w-0 grow">
      <b class="block text-soft">{words.say(job.headline)}</b>
      <span class="text-sm text-soft"
        >Noted{unsent.length > 0 ? '; it waits here until the server is back' : ''}.</span
      >
    </span>
    <svg width="36" height="36" viewBox="0 0 36 36" aria-hidden="true">
      <circle cx="18" cy="18" r="17" fill="var(--sage)" />
      <path d="M10 18.5l6 6 11-13" fill="none" stroke="var(--raised)" stroke-width="3.5" />
    </svg>
  </article>
{:else}
  <article
    class="card px-4 py-3 {late > 0 ? 'border-wine!' : ''}"
    data-job={job.id}
    data-what={job.what}
  >
    <div class="flex items-start gap-3">
      <div class="min-w-0 grow">
        <h3 class="text-base leading-snug">{words.say(job.headline)}</h3>
        <p class="text-sm text-soft">
          {#if late > 0}<b class="text-wine">{days(late)} late.</b>{/if}
          {#if early > 0}<b class="text-teal">Due in {days(early)}.</b>{/if}
          {#if job.bay_name && !counted && trays.length < 2}{job.bay_name}.{/if}
          {reason.endsWith('.') ? reason : `${reason}.`}
        </p>
      </div>
      {#if !counted}
        <button
          class="done"
          aria-label="{button}: {words.say(job.headline)}"
          title={button}
          disabled={chosen.length === 0}
          onclick={done}
        >
          <svg width="28" height="28" viewBox="0 0 28 28" aria-hidden="true">
            <path d="M6 14.5l5.5 5.5L22 8.5" fill="none" stroke="currentColor" stroke-width="3" />
          </svg>
        </button>
      {/if}
    </div>

    {#if job.recipe}
      {@const recipe = job.recipe}
      <dl class="mt-2 grid grid-cols-[auto_1fr] gap-x-3 text-sm" data-testid="recipe">
        <dt>In</dt>
        <dd>
          {recipe.trays} × {recipe.container}, {words.number(recipe.mix_l * 1000, 'volume_ml')} of {mixes[
            recipe.mix
          ]}
        </dd>
        {#if recipe.seeds_per_cell}
          <dt>Seed</dt>
          <dd>
            {recipe.seeds_per_cell} in each cell, {recipe.seeds} in all; {words.number(
              recipe.depth_mm,
              'length_mm',
            )} deep, {words.say(recipe.cover)}
          </dd>
        {/if}
        <dt>Warmth</dt>
        <dd>
          {words.number(recipe.root_zone_c, 'temperature_c')} in the mix{recipe.on_mat
            ? ', on the mat'
            : ''}
        </dd>
        <dt>Labels</dt>
        <dd>{recipe.labels.join(' · ')}</dd>
      </dl>
    {/if}

    {#if counted}
      <ul class="mt-2 flex flex-col gap-2">
        {#each rows as { note, i } (i)}
          <li class="flex flex-wrap items-center justify-between gap-x-3">
            <span class="min-w-0">
              <b>{note.label}</b>
              {#if note.to}<span class="text-sm text-soft">
                  {job.asks === 'plants' ? 'into' : ''} {words.say(note.to)}</span
                >{/if}
            </span>
            <span class="flex items-center gap-2">
              <CountField
                label={job.asks === 'count' ? 'Up' : 'Plants'}
                of="in {note.label}"
                hidden
                value={typed[i] ?? expected(note)}
                most={note.most ?? 1000}
                onset={(value) => (typed[i] = value)}
              />
              {#if job.asks === 'count'}<span class="text-sm text-soft">of {note.most}</span>{/if}
            </span>
          </li>
        {/each}
      </ul>
      <button class="log" onclick={done}>{button}</button>
    {:else if trays.length > 1}
      <ul class="mt-2 flex flex-wrap gap-1.5" aria-label="Trays">
        {#each trays as { note, i } (i)}
          {@const out = left.includes(note.tray!)}
          <li>
            <button
              class="chip"
              class:out
              aria-pressed={!out}
              title={out ? 'Left out: tap to take it in' : 'Tap to leave it out'}
              onclick={() => toggle(note.tray!)}
              ><b>{note.label}</b>
              {#if job.asks === 'water'}
                <span>{words.number(typed[i] ?? expected(note), 'volume_ml')}</span>
              {:else if note.to}<span>{words.say(note.to)}</span>{/if}</button
            >
          </li>
        {/each}
      </ul>
    {:else if trays[0]?.note.to}
      <p class="mt-1 text-sm"><b>{trays[0].note.label}</b>: {words.say(trays[0].note.to)}</p>
    {/if}

    {#if amounts && job.asks === 'water'}
      <div class="mt-2 grid grid-cols-2 gap-2">
        {#each chosen as { note, i } (i)}
          <NumberField
            label={note.label}
            value={typed[i] ?? expected(note)}
            quantity="volume_ml"
            min={0}
            max={50_000}
            onset={(value) => (typed[i] = value)}
          />
        {/each}
      </div>
    {/if}
    <div class="-mx-2 mt-1 flex flex-wrap text-sm">
      {#if job.asks === 'water'}
        <button class="quiet" aria-expanded={amounts} onclick={() => (amounts = !amounts)}
          >Other amounts</button
        >
      {/if}
      <button class="quiet" aria-expanded={later} onclick={() => (later = !later)}>Not today</button
      >
    </div>
    {#if later}
      <div class="flex flex-col gap-2" data-testid="later">
        <div class="flex flex-wrap gap-2">
          {#each [1, 3, 7] as by (by)}
            <button class="quiet min-h-11! border-frame!" onclick={() => putOff(by)}
              >{by === 1 ? 'Tomorrow' : by === 7 ? 'In a week' : `In ${by} days`}</button
            >
          {/each}
        </div>
        <div class="flex items-end gap-2">
          <label class="block min-w-0 grow text-sm text-soft"
            >Leave undone, because
            <input
              type="text"
              maxlength="200"
              class="mt-0.5 w-full rounded-lg border-line bg-raised px-2 py-2 text-base text-ink"
              bind:value={why}
            /></label
          >
          <button class="quiet min-h-11! border-frame!" disabled={!why.trim()} onclick={skip}
            >Skip</button
          >
        </div>
      </div>
    {/if}
  </article>
{/if}

<style>
  .done {
    display: grid;
    flex-shrink: 0;
    place-items: center;
    width: 3rem;
    height: 3rem;
    border: 2.5px solid var(--sage);
    border-radius: 50%;
    color: var(--sage);
  }
  .done:hover:not(:disabled),
  .done:active {
    color: var(--raised);
    background: var(--sage);
  }
  .done:disabled {
    border-color: var(--line);
    color: var(--line);
  }
  .log {
    width: 100%;
    min-height: 2.9rem;
    margin-top: 0.6rem;
    border-radius: 0.7rem;
    font-weight: 650;
    color: var(--on-coral);
    background: var(--coral);
  }
  .chip {
    display: inline-flex;
    gap: 0.35rem;
    align-items: center;
    min-height: 2.4rem;
    padding: 0.3rem 0.7rem;
    border: 1px solid var(--sage);
    border-radius: 0.6rem;
    background: var(--sage-soft);
    font-size: 0.9rem;
  }
  .chip.out {
    border-color: var(--frame);
    background: transparent;
    text-decoration: line-through;
    color: var(--soft);
  }
  dt {
    color: var(--soft);
  }
</style>
