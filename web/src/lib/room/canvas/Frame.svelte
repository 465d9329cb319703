<script lang="ts">
  // A place without its bays: posts, walls, panes and decks, each kind in its own manner.
  import type { Place } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import { GAP_MM, wallMm } from './geometry';

  interface Props {
    place: Place;
    left: number;
    scale: number;
    up: (mm: number) => number;
    onpick: (event: MouseEvent | KeyboardEvent) => void;
  }
  const { place, left, scale, up, onpick }: Props = $props();

  const kind = $derived(place.kind);
  const right = $derived(left + place.width_mm * scale);
  const wall = $derived(wallMm(place) * scale);
  const top = $derived(up(place.height_mm));
  const floor = $derived(up(0));
  const lowest = $derived(up(place.tiers[0]?.deck_height_mm ?? 0));
  const picked = $derived(bench.hand.has({ place: place.id }));
  const findings = $derived(bench.findingsOn(place.id));
  const grave = $derived(findings.some((finding) => finding.severity !== 'advice'));
  const open = $derived(place.deck.material === 'wire');
  const thick = $derived(Math.max(place.deck.thickness_mm * scale, 3));
  // A name that is wider than its place would run into the next.
  const room = $derived(
    Math.max((right - left + GAP_MM * scale - (bench.building ? 74 : 26)) / 9, 3),
  );
  const name = $derived(
    place.name.length > room ? `${place.name.slice(0, Math.floor(room) - 1)}…` : place.name,
  );

  const about = $derived.by(() => {
    if ('rack' in kind) return `rack, ${material[place.deck.material]}`;
    if ('wall_shelf' in kind) return 'wall shelf';
    if ('closet' in kind) return 'closet';
    if ('bench' in kind) return 'bench';
    if ('chamber' in kind) return 'germination chamber';
    if ('window' in kind) return 'window sill';
    if ('surface' in kind) return kind.surface.floor ? 'free floor' : 'top of a cabinet';
    return kind.cold_frame.glazed ? 'cold frame, outdoors' : 'hardening spot, outdoors';
  });
  const material: Record<Place['deck']['material'], string> = {
    wire: 'wire',
    chipboard: 'bare chipboard',
    sealed_chipboard: 'sealed chipboard',
    wood: 'wood',
    plastic: 'plastic',
    metal: 'metal',
    stone: 'stone',
  };

  function key(event: KeyboardEvent) {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    onpick(event);
  }
</script>

<g
  class="pointer-events-none"
  fill="none"
  stroke="var(--frame)"
  stroke-width="2"
  aria-hidden="true"
