<script lang="ts">
  // What can be dragged of a place while it is built: its edges, its decks, and itself by its name.
  import type { Place } from '../../api/client';
  import { placePath, replace } from '../../bench/edits';
  import { direction, drag } from '../../fields/slider';
  import { bench } from '../../bench/workbench.svelte';
  import { movePlace } from './actions';
  import { GAP_MM, indexAt, wallMm, type Row } from '../canvas/geometry';
  import Handle from './Handle.svelte';
  import { stage } from '../canvas/stage.svelte';

  interface Props {
    place: Place;
    index: number;
    left: number;
    scale: number;
    up: (mm: number) => number;
    all: Row;
  }
  const { place, index, left, scale, up, all }: Props = $props();

  const words = $derived(bench.words);
  const unit = $derived(words.unit('length_mm'));
  const handy = $derived(unit.step / unit.factor);
  const right = $derived(left + place.width_mm * scale);
  /** Outside the walls, where nothing else is drawn while building. */
  const edge = $derived(right + wallMm(place) * scale);
  const onDay = $derived(bench.room?.places.find((p) => p.place === place.id));
  const pitch = $derived(onDay?.pitch_mm ?? handy);
  const length = $derived((mm: number) => words.number(mm, 'length_mm'));
  const bays = $derived(bench.room?.bays.filter((b) => b.bay.place === place.id) ?? []);
  const ranges = $derived(new Map(bays.map((b) => [b.bay.tier, b.deck_range_mm])));

  function set(field: string, value: number, word: string, byKey: boolean) {
    const patch = [replace(`${placePath(bench.draft!, place.id)}/${field}`, value)];
    if (byKey) bench.nudge(patch, word);
    else bench.try(patch, word);
  }

  const settle = () => void bench.settle();

  let shift = $state(0);

  function carry(event: PointerEvent) {
    event.preventDefault();
    event.stopPropagation();
    const move = ({ dx }: { dx: number }) => (shift = dx / stage.live);
    const release = () => {
      const middle = (all.lefts[index] ?? 0) + place.width_mm / 2 + shift / scale;
      const others = bench.places.filter((other) => other.id !== place.id);
      const lefts = all.lefts.filter((_, i) => i !== index);
      const to = indexAt({ ...all, lefts }, others, middle);
      if (shift !== 0) void movePlace(place.id, to - index);
      shift = 0;
    };
    drag(event, move, release);
  }

  function carryKey(event: KeyboardEvent) {
    const by = direction(event)?.x;
    if (!by || event.shiftKey) return;
    event.preventDefault();
    event.stopPropagation();
    void movePlace(place.id, by);
  }
</script>

<rect
  class="pointer-events-none"
  x={left + shift}
  y={up(place.height_mm)}
  width={place.width_mm * scale}
  height={place.height_mm * scale}
  fill={shift ? 'var(--straw-soft)' : 'none'}
  fill-opacity="0.5"
  stroke="var(--coral)"
  stroke-width="1.2"
  stroke-dasharray="6 5"
/>
<g
  role="button"
  tabindex="0"
  data-grab
  aria-label="Move {place.name} along the row: arrow keys left and right"
  class="cursor-move touch-none"
  onpointerdown={carry}
  onkeydown={carryKey}
>
  <rect
    x={right - 34 + shift}
    y={up(0) + 4}
    width="36"
    height="30"
    rx="7"
    fill="var(--straw-soft)"
  />
  <path
    d="M{right - 26 + shift} {up(0) + 19}h20m-4 -4l4 4l-4 4m-12 0l-4 -4l4 -4"
    fill="none"
    stroke="var(--coral)"
    stroke-width="1.8"
  />
</g>
{#if onDay}
  <Handle
    label="Width of {place.name}"
    x={right}
    y={up(place.height_mm) + 20}
    axis="x"
    value={place.width_mm}
    least={onDay.least_mm[0]!}
    most={bench.facts.rangeOf('/places/*/width_mm')?.most ?? place.width_mm}
    step={handy}
    text={length(place.width_mm)}
    onmove={(mm, byKey) => set('width_mm', mm, `made ${place.name} ${length(mm)} wide`, byKey)}
    onend={settle}
  />
  <Handle
    label="Height of {place.name}"
    x={left + (place.width_mm * scale) / 2}
    y={up(place.height_mm) - wallMm(place) * scale}
    axis="y"
    value={place.height_mm}
    least={onDay.least_mm[2]!}
    most={bench.facts.rangeOf('/places/*/height_mm')?.most ?? place.height_mm}
    step={handy}
    text={length(place.height_mm)}
    onmove={(mm, byKey) => set('height_mm', mm, `made ${place.name} ${length(mm)} tall`, byKey)}
    onend={settle}
  />
{/if}
{#each place.tiers as tier, t (tier.id)}
  {@const range = ranges.get(tier.id)}
  {#if range}
    <Handle
      label="Height of {place.name}, {tier.name} above the floor"
      x={edge + 16}
      y={up(tier.deck_height_mm)}
      axis="y"
      value={tier.deck_height_mm}
      least={range[0]!}
      most={range[1]!}
      step={pitch}
      text={length(tier.deck_height_mm)}
      onmove={(mm, byKey) =>
        set(
          `tiers/${t}/deck_height_mm`,
          mm,
          `set ${tier.name} of ${place.name} to ${length(mm)}`,
          byKey,
        )}
      onend={settle}
    />
    {#if GAP_MM * scale > 56}
      <text
        class="pointer-events-none"
        x={edge + 29}
        y={up(tier.deck_height_mm) + 5}
        font-size="14"
        font-weight="600"
        fill="var(--coral)">{words.bare(tier.deck_height_mm, 'length_mm')}</text
      >
    {/if}
  {/if}
{/each}
