<script lang="ts" module>
  /** A tray, how warm it is and how long it takes to show. */
  export interface Here {
    label: string;
    c: number;
    days: number | null | undefined;
  }
</script>

<script lang="ts">
  // Days to emergence of a crop against temperature, with its root zone here, and the days on which
  // it shows.
  import { scaleLinear, scaleUtc } from 'd3-scale';
  import { line } from 'd3-shape';
  import type { TrayRoots } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';

  const { sown, here }: { sown: TrayRoots['sown'][number]; here: Here[] } = $props();

  const HEIGHT = 96;
  const STRIP = 34;
  const PAD = { left: 30, right: 10, top: 8, bottom: 20 };
  const words = $derived(bench.words);
  let width = $state(0);

  const points = $derived((sown.by_temperature ?? []).filter((at) => at.days != null));
  const fastest = $derived(Math.min(...points.map((at) => at.days!)));
  /** Slower than this is off the top: the curve runs to infinity at its ends. */
  const most = $derived(Math.min(Math.max(...points.map((at) => at.days!)), 5 * fastest));
  const x = $derived(
    scaleLinear(
      [points[0]?.root_zone_c ?? 0, points.at(-1)?.root_zone_c ?? 1],
      [PAD.left, Math.max(width - PAD.right, PAD.left + 1)],
    ),
  );
  const y = $derived(scaleLinear([0, most], [HEIGHT - PAD.bottom, PAD.top]).clamp(true));
  const path = $derived(
    line<(typeof points)[number]>()
      .x((at) => x(at.root_zone_c))
      .y((at) => y(at.days!))(points) ?? '',
  );
  /** The trays on the curve, named where their names do not run into one another. */
  const dots = $derived.by(() => {
    const [low, high] = x.domain() as [number, number];
    const on = here
      .filter((h) => h.days != null && h.c >= low && h.c <= high)
      .map((h) => ({ label: h.label, days: h.days!, x: x(h.c), y: y(h.days!), named: true }))
      .sort((a, b) => a.x - b.x);
    let free = -Infinity;
    for (const dot of on) {
      dot.named = dot.x - dot.label.length * 4 > free;
      if (dot.named) free = dot.x + dot.label.length * 4 + 4;
    }
    return on;
  });

  const time = (day: string) => new Date(`${day}T00:00:00Z`);
  const shows = $derived(sown.shows);
  const along = $derived(
    shows
      ? scaleUtc([time(shows.sow), time(shows.last)], [PAD.left, width - PAD.right - 2])
      : undefined,
  );
  const marks = $derived(
    shows
      ? ([
          ['sown', shows.sow, 'start'],
          ['first', shows.first, 'end'],
          ['half', shows.half, 'middle'],
          ['last', shows.last, 'end'],
        ] as const)
      : [],
  );
</script>

<div bind:clientWidth={width}>
  {#if width > 0 && points.length > 1}
    <svg
      {width}
      height={HEIGHT}
      role="img"
      class="block overflow-visible"
      aria-label="Days to emergence of {sown.name} against temperature: {words.number(
        fastest,
        'days',
      )} at the best{dots
        .map((dot) => `, ${dot.label} ${words.number(dot.days, 'days')}`)
        .join('')}"
    >
      {#each y.ticks(3) as tick (tick)}
        <line x1={PAD.left} x2={width - PAD.right} y1={y(tick)} y2={y(tick)} stroke="var(--line)" />
        <text x={PAD.left - 5} y={y(tick) + 5} text-anchor="end" font-size="14" fill="var(--soft)"
          >{tick}</text
        >
      {/each}
      {#each x.ticks(5) as tick (tick)}
        <text x={x(tick)} y={HEIGHT - 3} text-anchor="middle" font-size="14" fill="var(--soft)"
          >{words.bare(tick, 'temperature_c')}</text
        >
      {/each}
      <line
        x1={x(sown.wants_c)}
        x2={x(sown.wants_c)}
        y1={PAD.top}
        y2={HEIGHT - PAD.bottom}
        stroke="var(--sage)"
        stroke-width="6"
        opacity="0.35"
      />
      <path d={path} fill="none" stroke="var(--teal)" stroke-width="2" />
      {#each dots as dot, i (i)}
        <circle
          cx={dot.x}
          cy={dot.y}
          r="5"
          fill="var(--coral)"
          stroke="var(--raised)"
          stroke-width="1.5"
        />
        {#if dot.named}
          <text
            x={dot.x}
            y={dot.y - 9}
            text-anchor="middle"
            font-size="14"
            font-weight="600"
            fill="var(--ink)">{dot.label}</text
          >
        {/if}
      {/each}
    </svg>
    <p class="text-sm text-soft">
      days until half are up, against {words.unit('temperature_c').unit} in the mix
    </p>
  {/if}
  {#if width > 0 && shows && along}
    <svg
      {width}
      height={STRIP}
      role="img"
      class="mt-1 block overflow-visible"
      data-testid="shows-{sown.sowing}"
      aria-label="Sown {words.shortDate(shows.sow)}, first up {words.shortDate(
        shows.first,
      )}, half {words.shortDate(shows.half)}, last {words.shortDate(shows.last)}"
    >
      <line
        x1={along(time(shows.sow))}
        x2={along(time(shows.last))}
        y1="10"
        y2="10"
        stroke="var(--line)"
        stroke-width="4"
        stroke-linecap="round"
      />
      <line
        x1={along(time(shows.first))}
        x2={along(time(shows.last))}
        y1="10"
        y2="10"
        stroke="var(--sage)"
        stroke-width="6"
        stroke-linecap="round"
      />
      {#each marks as [name, day, anchor] (name)}
        <circle cx={along(time(day))} cy="10" r={name === 'half' ? 5 : 3} fill="var(--sage)" />
        {#if name !== 'half'}
          <text x={along(time(day))} y="29" text-anchor={anchor} font-size="14" fill="var(--soft)"
            >{name === 'sown' ? `sown ${words.shortDate(day)}` : ''}{name === 'last'
              ? `all up ${words.shortDate(day)}`
              : ''}</text
          >
        {/if}
      {/each}
      {#if bench.date >= shows.sow && bench.date <= shows.last}
        <path
          d="M{along(time(bench.date))} 2v16"
          stroke="var(--coral)"
          stroke-width="2.5"
          stroke-linecap="round"
        />
      {/if}
    </svg>
  {/if}
</div>
