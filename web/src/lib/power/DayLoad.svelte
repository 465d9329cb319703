<script lang="ts">
  // The day as 24 hours of load on each circuit, with prices behind and the windows of the lamps below.
  // A window is dragged, or moved with the arrow keys, in steps of its timer.
  import type { Electricity, FeedLoad, Plan } from '../api/client';
  import { tierPath } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import { direction, drag } from '../fields/slider';
  import { outline, sort, windows, type Window } from './loads';

  const { answer, plan }: { answer: Electricity; plan: Plan } = $props();

  const PANEL = 96;
  const BETWEEN = 30;
  const ROW = 26;
  const words = $derived(bench.words);
  const time = (hour: number) => words.number(((hour % 24) + 24) % 24, 'clock_h');
  let width = $state(800);
  const narrow = $derived(width < 500);
  const GUTTER = $derived(narrow ? 112 : 150);
  const x = $derived((hour: number) => GUTTER + (hour / 24) * (width - GUTTER - 8));

  const feeds = $derived(plan.wiring?.feeds ?? []);
  const panels = $derived.by(() => {
    const circuits = answer.load.feeds.filter((load) => {
      const feed = feeds.find((feed) => feed.id === load.feed);
      return feed && sort(feed) === 'circuit';
    });
    const all = { ...answer.load.all, name: 'The whole room' };
    const loose = answer.load.loose ? [{ ...answer.load.loose, name: 'Not plugged in' }] : [];
    return (circuits.length > 0 ? [...circuits, ...loose] : [all]) as (FeedLoad & {
      name: string;
    })[];
  });
  const limitOf = (panel: Partial<FeedLoad>) => panel.limits?.[0]?.lasting_va;
  const breakerOf = (load: Partial<FeedLoad>) => {
    const kind = feeds.find((feed) => feed.id === load.feed)?.kind;
    return kind && 'circuit' in kind ? kind.circuit.breaker_a : undefined;
  };
  const highest = (panel: Partial<FeedLoad>) =>
    Math.max((limitOf(panel) ?? 0) * 1.12, (panel.peak_w ?? 0) * 1.2, 100);
  const top = (i: number) => 26 + i * (PANEL + BETWEEN);
  const rows = $derived(windows(answer, feeds));
  const rowsFrom = $derived(top(panels.length) + 4);
  const height = $derived(rowsFrom + rows.length * ROW + 24);

  /** The hours in which a kWh costs least. */
  const cheap = $derived.by(() => {
    const prices = answer.prices;
    if (prices.length < 2) return [];
    const least = Math.min(...prices.map((price) => price.price));
    return prices.flatMap((price, i) =>
      price.price === least
        ? [{ from: price.from_h, to: prices[i + 1]?.from_h ?? 24, price: price.price }]
        : [],
    );
  });
  const quiet = $derived.by(() => {
    const span = plan.site.quiet;
    if (!span) return [];
    return span.from_h < span.to_h
      ? [{ from: span.from_h, to: span.to_h }]
      : [
          { from: 0, to: span.to_h },
          { from: span.from_h, to: 24 },
        ];
  });

  /** The end of a long name says more: which shelf of the cabinet it is. */
  const longest = $derived(narrow ? 15 : 22);
  const short = $derived((name: string) =>
    name.length > longest ? `…${name.slice(1 - longest)}` : name,
  );

  let held: { key: string; fromH: number } | undefined = $state();
  const startOf = (row: Window) => (held?.key === row.key ? held.fromH : row.fromH);
  /** A window in one piece, or in two over midnight. */
  function pieces(from: number, hours: number) {
    if (hours <= 0) return [];
    const to = from + Math.min(hours, 24);
    return to <= 24
      ? [[from, to]]
      : [
          [from, 24],
          [0, to - 24],
        ];
  }
  const snapped = (row: Window, hour: number) => {
    const step = Math.max(row.stepMin, 5) / 60;
    return (((Math.round(hour / step) * step) % 24) + 24) % 24;
  };

  function move(row: Window, fromH: number) {
    if (fromH === row.fromH) return;
    const patch = row.shelves.map((shelf) => ({
      op: 'add' as const,
      path: `${tierPath(plan, shelf.bay)}/lights_on_h`,
      value: fromH,
    }));
    bench.keep(patch, `${row.name} goes on at ${time(fromH)}`);
  }
  function grab(row: Window, event: PointerEvent) {
    event.preventDefault();
    const from = row.fromH;
    drag(
      event,
      ({ dx }) => {
        held = { key: row.key, fromH: snapped(row, from + (dx / (x(24) - x(0))) * 24) };
      },
      (moved) => {
        if (moved && held) move(row, held.fromH);
        held = undefined;
      },
    );
  }
  function key(row: Window, event: KeyboardEvent) {
    const way = direction(event);
    if (!way?.x) return;
    event.preventDefault();
    move(row, snapped(row, row.fromH + (way.x * Math.max(row.stepMin, 15)) / 60));
  }
</script>

