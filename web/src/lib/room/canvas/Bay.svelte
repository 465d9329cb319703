<script lang="ts">
  import type { BayOnDay, Place, Tier, TrayOnDay } from '../../api/client';
  import { same } from '../../bench/things';
  import { bench } from '../../bench/workbench.svelte';
  import { bars, keyHeight, nudgeHeight, settable, tryHeight, type Bar } from './lamps';
  import Gauge from './Gauge.svelte';
  import HeldOver from './HeldOver.svelte';
  import StandingTrays from './StandingTrays.svelte';
  import { drag } from '../../fields/slider';
  import { carry } from '../carry.svelte';
  import { carryOut } from '../trays/carryTrays';
  import { held } from '../trays/held.svelte';
  import { stage } from './stage.svelte';

  interface Props {
    place: Place;
    tier: Tier;
    bay: BayOnDay;
    left: number;
    scale: number;
    up: (mm: number) => number;
    /** Whether it is near enough to the view for what is in it to be drawn. */
    drawn: boolean;
  }
  const { place, tier, bay, left, scale, up: over, drawn }: Props = $props();

  const words = $derived(bench.words);
  const mm = $derived((length: number) => length * scale);
  const width = $derived(mm(place.width_mm));
  /** Whether there is room for words. */
  const near = $derived(width > 190);
  const deck = $derived(over(tier.deck_height_mm));
  const ceiling = $derived(over(tier.deck_height_mm + bay.clear_height_mm));
  const up = $derived((height: number) => deck - mm(height));
  const selected = $derived(same(bay.bay, bench.hand.selected));
  const picked = $derived(selected || bench.hand.has(bay.bay));
  const canopy = $derived((tray: TrayOnDay) =>
    Math.max(tray.rim_mm, ...tray.parts.map((part) => tray.rim_mm + part.plant_height_mm)),
  );
  const tallest = $derived(Math.max(0, ...bay.trays.map(canopy)));
  const findings = $derived(bench.findings(bay.bay));
  const grave = $derived(findings.some((finding) => finding.severity !== 'advice'));
  // Front trays hide those behind them.
  const trays = $derived([...bay.trays].sort((a, b) => b.y_mm[0]! - a.y_mm[0]!));
  const glow = $derived(bay.burning ? Math.min(0.25 + (bay.light?.ppfd.mean ?? 0) / 400, 0.95) : 0);

  const label = $derived.by(() => {
    const what = tier.storage
      ? 'storage'
      : bay.trays.length === 0
        ? 'empty'
        : bay.trays
            .map((tray) => `${tray.label} ${tray.parts.map((part) => part.name).join(' and ')}`)
            .join('; ');
    const found = findings.length === 1 ? '1 finding' : `${findings.length} findings`;
    return `${bay.name}: ${what}${findings.length > 0 ? `; ${found}` : ''}`;
  });

  function select(event?: MouseEvent | KeyboardEvent) {
    bench.pick(bay.bay, event?.shiftKey);
  }

  function bayKey(event: KeyboardEvent) {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    select(event);
  }

  /** Whether something is carried over it. */
  const isUnder = $derived(carry.over === `${bay.bay.place}/${bay.bay.tier}`);

  /** What it has for the trays that a hand holds. */
  const forHeld = $derived(held.now && held.of(bay.bay));
  const heldStroke = $derived(
    !forHeld || forHeld.spots.length === 0
      ? undefined
      : forHeld.against
        ? 'var(--straw)'
        : 'var(--sage)',
  );

  let dragging = $state(false);

  function grab(bar: Bar, event: PointerEvent) {
    event.preventDefault();
    (event.currentTarget as SVGElement).focus();
    select();
    dragging = true;
    const lamps = [...bar.lamps];
    const startHeight = bar.height;
    let height = bar.height;
    // On the window: bars may merge while they move, and the one under the hand may go.
    const move = ({ dy }: { dy: number }) => {
      const next = settable(startHeight + dy / stage.shown, bay, words);
      if (next === height) return;
      height = next;
      tryHeight(bay, lamps, height);
    };
    const release = () => {
      dragging = false;
      void bench.settle();
    };
    drag(event, move, release);
  }

  function lampKey(bar: Bar, event: KeyboardEvent) {
    const height = keyHeight(event, bar.height, bay, words);
    if (height === undefined) return;
    select();
    if (height !== bar.height) nudgeHeight(bay, bar.lamps, height);
  }
</script>

