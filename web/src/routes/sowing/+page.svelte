<script lang="ts">
  // One strand per sowing along the season, on the ribbon's own scale.
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { onMount, tick } from 'svelte';
  import type { SowingDates } from '$lib/api/client';
  import { replace, setOptional } from '$lib/bench/edits';
  import { GUTTER_PX, TimeAxis } from '$lib/ribbon/scale';
  import { shell } from '$lib/shell/shell.svelte';
  import Lanes from '$lib/sowing/Lanes.svelte';
  import ShareFlat from '$lib/sowing/ShareFlat.svelte';
  import SowingSheet from '$lib/sowing/SowingSheet.svelte';
  import Strand from '$lib/sowing/Strand.svelte';
  import { plusDays } from '$lib/say/dates';
  import { bench } from '$lib/bench/workbench.svelte';

  type Grouping = 'none' | 'week' | 'crop' | 'place';
  const groupings: Record<Grouping, string> = {
    none: 'by day to sow',
    week: 'by week to sow',
    crop: 'by crop',
    place: 'by place',
  };
  const NEAR_DAYS = 42;
  /** A hand that rests so long has let go. */
  const REST_MS = 2000;

  onMount(() => bench.showSowings());
  const words = $derived(bench.words);
  const plan = $derived(bench.draft);
  const site = $derived(plan?.site);
  let width = $state(0);
  let grouping: Grouping = $state('none');
  let filter = $state('');
  let onlyFindings = $state(false);
  let near = $state(false);
  const opened = $derived(page.url.searchParams.get('sowing') ?? '');
  /** The address tells which row is open. */
  function open(id: string) {
    const url = new URL(page.url);
    if (id && id !== opened) url.searchParams.set('sowing', id);
    else url.searchParams.delete('sowing');
    void goto(url, { keepFocus: true, noScroll: true });
  }
  // What was just sown comes into sight.
  $effect(() => {
    if (!opened || !axis) return;
    void tick().then(() =>
      document
        .querySelector(`[data-testid="strand-${CSS.escape(opened)}"]`)
        ?.scrollIntoView({ block: 'nearest' }),
    );
  });
  let sharing = $state(false);

  const span = $derived.by(() => {
    if (!plan) return undefined;
    if (!near) return plan.season;
    const from = plusDays(bench.date, -NEAR_DAYS / 3);
    return { from, to: plusDays(from, NEAR_DAYS) };
  });
  const axis = $derived(span && width > 0 ? new TimeAxis(span.from, span.to, width) : undefined);
  const findingsOf = $derived.by(() => {
    const counts: Record<string, number> = {};
    for (const finding of bench.findings())
      if (finding.sowing) counts[finding.sowing] = (counts[finding.sowing] ?? 0) + 1;
    return counts;
  });
  const nowhereOf = (id: string) =>
    bench.findings().find((f) => f.code === 'stands_nowhere' && f.sowing === id)?.days;
  const monday = (iso: string) => {
    const day = new Date(`${iso}T00:00:00Z`).getUTCDay();
    return plusDays(iso, -((day + 6) % 7));
  };
  const placeOf = (id: string) => {
    const tray = plan?.trays.find((t) => t.parts.some((part) => part.sowing === id));
    const stand = tray?.stands.find((s) => s.stage === 'grow') ?? tray?.stands[0];
    return bench.places.find((p) => p.id === stand?.bay.place)?.name ?? 'no place yet';
  };
  const groupOf = (dates: SowingDates): string => {
    if (grouping === 'week') return `week of ${words.shortDate(monday(dates.sow))}`;
    if (grouping === 'crop') return dates.crop;
    if (grouping === 'place') return placeOf(dates.sowing);
    return '';
  };
  /** The order while one is being moved: a strand that jumps would slip from under the hand. */
  let held: string[] | undefined = $state.raw();
  let rest: ReturnType<typeof setTimeout> | undefined;
  let moved = '';
  const shown = $derived(
    [...(bench.assessment?.sowings ?? [])]
      .filter((dates) => dates.name.toLowerCase().includes(filter.trim().toLowerCase()))
      .filter((dates) => !onlyFindings || findingsOf[dates.sowing])
      .sort((a, b) =>
        held
          ? held.indexOf(a.sowing) - held.indexOf(b.sowing)
          : a.sow.localeCompare(b.sow) || a.name.localeCompare(b.name),
      ),
  );
  // Put elsewhere, an element loses the focus.
  $effect(() => {
    if (shown.length === 0) return;
    void tick().then(() => {
      if (moved && document.activeElement === document.body)
        document.querySelector<SVGElement>(`[data-testid="strand-${moved}"]`)?.focus();
    });
  });
  const groups = $derived.by(() => {
    const found: { name: string; sowings: SowingDates[] }[] = [];
    for (const dates of shown) {
      const name = groupOf(dates);
      let group = found.find((g) => g.name === name);
      if (!group) found.push((group = { name, sowings: [] }));
      group.sowings.push(dates);
    }
    return found;
  });
  const indexOf = (id: string) => plan?.sowings.findIndex((s) => s.id === id) ?? -1;
  const frost = $derived(
    (bench.assessment?.season.days ?? []).filter(
      (day) => span && day.date >= span.from && day.date <= span.to,
    ),
  );
  const gridDays = $derived.by(() => {
    if (!span) return [];
    const days = [];
    for (
      let day = near ? span.from : monday(plusDays(span.from, 6));
      day <= span.to;
      day = plusDays(day, near ? 1 : 7)
    )
      days.push(day);
    return days;
  });

  function shift(dates: SowingDates, days: number, done: boolean) {
    const index = indexOf(dates.sowing);
    const sowing = plan?.sowings[index];
    if (!sowing) return;
    moved = dates.sowing;
    held ??= shown.map((d) => d.sowing);
    clearTimeout(rest);
    rest = setTimeout(() => (held = undefined), done ? 0 : REST_MS);
    const to = (sowing.shift_days ?? 0) + days;
    const patch = setOptional(
      `/sowings/${index}/shift_days`,
      to === 0 ? undefined : to,
      sowing.shift_days !== undefined,
    );
    // Days that were fixed move along, as one hand moves them all.
    for (const field of ['sow_on', 'out_on', 'covered_until'] as const) {
      const day = sowing[field];
      if (day) patch.push(replace(`/sowings/${index}/${field}`, plusDays(day, days)));
    }
    if (done) void bench.settle();
    else bench.nudge(patch, `moved ${dates.name}`);
  }
