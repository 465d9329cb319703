<script lang="ts">
  import { drag, steps } from '../fields/slider';
  import { area, line } from 'd3-shape';
  import { innerWidth } from 'svelte/reactivity/window';
  import type { SeasonDay } from '../api/client';
  import { setLastFrost } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import { plusDays } from '../say/dates';
  import { lanes, tooMany } from '../sowing/lanes';
  import { GUTTER_PX, TimeAxis } from './scale';

  /** On a phone the band leaves the screen to the view. */
  const HEIGHT = $derived((innerWidth.current ?? 1280) < 640 ? 28 : 64);
  const AXIS_PX = 24;

  let width = $state(0);
  const words = $derived(bench.words);
  const season = $derived(bench.assessment?.season);
  const site = $derived(bench.draft?.site);
  const span = $derived(bench.draft?.season);
  const axis = $derived(span && width > 0 ? new TimeAxis(span.from, span.to, width) : undefined);
  const today = $derived(season?.days.find((d) => d.date === bench.date));
  const held = $derived(season?.capacity.standard ?? 0);
  const most = $derived(Math.max(held, ...(season?.days.map((d) => d.trays) ?? []), 1));

  const sky = $derived.by(() => {
    if (!axis || !season) return '';
    const shape = area<SeasonDay>()
      .x((d) => axis.x(d.date))
      .y0(0)
      .y1((d) => (1 - d.day_length_h / 24) * HEIGHT);
    return shape(season.days) ?? '';
  });
  // The lower half of the band holds the trays; the dashed line is what the room holds.
  const trayY = $derived((trays: number) => HEIGHT - (trays / most) * (HEIGHT * 0.55));
  const full = $derived.by(() => {
    if (!axis || !season) return { fill: '', edge: '' };
    const x = (d: SeasonDay) => axis.x(d.date);
    const y = (d: SeasonDay) => trayY(d.trays);
    return {
      fill: area<SeasonDay>().x(x).y0(HEIGHT).y1(y)(season.days) ?? '',
      edge: line<SeasonDay>().x(x).y(y)(season.days) ?? '',
    };
  });
  const frostStops = $derived(
    season
      ? season.days
          .filter((_, i) => i % 7 === 0)
          .map((d, i, all) => ({ at: i / (all.length - 1), risk: d.frost_risk }))
      : [],
  );

  /** Days on which more trays want a spot of a sort than there are. */
  const short = $derived.by(() => {
    if (!season) return [];
    const days = season.days.map(({ date, unplaced }) => ({ date, trays: unplaced }));
    const nowhere = { kind: 'nowhere', name: 'Trays that stand nowhere', spots: 0, days };
    return [...lanes(season), nowhere].flatMap((lane) =>
      tooMany(lane).map((span) => ({ lane, span })),
    );
  });

  let band: SVGSVGElement | undefined = $state();

  function dateAt(event: PointerEvent): string {
    return axis!.date(event.clientX - band!.getBoundingClientRect().left);
  }

  function grab(what: 'date' | 'frost', event: PointerEvent) {
    if (!axis) return;
    event.stopPropagation();
    const move = (e: PointerEvent) => {
      const date = dateAt(e);
      if (what === 'date') {
        if (date !== bench.date) bench.go(date);
      } else if (date !== site?.last_frost) {
        bench.try(setLastFrost(site!, date), frostWord(date));
      }
    };
    move(event);
    const end = () => {
      if (what === 'frost') void bench.settle();
    };
    drag(event, ({ event: e }) => move(e), end);
  }

  const frostWord = (date: string) => `set the last frost to ${words.date(date)}`;

  function dateKey(event: KeyboardEvent) {
    const days = steps(event, 7);
    if (days) bench.step(days);
  }

  function frostKey(event: KeyboardEvent) {
    const days = site && steps(event, 7);
    if (!days) return;
    const date = plusDays(site.last_frost, days);
    bench.nudge(setLastFrost(site!, date), frostWord(date));
  }
</script>

<section
  class="flex border-b px-4 py-2 max-sm:flex-col max-sm:px-2 max-sm:py-0"
  aria-label="Season"