<div bind:clientWidth={width} class="min-w-0" data-testid="day-load">
  <svg
    {width}
    {height}
    role="group"
    aria-label="Load over the day on each circuit, and when the lamps are on"
  >
    {#each cheap as band (band.from)}
      <rect
        x={x(band.from)}
        y="18"
        width={x(band.to) - x(band.from)}
        height={height - 42}
        class="fill-teal-soft opacity-60"
      />
      <text x={x(band.from) + 4} y="14" class="fill-teal text-[12px]"
        >{band.to - band.from > 3 ? `cheap, ${words.number(band.price, 'money')} a kWh` : ''}</text
      >
    {/each}
    {#each quiet as band (band.from)}
      <rect
        x={x(band.from)}
        y={rowsFrom - 6}
        width={x(band.to) - x(band.from)}
        height={rows.length * ROW + 8}
        class="fill-line opacity-60"
      />
      {#if band.to - band.from > 2}
        <text x={x(band.from) + 4} y={height - 26} class="fill-soft text-[12px]">quiet</text>
      {/if}
    {/each}
    {#each panels as panel, i (i)}
      {@const high = highest(panel)}
      {@const y = (watts: number) => top(i) + PANEL - (watts / high) * PANEL}
      {@const limit = limitOf(panel)}
      {@const over = panel.limits?.some((limit) => limit.over)}
      <text x="0" y={top(i) + 36} class="fill-ink text-[15px] font-semibold">{panel.name}</text>
      <text x="0" y={top(i) + 54} class="fill-soft text-[13px]">
        {#if breakerOf(panel)}{words.number(breakerOf(panel)!, 'current_a')},{/if}
        {words.number(plan.site.mains_v, 'voltage_v')}
      </text>
      <text x="0" y={top(i) + 71} class="fill-soft text-[13px]"
        >{words.number(panel.kwh ?? 0, 'energy_kwh')} that day</text
      >
      <path
        d={outline(panel.steps, 'watts', x, y)}
        class={over ? 'fill-wine-soft stroke-wine' : 'fill-straw-soft stroke-straw'}
        stroke-width="2"
      />
      <path
        d={outline(panel.steps, 'mean_w', x, y)}
        class="fill-none stroke-soft"
        stroke-dasharray="2 3"
      />
      {#if limit}
        <line
          x1={x(0)}
          x2={x(24)}
          y1={y(limit)}
          y2={y(limit)}
          class="stroke-wine"
          stroke-dasharray="6 4"
        />
        <text x={x(24)} y={y(limit) - 4} text-anchor="end" class="fill-wine text-[12px]"
          >for hours: {words.number(limit, 'power_w')}</text
        >
      {/if}
      <text
        x={Math.min(x(panel.peak_h ?? 0) + 4, x(18))}
        y={y(panel.peak_w ?? 0) - 5}
        class="fill-ink text-[13px] font-semibold"
        >{words.number(panel.peak_w ?? 0, 'power_w')}</text
      >
    {/each}
    {#each rows as row, i (row.key)}
      {@const y = rowsFrom + i * ROW}
      {@const from = startOf(row)}
      <text x="0" y={y + 14} class="fill-ink text-[13px]">{short(row.name)}</text>
      <line x1={x(0)} x2={x(24)} y1={y + 10} y2={y + 10} class="stroke-line" />
      <g
        role="slider"
        tabindex="0"
        aria-label="{row.name} goes on"
        aria-valuemin="0"
        aria-valuemax="24"
        aria-valuenow={from}
        aria-valuetext="{time(from)} to {time(from + row.hours)}"
        class="cursor-grab touch-none"
        data-testid="window"
        onpointerdown={(event) => grab(row, event)}
        onkeydown={(event) => key(row, event)}
      >
        {#each pieces(from, row.hours) as [a, b] (a)}
          <rect
            x={x(a!)}
            y={y + 3}
            width={Math.max(x(b!) - x(a!), 2)}
            height="15"
            rx="7"
            class={row.burning ? 'fill-straw' : 'fill-straw-soft'}
          />
        {/each}
        <text x={x(from) + 8} y={y + 15} class="fill-[#23283a] text-[12px]"
          >{time(from)} to {time(from + row.hours)}{row.burning || narrow
            ? ''
            : ', off that day'}</text
        >
      </g>
    {/each}
    {#each narrow ? [0, 12, 24] : [0, 6, 12, 18, 24] as hour (hour)}
      <text
        x={x(hour)}
        y={height - 6}
        text-anchor={hour === 0 ? 'start' : hour === 24 ? 'end' : 'middle'}
        class="fill-soft text-[12px]">{words.number(hour, 'clock_h')}</text
      >
    {/each}
  </svg>
</div>
{#each rows.filter((row) => row.better) as row (row.key)}
  <p class="mt-1 flex flex-wrap items-center gap-2">
    <span
      >{row.name}: from {time(row.bestH)} it costs {words.number(row.saves, 'money')} less a day.</span
    >
    <button class="quiet border-line!" onclick={() => move(row, row.bestH)}
      >Begin at {time(row.bestH)}</button
    >
  </p>
{/each}
{#each answer.apart as apart (apart.feed)}
  <p class="mt-1 flex flex-wrap items-center gap-2" data-testid="apart">
    <span>{words.say(apart.verdict)}.</span>
    <button class="quiet border-line!" onclick={() => void bench.apply(apart.fix)}
      >{words.say(apart.fix.label)}</button
    >
  </p>
{/each}
<p class="mt-1 text-sm text-soft">
  Filled: all that may be on at once. Dotted: what thermostats really draw on average.
</p>
