<script lang="ts">
  // The room from above: where each place stands, and the floor one needs before it.
  import type { Place, PlaceOnDay } from '../../api/client';
  import { placePath, replace } from '../../bench/edits';
  import { direction, drag } from '../../fields/slider';
  import { bench } from '../../bench/workbench.svelte';

  /** Dragged in steps of this. */
  const STEP_MM = 10;

  let width = $state(0);
  const room = $derived(bench.draft!.room);
  const scale = $derived(Math.min(width / room.width_mm, 260 / room.depth_mm));
  const standing = $derived(
    bench.places.flatMap((place) => {
      const onDay = bench.room?.places.find((p) => p.place === place.id);
      return place.spot && onDay?.outline ? [{ place, onDay, spot: place.spot }] : [];
    }),
  );
  const px = $derived((mm: number) => mm * scale);
  /** The near wall is at the bottom. */
  const py = $derived((mm: number) => (room.depth_mm - mm) * scale);

  function size(onDay: PlaceOnDay): [number, number] {
    const { x_mm, y_mm } = onDay.outline!;
    return [x_mm[1]! - x_mm[0]!, y_mm[1]! - y_mm[0]!];
  }

  function patch(place: Place, onDay: PlaceOnDay, x: number, y: number) {
    const [w, d] = size(onDay);
    const within = (at: number, most: number) =>
      Math.min(Math.max(Math.round(at / STEP_MM) * STEP_MM, 0), Math.max(most, 0));
    const spot = `${placePath(bench.draft!, place.id)}/spot`;
    return [
      replace(`${spot}/x_mm`, within(x, room.width_mm - w)),
      replace(`${spot}/y_mm`, within(y, room.depth_mm - d)),
    ];
  }

  function grab(event: PointerEvent, place: Place, onDay: PlaceOnDay) {
    event.preventDefault();
    const { x_mm, y_mm } = place.spot!;
    const move = ({ dx, dy }: { dx: number; dy: number }) => {
      const to = patch(place, onDay, x_mm + dx / scale, y_mm + dy / scale);
      bench.try(to, `moved ${place.name} on the floor`);
    };
    const end = (moved: boolean) => {
      if (moved) void bench.settle();
      else bench.pick({ place: place.id });
    };
    drag(event, move, end, 5);
  }

  function key(event: KeyboardEvent, place: Place, onDay: PlaceOnDay) {
    if (event.key === 'Enter') {
      event.preventDefault();
      bench.pick({ place: place.id });
      return;
    }
    const by = direction(event);
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    const { x_mm, y_mm } = place.spot!;
    const step = event.shiftKey ? 100 : 50;
    bench.nudge(
      patch(place, onDay, x_mm + by.x * step, y_mm + by.y * step),
      `moved ${place.name} on the floor`,
    );
  }
</script>

<div bind:clientWidth={width}>
  {#if width > 0}
    <svg
      width={px(room.width_mm)}
      height={px(room.depth_mm)}
      class="block touch-none overflow-visible"
      role="group"
      aria-label="The room from above"
      data-testid="floor-plan"
    >
      <rect
        width={px(room.width_mm)}
        height={px(room.depth_mm)}
        fill="var(--paper)"
        stroke="var(--frame)"
        stroke-width="3"
      />
      {#each standing as { place, onDay } (place.id)}
        {@const area = onDay.standing_area!}
        <rect
          x={px(area.x_mm[0]!)}
          y={py(area.y_mm[1]!)}
          width={px(area.x_mm[1]! - area.x_mm[0]!)}
          height={px(area.y_mm[1]! - area.y_mm[0]!)}
          fill="none"
          stroke="var(--line)"
          stroke-dasharray="4 4"
        />
      {/each}
      {#each standing as { place, onDay } (place.id)}
        {@const [w, d] = size(onDay)}
        {@const x = px(onDay.outline!.x_mm[0]!)}
        {@const y = py(onDay.outline!.y_mm[1]!)}
        {@const upright = px(w) < px(d)}
        <g
          role="button"
          tabindex="0"
          aria-label="{place.name} on the floor: arrow keys move it"
          class="cursor-move"
          onpointerdown={(event) => grab(event, place, onDay)}
          onkeydown={(event) => key(event, place, onDay)}
        >
          <rect
            {x}
            {y}
            width={px(w)}
            height={px(d)}
            rx="3"
            fill="var(--straw-soft)"
            stroke="var(--frame)"
            stroke-width="1.6"
          />
          <text
            x={x + px(w) / 2}
            y={y + px(d) / 2 + 5}
            text-anchor="middle"
            font-size="14"
            fill="var(--ink)"
            transform={upright ? `rotate(-90 ${x + px(w) / 2} ${y + px(d) / 2})` : undefined}
            >{place.name}</text
          >
        </g>
      {/each}
    </svg>
  {/if}
</div>