>
  <div
    class="shrink-0 max-sm:flex max-sm:items-baseline max-sm:gap-3 sm:w-(--gutter)"
    style:--gutter="{GUTTER_PX}px"
  >
    <p class="font-display text-lg leading-tight font-semibold" data-testid="date">
      {bench.date ? words.date(bench.date) : ''}
    </p>
    {#if today}
      <p class="text-sm text-soft">
        <span data-testid="trays"
          >{today.trays <= held
            ? `${today.trays} trays, room for ${held}`
            : `${today.trays} trays; room for ${held} standard ones`}{today.unplaced > 0
            ? `, ${today.unplaced} nowhere`
            : ''}</span
        ><span class="sm:hidden">,</span>
        <br class="max-sm:hidden" />day {words.number(today.day_length_h, 'hours')}
      </p>
    {/if}
  </div>
  <div class="relative min-w-0 grow" bind:clientWidth={width}>
    <svg
      bind:this={band}
      {width}
      height={HEIGHT + AXIS_PX}
      role="group"
      aria-label="The season from night to dawn"
      class="block touch-none select-none"
      onpointerdown={(event) => grab('date', event)}
    >
      <defs>
        <linearGradient id="frost-fade">
          {#each frostStops as stop (stop.at)}
            <stop offset={stop.at} stop-color="white" stop-opacity={stop.risk} />
          {/each}
        </linearGradient>
        <mask id="frost-mask"><rect {width} height={HEIGHT} fill="url(#frost-fade)" /></mask>
        <pattern
          id="frost-hatch"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="1.6" height="7" fill="var(--frost)" />
        </pattern>
        <linearGradient id="sky-dawn" x2="0" y2="1">
          <stop offset="0" stop-color="var(--night-sky)" />
          <stop offset="1" stop-color="var(--dawn-sky)" />
        </linearGradient>
        <clipPath id="band"><rect {width} height={HEIGHT} rx="8" /></clipPath>
      </defs>
      <g clip-path="url(#band)">
        <rect {width} height={HEIGHT} fill="var(--raised)" />
        <path d={sky} fill="url(#sky-dawn)" />
        <rect
          {width}
          height={HEIGHT}
          fill="url(#frost-hatch)"
          mask="url(#frost-mask)"
          opacity="0.55"
        />
        <path d={full.fill} fill="var(--sage-soft)" opacity="0.85" />
        <path d={full.edge} fill="none" stroke="var(--sage)" stroke-width="2" />
        <line
          x2={width}
          y1={trayY(held)}
          y2={trayY(held)}
          stroke="var(--wine)"
          stroke-width="1.5"
          stroke-dasharray="5 4"
        />
      </g>
      <rect
        x="0.5"
        y="0.5"
        width={Math.max(width - 1, 0)}
        height={HEIGHT - 1}
        rx="8"
        fill="none"
        stroke="var(--line)"
      />
      {#if axis}
        {#each short as { lane, span } (`${lane.kind} ${span.from}`)}
          <rect
            x={axis.x(span.from)}
            y={HEIGHT - 5}
            width={Math.max(axis.x(plusDays(span.to, 1)) - axis.x(span.from), 3)}
            height="5"
            fill="var(--wine)"
            data-testid="short"
            ><title
              >{lane.kind === 'nowhere'
                ? `${lane.name}: ${span.short}`
                : `${lane.name}: ${span.short} too few`}, {words.shortDate(span.from)} to {words.shortDate(
                span.to,
              )}</title
            ></rect
          >
        {/each}
      {/if}
      {#if axis && site}
        <g font-size="14" fill="var(--ink)" class="halo pointer-events-none">
          {#if axis.x(site.last_frost) > 140}
            <text x="10" y={HEIGHT - 10}>frost likely</text>
          {/if}
          {#if width > 480}
            <text x={width - 8} y={trayY(held) + 15} text-anchor="end"
              >holds {held} standard trays</text
            >
          {/if}
        </g>
        {#each axis.months() as month (month)}
          <line
            x1={axis.x(month)}
            x2={axis.x(month)}
            y1={HEIGHT}
            y2={HEIGHT + 6}
            stroke="var(--frame)"
          />
          <text x={axis.x(month) + 5} y={HEIGHT + 18} font-size="14" fill="var(--soft)">
            {new Date(`${month}T00:00Z`).toLocaleString('en', { month: 'short', timeZone: 'UTC' })}
          </text>
        {/each}
        {@const frostX = axis.x(site.last_frost)}
        <g
          role="slider"
          tabindex="0"
          aria-label="Last frost"
          aria-valuenow={new Date(site.last_frost).getTime() / 86_400_000}
          aria-valuetext={words.date(site.last_frost)}
          class="cursor-ew-resize"
          onpointerdown={(event) => grab('frost', event)}
          onkeydown={frostKey}
        >
          <rect x={frostX - 12} y="0" width="24" height={HEIGHT + 20} fill="transparent" />
          <line
            x1={frostX}
            x2={frostX}
            y1="2"
            y2={HEIGHT + 4}
            stroke="var(--teal)"
            stroke-width="2"
            stroke-dasharray="2 3"
          />
          <!-- Ice on a stem: six strokes. -->
          {#each [0, 60, 120] as turn (turn)}
            <line
              x1={frostX - 6}
              x2={frostX + 6}
              y1="12"
              y2="12"
              stroke="var(--teal)"
              stroke-width="2"
              transform="rotate({turn} {frostX} 12)"
            />
          {/each}
          <text
            x={frostX > width - 140 ? frostX - 10 : frostX + 10}
            y="17"
            text-anchor={frostX > width - 140 ? 'end' : 'start'}
            font-size="14"
            fill="var(--ink)"
            class="halo">last frost {words.shortDate(site.last_frost)}</text
          >
        </g>
        {@const dateX = axis.x(bench.date)}
        <g
          role="slider"
          tabindex="0"
          aria-label="Date"
          aria-valuenow={new Date(bench.date).getTime() / 86_400_000}
          aria-valuetext={words.date(bench.date)}
          class="cursor-ew-resize"
          onpointerdown={(event) => grab('date', event)}
          onkeydown={dateKey}
        >
          <rect x={dateX - 16} y="0" width="32" height={HEIGHT + 8} fill="transparent" />
          <line
            x1={dateX}
            x2={dateX}
            y1="0"
            y2={HEIGHT + 6}
            stroke="var(--coral)"
            stroke-width="2.5"
          />
          <path
            d="M{dateX - 11} {HEIGHT - 12}a11 11 0 0 1 22 0z"
            fill="var(--coral)"
            stroke="var(--raised)"
            stroke-width="1.5"
          />
          <line
            x1={dateX - 16}
            x2={dateX + 16}
            y1={HEIGHT - 11}
            y2={HEIGHT - 11}
            stroke="var(--coral)"
            stroke-width="2.5"
            stroke-linecap="round"
          />
        </g>
      {/if}
    </svg>
  </div>
</section>

<style>
  .halo {
    paint-order: stroke;
    stroke: var(--raised);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
</style>