>
  {#if 'rack' in kind}
    {@const post = Math.max(Math.min(kind.rack.post_mm * scale, 8), 4)}
    {#each [left, right] as x (x)}
      <line x1={x} x2={x} y1={top} y2={floor} stroke-width={post} stroke-linecap="round" />
      {#if kind.rack.feet === 'castors'}
        <circle cx={x} cy={floor - 4} r="4" fill="var(--frame)" />
      {:else if kind.rack.feet === 'levelling'}
        <path d="M{x - 6} {floor}h12" stroke-width="3" />
      {/if}
    {/each}
    {#if kind.rack.braced}
      <path
        d="M{left} {floor - 4}L{right} {top}M{left} {top}L{right} {floor - 4}"
        stroke-width="1"
        opacity="0.5"
      />
    {/if}
    {#if kind.rack.wall_fixed}
      <path d="M{left - 7} {top + 8}h14M{right - 7} {top + 8}h14" stroke-width="3" />
    {/if}
  {:else if 'wall_shelf' in kind}
    {#each [left + 18, right - 18] as x (x)}
      <line x1={x} x2={x} y1={top} y2={lowest + 30} stroke-width="3" />
      {#each place.tiers as tier (tier.id)}
        <path d="M{x} {up(tier.deck_height_mm) + thick + 16}v-16h14z" />
      {/each}
    {/each}
  {:else if 'closet' in kind}
    <rect x={left - 4} y={top} width={right - left + 8} height={floor - top} stroke-width="4" />
    <path d="M{left - 4} {top}l-16 10V{floor}h16M{right + 4} {top}l16 10V{floor}h-16" />
  {:else if 'bench' in kind}
    {#each [left + 14, right - 14] as x (x)}
      <line x1={x} x2={x} y1={lowest} y2={floor} stroke-width="5" />
    {/each}
    <path
      d="M{left + 14} {lowest}V{top}H{right - 14}V{lowest}"
      stroke-width="1.2"
      stroke-dasharray="5 4"
    />
  {:else if 'chamber' in kind}
    <path
      d="M{left - wall} {floor}V{top - wall}H{right + wall}V{floor}zM{left} {floor -
        2}H{right}V{top}H{left}z"
      fill="var(--line)"
      fill-rule="evenodd"
      stroke-width="1.4"
    />
    {#each kind.chamber.vents as vent, i (i)}
      <rect
        x={right - 1}
        y={up(vent.at_mm + vent.height_mm / 2) - 2}
        width={wall + 2}
        height={vent.height_mm * scale + 4}
        fill="var(--raised)"
        stroke-width="1.2"
      />
    {/each}
  {:else if 'window' in kind}
    {@const paneTop = lowest - kind.window.pane_height_mm * scale - 8}
    {@const wide = kind.window.pane_width_mm * scale}
    {@const x = (left + right - wide) / 2}
    <rect
      {x}
      y={paneTop}
      width={wide}
      height={lowest - 8 - paneTop}
      fill="var(--frost)"
      fill-opacity="0.22"
      stroke-width="5"
    />
    <path d="M{x + wide / 2} {paneTop}V{lowest - 8}M{x} {(paneTop + lowest - 8) / 2}h{wide}" />
  {:else if 'surface' in kind}
    {#if kind.surface.floor}
      <path d="M{left} {floor + 2}H{right}" stroke-width="3" stroke-dasharray="10 5" />
    {:else}
      <rect
        x={left}
        y={lowest}
        width={right - left}
        height={floor - lowest}
        stroke-width="1.2"
        stroke-dasharray="6 5"
      />
    {/if}
  {:else if !kind.cold_frame.glazed}
    <path d="M{left - 6} {floor + 2}H{right + 6}" stroke-width="4" />
  {:else}
    <path
      d="M{left - 6} {floor}V{up(place.height_mm * 0.7)}L{right + 6} {top}V{floor}"
      fill="var(--frost)"
      fill-opacity="0.16"
      stroke-width="3"
    />
  {/if}
  {#each place.tiers as tier (tier.id)}
    {@const y = up(tier.deck_height_mm)}
    {#if place.deck.thickness_mm > 0}
      {#if open}
        <path d="M{left} {y + 1}H{right}M{left} {y + thick}H{right}" stroke-width="1.4" />
        <path
          d="M{left} {y + thick / 2 + 0.5}H{right}"
          stroke-width={thick}
          stroke-dasharray="1.2 7"
        />
      {:else}
        <rect x={left} {y} width={right - left} height={thick} fill="var(--frame)" stroke="none" />
      {/if}
    {/if}
    {#if tier.liner}
      <path d="M{left + 3} {y - 5}v4H{right - 3}v-4" stroke="var(--teal)" stroke-width="2" />
    {/if}
  {/each}
</g>
<g
  role="button"
  tabindex="0"
  aria-label="{place.name}, {about}{findings.length > 0
    ? `; ${findings.length === 1 ? '1 finding' : `${findings.length} findings`}`
    : ''}"
  aria-pressed={picked}
  class="cursor-pointer"
  onclick={onpick}
  onkeydown={key}
>
  <rect
    x={left - wall - 6}
    y={floor + 4}
    width={Math.max(name.length * 8.6 + 30, 60)}
    height="30"
    rx="7"
    fill={picked ? 'var(--straw-soft)' : 'transparent'}
    stroke={picked ? 'var(--coral)' : 'none'}
    stroke-width="2"
  />
  <text
    x={left - wall}
    y={floor + 24}
    font-size="16"
    font-weight="650"
    fill="var(--ink)"
    class="font-display">{name}</text
  >
  {#if findings.length > 0}
    {@const x = left - wall + name.length * 8.6 + 12}
    <path
      d={grave
        ? `M${x} ${floor + 25}l7 -13l7 13z`
        : `M${x + 7} ${floor + 12}a6.5 6.5 0 1 1 -0.1 0z`}
      fill={grave ? 'var(--wine)' : 'none'}
      stroke={grave ? 'var(--wine)' : 'var(--coral)'}
      stroke-width="2"
    />
  {/if}
</g>