<rect
  role="button"
  tabindex="0"
  aria-label={label}
  aria-pressed={picked}
  data-bay="{bay.bay.place}/{bay.bay.tier}"
  x={left}
  y={ceiling}
  {width}
  height={Math.max(deck - ceiling, 1)}
  fill={picked ? 'var(--straw-soft)' : 'transparent'}
  fill-opacity="0.35"
  stroke={picked || isUnder ? 'var(--coral)' : (heldStroke ?? 'transparent')}
  stroke-dasharray={isUnder || heldStroke ? '6 4' : undefined}
  stroke-width="2.5"
  class="cursor-pointer hover:stroke-[var(--straw)]"
  onclick={select}
  onkeydown={bayKey}
/>

{#if drawn}
  <g class="pointer-events-none">
    {#each [{ side: tier.sides.left, x: left + 2 }, { side: tier.sides.right, x: left + width - 2 }] as { side, x } (x)}
      {#if side !== 'open'}
        <path
          d="M{x} {ceiling + 3}V{deck - 3}"
          stroke={side === 'foil'
            ? 'var(--straw)'
            : side === 'white'
              ? 'var(--frame)'
              : 'var(--teal)'}
          stroke-width="3"
          stroke-dasharray={side === 'curtain' ? '6 4' : side === 'foil' ? '3 2' : undefined}
        />
      {/if}
    {/each}
    {#if glow > 0}
      {#each bars(tier.lamps) as bar (bar.lamps[0])}
        {@const x1 = left + mm(bar.left)}
        {@const x2 = left + mm(bar.right)}
        {@const flare = Math.min(mm(40), (x2 - x1) / 8)}
        <polygon
          points="{x1},{up(bar.height)} {x2},{up(bar.height)} {Math.min(
            x2 + flare,
            left + width,
          )},{deck} {Math.max(x1 - flare, left)},{deck}"
          fill="url(#lamp-glow)"
          opacity={glow}
        />
      {/each}
    {/if}

    {#each tier.mats as mat (mat.id)}
      {@const long = mat.along === 'x' ? mat.length_mm : mat.width_mm}
      <path
        d="M{left + mm(mat.x_mm)} {deck - 2}h{mm(long)}"
        stroke="var(--teal)"
        stroke-width="4"
        stroke-linecap="round"
      />
      {#if near && mat.thermostat_c != null}
        <text
          x={left + mm(mat.x_mm + long) - 4}
          y={deck + 15}
          text-anchor="end"
          font-size="14"
          font-weight="600"
          fill="var(--teal)">{words.number(mat.thermostat_c, 'temperature_c')}</text
        >
      {/if}
    {/each}

    <StandingTrays {trays} {left} {mm} {up} {deck} />

    {#each tier.fans as fan (fan.id)}
      {@const r = mm(fan.diameter_mm / 2)}
      {@const x = left + mm(fan.x_mm)}
      {@const y = up(fan.height_mm)}
      <circle
        cx={x}
        cy={y}
        {r}
        fill="var(--raised)"
        fill-opacity="0.7"
        stroke="var(--frame)"
        stroke-width="1.6"
      />
      <path
        d="M{x} {y}q{r * 0.7} {-r * 0.5} {r * 0.2} {-r * 0.8}M{x} {y}q{r * 0.1} {r * 0.9} {r *
          0.7} {r * 0.5}M{x} {y}q{-r * 0.9} {-r * 0.1} {-r * 0.8} {r * 0.3}"
        fill="none"
        stroke="var(--frame)"
        stroke-width="1.8"
      />
    {/each}

    {#if near && tier.storage}
      <text x={left + 12} y={deck - 8} font-size="14" fill="var(--soft)"
        >store: pots, labels, mix</text
      >
    {:else if near && bay.trays.length === 0 && !bench.building}
      <text x={left + 12} y={deck - 8} font-size="14" fill="var(--soft)">empty today</text>
    {:else if near && !bay.burning && tier.lamps.length > 0 && !bench.building}
      <text x={left + 12} y={ceiling + 17} font-size="14" fill="var(--soft)">lamps off</text>
    {/if}

    {#if bay.light && bay.burning && !bench.building}
      <Gauge light={bay.light} x={left + width + 14} {deck} {ceiling} {near} />
    {/if}
    {#if findings.length > 0 && !bench.building}
      {@const x = left + width + 12}
      {@const y = Math.max(ceiling + 2, deck - 106)}
      <path
        d={grave ? `M${x} ${y + 13}l7 -13l7 13z` : `M${x + 7} ${y}a6.5 6.5 0 1 1 -0.1 0z`}
        fill={grave ? 'var(--wine)' : 'none'}
        stroke={grave ? 'var(--wine)' : 'var(--coral)'}
        stroke-width="2"
      />
    {/if}
  </g>
{/if}

{#if drawn && !bench.building}
  <!-- A hand takes a tray by its body; keys and taps have "Move it..." in the bay's sheet. -->
  {#each trays as tray (tray.tray)}
    <rect
      role="presentation"
      data-grab
      data-tray={tray.tray}
      class="cursor-grab touch-pan-y"
      x={left + mm(tray.x_mm[0]!)}
      y={up(tray.rim_mm)}
      width={mm(tray.x_mm[1]! - tray.x_mm[0]!)}
      height={Math.max(mm(tray.rim_mm - tray.lift_mm), 4)}
      fill="transparent"
      onpointerdown={(event) => bench.building || carryOut(event, tray)}
      onclick={(event) => {
        if (!carry.wasDragged()) select(event);
      }}
    />
  {/each}
{/if}

{#if held.now && isUnder}
  <HeldOver bay={bay.bay} at_mm={carry.at * place.width_mm} {left} {ceiling} {mm} {up} />
{/if}

{#each bars(tier.lamps) as bar (bar.lamps[0])}
  {@const x = left + mm(bar.left)}
  {@const long = mm(bar.right - bar.left)}
  {@const y = up(bar.height)}
  {@const body = Math.max(mm(bar.body), 5)}
  <g
    role="slider"
    tabindex="0"
    aria-label="Lamps of {bay.name}, height above the shelf"
    aria-orientation="vertical"
    aria-valuemin={bay.lowest_face_mm}
    aria-valuemax={bay.highest_face_mm}
    aria-valuenow={bar.height}
    aria-valuetext={words.number(bar.height, 'length_mm')}
    data-grab
    class="lamp cursor-ns-resize touch-none outline-none"
    onpointerdown={(event) => grab(bar, event)}
    onkeydown={(event) => lampKey(bar, event)}
  >
    <g class="pointer-events-none" stroke="var(--frame)" stroke-width="1.2" stroke-dasharray="2 2">
      <line x1={x + long * 0.1} x2={x + long * 0.1} y1={ceiling} y2={y - body} />
      <line x1={x + long * 0.9} x2={x + long * 0.9} y1={ceiling} y2={y - body} />
    </g>
    <!-- Room for a thumb. -->
    <rect {x} y={y - body - 12} width={long} height={body + 24} fill="transparent" />
    <rect {x} y={y - body} width={long} height={body} rx="2.5" fill="var(--frame)" />
    <rect
      x={x + 2}
      y={y - 3}
      width={long - 4}
      height="4"
      rx="2"
      fill={bay.burning ? 'var(--straw)' : 'var(--line)'}
    />
    <rect
      class="ring"
      x={x - 4}
      y={y - body - 4}
      width={long + 8}
      height={body + 10}
      rx="6"
      fill="none"
      stroke="var(--coral)"
      stroke-width="3"
    />
  </g>
{/each}

{#if drawn && tier.lamps.length > 0 && bay.light && (picked || dragging || (near && bay.burning))}
  {@const x = left + width - 20}
  {@const top = deck - mm(tallest + bay.light.gap_mm)}
  {@const bottom = deck - mm(tallest)}
  {@const text = bay.light.gap_mm > 0 ? words.number(bay.light.gap_mm, 'length_mm') : 'touching'}
  <g class="pointer-events-none" data-testid="gap-{bay.bay.tier}">
    <path
      d="M{x - 5} {top}h10M{x - 5} {bottom}h10M{x} {top}V{bottom}"
      stroke="var(--coral)"
      stroke-width="1.6"
      fill="none"
    />
    <rect
      x={x - 16 - text.length * 7.6}
      y={(top + bottom) / 2 - 11}
      width={text.length * 7.6 + 8}
      height="22"
      rx="5"
      fill="var(--raised)"
      stroke="var(--coral)"
      stroke-width="1"
    />
    <text
      x={x - 12 - text.length * 3.8}
      y={(top + bottom) / 2 + 5}
      text-anchor="middle"
      font-size="14"
      font-weight="600"
      fill="var(--coral)">{text}</text
    >
  </g>
{/if}

<style>
  .ring {
    opacity: 0;
  }
  .lamp:focus-visible .ring {
    opacity: 1;
  }
</style>
