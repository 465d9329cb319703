<script lang="ts">
  // One sowing along the season: chill, germinate, grow, potted, harden, out. Drag it, or nudge it
  // with the arrow keys.
  import { direction, drag } from '../fields/slider';
  import type { DateSpan, SowingDates } from '../api/client';
  import { daysBetween } from '../say/dates';
  import { bench } from '../bench/workbench.svelte';
  import type { TimeAxis } from '../ribbon/scale';

  interface Props {
    dates: SowingDates;
    axis: TimeAxis;
    /** Whether it may be moved: stock that not sown here has its own days. */
    fixed: boolean;
    /** The days on which trays of it stand nowhere. */
    nowhere: DateSpan | undefined;
    onshift: (days: number, done: boolean) => void;
    onopen: () => void;
  }
  const { dates, axis, fixed, nowhere, onshift, onopen }: Props = $props();

  const HEIGHT = 30;
  const TOP = 5;
  const words = $derived(bench.words);
  const stages = $derived.by(() => {
    const up = dates.emerge ?? dates.harden;
    const potted = dates.pot_on ?? dates.harden;
    return [
      { name: 'chill', from: dates.chill ?? dates.sow, to: dates.sow },
      { name: 'germinate', from: dates.sow, to: up },
      { name: 'grow', from: up, to: potted },
      { name: 'potted', from: potted, to: dates.harden },
      { name: 'harden', from: dates.harden, to: dates.out },
    ]
      .map((stage) => ({
        ...stage,
        x: axis.x(stage.from),
        width: axis.x(stage.to) - axis.x(stage.from),
      }))
      .filter((stage) => stage.width > 0);
  });
  const said = $derived(
    `${dates.name}: sow ${words.shortDate(dates.sow)}, ${
      dates.emerge ? `up ${words.shortDate(dates.emerge)}` : 'none come up'
    }${dates.pot_on ? `, pot on ${words.shortDate(dates.pot_on)}` : ''}, harden off ${words.shortDate(
      dates.harden,
    )}, out ${words.shortDate(dates.out)}${nowhere ? `; trays stand nowhere from ${words.shortDate(nowhere.from)} to ${words.shortDate(nowhere.to)}` : ''}`,
  );

  let grabbed = $state(false);

  function grab(event: PointerEvent) {
    if (fixed || event.button !== 0) return;
    const left = (event.currentTarget as Element).getBoundingClientRect().left;
    const date = axis.date(event.clientX - left);
    let moved = 0;
    grabbed = true;
    const move = ({ event: e }: { event: PointerEvent }) => {
      const days = daysBetween(date, axis.date(e.clientX - left));
      if (days === moved) return;
      onshift(days - moved, false);
      moved = days;
    };
    const end = () => {
      grabbed = false;
      if (moved === 0) onopen();
      else onshift(0, true);
    };
    // A tap is no drag.
    drag(event, move, end, 4);
  }

  function key(event: KeyboardEvent) {
    const step = direction(event)?.x;
    if (step && !fixed) {
      event.preventDefault();
      onshift(step * (event.shiftKey ? 7 : 1), false);
    } else if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      onopen();
    }
  }
</script>

<svg
  width={axis.width}
  height={HEIGHT + 2 * TOP}
  role="slider"
  tabindex="0"
  aria-label={said}
  aria-valuenow={daysBetween(axis.from, dates.sow)}
  aria-valuetext="sow {words.date(dates.sow)}"
  data-testid="strand-{dates.sowing}"
  class="block overflow-hidden {fixed ? '' : 'cursor-ew-resize'} touch-pan-y select-none"
  onpointerdown={grab}
  onkeydown={key}
>
  <defs>
    <pattern id="dots" width="6" height="6" patternUnits="userSpaceOnUse">
      <circle cx="2" cy="2" r="1.3" fill="var(--soil)" />
    </pattern>
    <pattern
      id="slashes"
      width="6"
      height="6"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <rect width="2" height="6" fill="var(--straw)" />
    </pattern>
    <pattern
      id="chill"
      width="6"
      height="6"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(-45)"
    >
      <rect width="2" height="6" fill="var(--frost)" />
    </pattern>
  </defs>
  {#each stages as stage (stage.name)}
    {#if stage.name === 'chill'}
      <rect x={stage.x} y={TOP + 10} width={stage.width} height="10" fill="url(#chill)" />
    {:else if stage.name === 'germinate'}
      <rect x={stage.x} y={TOP + 8} width={stage.width} height="14" fill="var(--raised)" />
      <rect
        x={stage.x}
        y={TOP + 8}
        width={stage.width}
        height="14"
        fill="url(#dots)"
        stroke="var(--soil)"
        stroke-width="1.2"
      />
    {:else if stage.name === 'harden'}
      <rect x={stage.x} y={TOP + 4} width={stage.width} height="22" fill="var(--raised)" />
      <rect
        x={stage.x}
        y={TOP + 4}
        width={stage.width}
        height="22"
        fill="url(#slashes)"
        stroke="var(--straw)"
        stroke-width="1.2"
      />
    {:else}
      <rect
        x={stage.x}
        y={TOP + (stage.name === 'potted' ? 4 : 6)}
        width={stage.width}
        height={stage.name === 'potted' ? 22 : 18}
        fill="var(--sage)"
        opacity={stage.name === 'potted' ? 0.75 : 0.45}
      />
      {#if stage.name === 'potted'}
        <path d="M{stage.x} {TOP + 2}v26" stroke="var(--ink)" stroke-width="2" />
      {/if}
    {/if}
  {/each}
  {#if nowhere}
    {@const x = axis.x(nowhere.from)}
    <rect
      data-testid="nowhere-{dates.sowing}"
      {x}
      y={TOP + 1}
      width={Math.max(axis.x(nowhere.to) - x, 6)}
      height="28"
      rx="4"
      fill="none"
      stroke="var(--wine)"
      stroke-width="2"
      stroke-dasharray="5 4"
    />
  {/if}
  <path
    d="M{axis.x(dates.sow)} {TOP}v{HEIGHT}"
    stroke="var(--soil)"
    stroke-width="2.5"
    stroke-linecap="round"
  />
  <g font-size="14" fill="var(--ink)" class="halo pointer-events-none">
    {#if axis.x(dates.sow) > 60}
      <text x={axis.x(dates.chill ?? dates.sow) - 6} y={TOP + 20} text-anchor="end"
        >{words.shortDate(dates.sow)}</text
      >
    {/if}
    {#if axis.x(dates.out) < axis.width - 70}
      <text x={axis.x(dates.out) + 12} y={TOP + 20}
        >{words.shortDate(dates.out)}{#if grabbed}, frost {words.number(
            dates.frost_risk_out,
            'share',
          )}{/if}</text
      >
    {/if}
  </g>
  <path
    d="M{axis.x(dates.out) - 8} {TOP + 22}a8 8 0 0 1 16 0z"
    fill="var(--coral)"
    stroke="var(--raised)"
  />
</svg>

<style>
  .halo {
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 3px;
    stroke-linejoin: round;
  }
</style>