</script>

<svelte:head><title>Sowing · Faint Sunrise</title></svelte:head>

<h1 class="sr-only">Sowing</h1>
<div class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-4 py-2">
  <label class="flex items-center gap-2 text-sm text-soft"
    >Show
    <input
      type="search"
      placeholder="crop or variety"
      class="w-40 rounded-lg border-line bg-raised px-2 py-1 text-base text-ink"
      bind:value={filter}
    /></label
  >
  <label class="flex items-center gap-2 text-sm text-soft"
    >Order
    <select
      class="rounded-lg border-line bg-raised py-1 pr-8 pl-2 text-base text-ink"
      bind:value={grouping}
    >
      {#each Object.entries(groupings) as [value, name] (value)}
        <option {value}>{name}</option>
      {/each}
    </select></label
  >
  <label class="flex items-center gap-2 text-base"
    ><input
      type="checkbox"
      class="rounded border-frame bg-raised text-coral"
      bind:checked={onlyFindings}
    /> only sowings with advice</label
  >
  <button
    class="quiet border-frame! bg-coral! font-semibold text-on-coral!"
    onclick={() => (shell.sowing = {})}>Sow something</button
  >
  <button class="quiet border-line!" aria-pressed={near} onclick={() => (near = !near)}
    >{near ? 'The whole season' : 'Six weeks, day by day'}</button
  >
  <button class="quiet border-line!" aria-expanded={sharing} onclick={() => (sharing = !sharing)}
    >Share a flat…</button
  >
  <ul class="ml-auto flex flex-wrap gap-x-3 text-sm text-soft" aria-label="Stages">
    <li>
      <span class="key bg-[radial-gradient(var(--soil)_30%,transparent_32%)] bg-[length:5px_5px]"
      ></span>germinates
    </li>
    <li><span class="key bg-sage opacity-45"></span>grows</li>
    <li><span class="key bg-sage opacity-75"></span>potted</li>
    <li><span class="key bg-straw"></span>hardens off</li>
    <li><span class="key rounded-t-full bg-coral"></span>out</li>
    <li><span class="key border-2! border-dashed! border-wine!"></span>stands nowhere</li>
  </ul>
</div>

{#if near && axis && span}
  <!-- Six weeks are not the season's band above: they have days of their own. -->
  <div class="flex border-b px-4" aria-hidden="true" data-testid="near-axis">
    <div class="shrink-0 max-sm:hidden" style:width="{GUTTER_PX}px"></div>
    <svg width={axis.width} height="22" class="block">
      {#each gridDays as day (day)}
        {#if monday(day) === day}
          <text x={axis.x(day) + 3} y="16" font-size="14" fill="var(--soft)"
            >{words.shortDate(day)}</text
          >
        {/if}
      {/each}
    </svg>
  </div>
{/if}
{#if sharing}<ShareFlat ondone={() => (sharing = false)} />{/if}
<div class="relative px-4 py-2">
  <div class="pointer-events-none absolute inset-y-0 right-4 left-4 flex">
    <div class="shrink-0 max-sm:hidden" style:width="{GUTTER_PX}px"></div>
    <div class="min-w-0 grow" bind:clientWidth={width}></div>
  </div>
  {#if axis && span}
    <div
      class="pointer-events-none absolute inset-y-0 max-sm:left-4!"
      style:left="{16 + GUTTER_PX}px"
      style:width="{axis.width}px"
    >
      <svg width="100%" height="100%" aria-hidden="true">
        <defs>
          <linearGradient id="strand-frost">
            {#each frost.filter((_, i) => i % 5 === 0) as day (day.date)}
              <stop
                offset={axis.x(day.date) / Math.max(axis.width, 1)}
                stop-color="var(--frost)"
                stop-opacity={0.3 * day.frost_risk}
              />
            {/each}
          </linearGradient>
        </defs>
        <rect width="100%" height="100%" fill="url(#strand-frost)" />
        {#each gridDays as day (day)}
          <line
            x1={axis.x(day)}
            x2={axis.x(day)}
            y1="0"
            y2="100%"
            stroke="var(--line)"
            stroke-width={near && monday(day) === day ? 2 : 0.7}
          />
        {/each}
        {#if site && site.last_frost >= span.from && site.last_frost <= span.to}
          <line
            x1={axis.x(site.last_frost)}
            x2={axis.x(site.last_frost)}
            y1="0"
            y2="100%"
            stroke="var(--teal)"
            stroke-width="1.5"
            stroke-dasharray="2 3"
          />
        {/if}
        <line
          x1={axis.x(bench.date)}
          x2={axis.x(bench.date)}
          y1="0"
          y2="100%"
          stroke="var(--coral)"
          stroke-width="2"
        />
      </svg>
    </div>
    <Lanes {axis} />
    {#each groups as group (group.name)}
      {#if group.name}
        <h2 class="relative mt-2 text-base text-soft">{group.name}</h2>
      {/if}
      {#each group.sowings as dates (dates.sowing)}
        {@const index = indexOf(dates.sowing)}
        {@const sowing = plan?.sowings[index]}
        <div class="relative border-t">
          <div class="flex items-center max-sm:flex-col max-sm:items-stretch">
            <button
              class="shrink-0 truncate py-1 pr-2 text-left hover:underline max-sm:w-full!"
              style:width="{GUTTER_PX}px"
              aria-expanded={opened === dates.sowing}
              title={dates.name}
              onclick={() => open(dates.sowing)}
            >
              {#if findingsOf[dates.sowing]}<span
                  class="mr-1 rounded-full bg-straw-soft px-1.5 text-sm font-semibold"
                  title="{findingsOf[dates.sowing]} to look at">{findingsOf[dates.sowing]}</span
                >{/if}<b>{dates.crop}</b>
              <span class="text-sm text-soft">{dates.variety}</span>
            </button>
            <Strand
              nowhere={nowhereOf(dates.sowing)}
              {dates}
              {axis}
              fixed={sowing?.stays != null || sowing?.sown === true || dates.sown_logged}
              onshift={(days, done) => shift(dates, days, done)}
              onopen={() => open(dates.sowing)}
            />
          </div>
          {#if opened === dates.sowing && sowing}
            <div class="card relative mb-2">
              <SowingSheet
                {dates}
                {sowing}
                {index}
                cells={bench.assessment?.to_sow?.find((c) => c.sowing === dates.sowing)}
              />
            </div>
          {/if}
        </div>
      {/each}
    {:else}
      <p class="relative py-6 text-center text-soft">
        {filter || onlyFindings
          ? 'No sowing matches.'
          : 'No sowings yet: press “Sow something” above.'}
      </p>
    {/each}
  {/if}
</div>

<style>
  .key {
    display: inline-block;
    width: 18px;
    height: 12px;
    margin-right: 4px;
    border: 1px solid var(--frame);
    vertical-align: -1px;
  }
</style>
