<script lang="ts">
  import type { BayOnDay, Rack, Tier } from '../api/client';
  import { bench, same } from '../workbench.svelte';
  import type { Elevation } from './geometry';
  import { bars, keyHeight, nudgeHeight, settable, tryHeight, type Bar } from './lamps';
  import Seedlings from './Seedlings.svelte';

  interface Props {
    rack: Rack;
    tier: Tier;
    bay: BayOnDay;
    left: number;
    view: Elevation;
  }
  const { rack, tier, bay, left, view }: Props = $props();

  const words = $derived(bench.words);
  const mm = $derived((length: number) => length * view.scale);
  const deck = $derived(view.y(tier.deck_height_mm));
  const ceiling = $derived(view.y(tier.deck_height_mm + bay.clear_height_mm));
  const up = $derived((height: number) => deck - mm(height));
  const selected = $derived(same(bay.bay, bench.selected));
  const tallest = $derived(
    Math.max(0, ...bay.trays.map((tray) => tray.rim_mm + tray.plant_height_mm)),
  );
  const cropOf = $derived(
    (sowing: string) => bench.draft?.sowings.find((s) => s.id === sowing)?.crop ?? '',
  );
  // Front trays hide those behind them.
  const trays = $derived([...bay.trays].sort((a, b) => b.y_mm[0]! - a.y_mm[0]!));
  const glow = $derived(bay.burning ? Math.min(0.25 + (bay.light?.ppfd.mean ?? 0) / 400, 0.95) : 0);

  const label = $derived.by(() => {
    const what = tier.storage
      ? 'storage'
      : bay.trays.length === 0
        ? 'empty'
        : bay.trays.map((tray) => `${tray.label} ${tray.name}`).join('; ');
    return `${bay.name}: ${what}`;
  });

  function select() {
    bench.select(bay.bay);
  }

  function bayKey(event: KeyboardEvent) {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    select();
  }

  let dragging = $state(false);

  function grab(bar: Bar, event: PointerEvent) {
    event.preventDefault();
    (event.currentTarget as SVGElement).focus();
    select();
    dragging = true;
    const lamps = [...bar.lamps];
    const startY = event.clientY;
    const startHeight = bar.height;
    let height = bar.height;
    // On the window: bars may merge while they move, and the one under the hand may go.
    const move = (e: PointerEvent) => {
      const next = settable(startHeight + (startY - e.clientY) / view.scale, bay, words);
      if (next === height) return;
      height = next;
      tryHeight(bay, lamps, height);
    };
    const release = () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', release);
      window.removeEventListener('pointercancel', release);
      dragging = false;
      void bench.settle();
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', release);
    window.addEventListener('pointercancel', release);
  }

  function lampKey(bar: Bar, event: KeyboardEvent) {
    const height = keyHeight(event, bar.height, bay, words);
    if (height === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    select();
    if (height !== bar.height) nudgeHeight(bay, bar.lamps, height);
  }
</script>

<rect
  role="button"
  tabindex="0"
  aria-label={label}
  aria-pressed={selected}
  x={left}
  y={ceiling}
  width={mm(rack.width_mm)}
  height={Math.max(deck - ceiling, 1)}
  fill={selected ? 'var(--straw-soft)' : 'transparent'}
  fill-opacity="0.35"
  stroke={selected ? 'var(--coral)' : 'transparent'}
  stroke-width="2.5"
  class="cursor-pointer hover:stroke-[var(--straw)]"
  onclick={select}
  onkeydown={bayKey}
/>

<g class="pointer-events-none">
  {#if glow > 0}
    {#each bars(tier.lamps) as bar (bar.lamps[0])}
      {@const x1 = left + mm(bar.left)}
      {@const x2 = left + mm(bar.right)}
      {@const flare = Math.min(mm(40), (x2 - x1) / 8)}
      <polygon
        points="{x1},{up(bar.height)} {x2},{up(bar.height)} {Math.min(
          x2 + flare,
          left + mm(rack.width_mm),
        )},{deck} {Math.max(x1 - flare, left)},{deck}"
        fill="url(#lamp-glow)"
        opacity={glow}
      />
    {/each}
  {/if}

  {#each trays as tray (tray.tray)}
    {@const x = left + mm(tray.x_mm[0]!)}
    {@const width = mm(tray.x_mm[1]! - tray.x_mm[0]!)}
    {#if tray.stage === 'grow'}
      <Seedlings
        crop={cropOf(tray.sowing)}
        x={x + 2}
        width={width - 4}
        y={up(tray.rim_mm)}
        height={mm(tray.plant_height_mm)}
        count={Math.min(tray.columns, Math.max(2, Math.floor(width / 12)))}
      />
    {/if}
    <path
      d="M{x} {up(tray.rim_mm)}h{width}l{-mm(8)} {mm(tray.rim_mm)}h{-(width - mm(16))}z"
      fill="var(--mix)"
    />
    {#if width > 34}
      <text
        x={x + width / 2}
        y={up(tray.rim_mm / 2) + 5}
        text-anchor="middle"
        font-size="14"
        font-weight="600"
        fill="var(--on-mix)">{tray.label}</text
      >
    {/if}
  {/each}

  {#if tier.storage}
    <text x={left + 12} y={deck - 10} font-size="14" fill="var(--soft)"
      >store: pots, labels, mix</text
    >
  {:else if bay.trays.length === 0}
    <text x={left + 12} y={deck - 10} font-size="14" fill="var(--soft)">nothing here today</text>
  {:else if !bay.burning}
    <text x={left + 12} y={ceiling + 18} font-size="14" fill="var(--soft)"
      >lamps off: seed wants no light</text
    >
  {/if}
</g>

{#each bars(tier.lamps) as bar (bar.lamps[0])}
  {@const x = left + mm(bar.left)}
  {@const width = mm(bar.right - bar.left)}
  {@const y = up(bar.height)}
  {@const body = Math.max(mm(bar.body), 5)}
  <g
    role="slider"
    tabindex="0"
    aria-label="Lamps of {bay.name}, height over the deck"
    aria-orientation="vertical"
    aria-valuemin={bay.lowest_face_mm}
    aria-valuemax={bay.highest_face_mm}
    aria-valuenow={bar.height}
    aria-valuetext={words.number(bar.height, 'length_mm')}
    class="lamp cursor-ns-resize touch-none outline-none"
    onpointerdown={(event) => grab(bar, event)}
    onkeydown={(event) => lampKey(bar, event)}
  >
    <g class="pointer-events-none" stroke="var(--frame)" stroke-width="1.2" stroke-dasharray="2 2">
      <line x1={x + width * 0.1} x2={x + width * 0.1} y1={ceiling} y2={y - body} />
      <line x1={x + width * 0.9} x2={x + width * 0.9} y1={ceiling} y2={y - body} />
    </g>
    <!-- Room for a thumb. -->
    <rect {x} y={y - body - 12} {width} height={body + 24} fill="transparent" />
    <rect {x} y={y - body} {width} height={body} rx="2.5" fill="var(--frame)" />
    <rect
      x={x + 2}
      y={y - 3}
      width={width - 4}
      height="4"
      rx="2"
      fill={bay.burning ? 'var(--straw)' : 'var(--line)'}
    />
    <rect
      class="ring"
      x={x - 4}
      y={y - body - 4}
      width={width + 8}
      height={body + 10}
      rx="6"
      fill="none"
      stroke="var(--coral)"
      stroke-width="3"
    />
  </g>
{/each}

{#if bay.light && (selected || dragging || bay.burning)}
  {@const x = left + mm(rack.width_mm) - 20}
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
