<script lang="ts">
  // The cords of the room over its front view, to scale: a plug is dragged to where it is to go.
  import { bench } from '../bench/workbench.svelte';
  import { drag } from '../fields/slider';
  import type { Feed } from '../api/client';
  import type { Row } from '../room/canvas/geometry';
  import { stage } from '../room/canvas/stage.svelte';
  import { cords } from './cords.svelte';
  import { sort, tree, type Node } from './loads';
  import { feedAt, hanging, sketch, type Cord, type Point } from './sketch';

  interface Props {
    all: Row;
    scale: number;
    up: (mm: number) => number;
  }
  const { all, scale, up }: Props = $props();
  const plan = $derived(bench.draft!);
  const feeds = $derived(plan.wiring?.feeds ?? []);
  const drawn = $derived(sketch(plan, all));
  const px = $derived((at: Point) => ({ x: at.x * scale, y: up(at.z) }));
  const PLUG_PX = 11;
  /** Where a plug is: beside the others in the same feed. */
  const plugAt = $derived((cord: Cord) => {
    const at = px(cord.to);
    const [i, n] = cord.plug;
    return { x: at.x + (i - (n - 1) / 2) * PLUG_PX, y: at.y };
  });
  const wide = $derived((feed: Feed) => {
    const { x, z } = feedAt(feed);
    const ends = (cord: Cord) => !cord.linked && cord.to.x === x && cord.to.z === z;
    const plugs = drawn.cords.filter(ends);
    return Math.max(2, plugs.length) * PLUG_PX + 4;
  });
  const NEAR_PX = 34;
  /** Further away names would only cover one another. */
  const NAMES_SCALE = 0.2;
  /** A cord has the colour of the timer that switches it, else a plain one. */
  const toneOf = $derived((cord: Cord) => (cord.timed ? 'var(--straw)' : 'var(--ink)'));

  /** The plug in the hand, and where it is. */
  let held: { cord: Cord; x: number; y: number; over: Feed | undefined } | undefined = $state.raw();
  /** The feed in the hand. */
  let moved: { id: string; x: number; z: number } | undefined = $state();
  const placeOf = (feed: Feed): Point => (moved?.id === feed.id ? moved : feedAt(feed));

  function nodeOf(id: string): Node | undefined {
    const find = (nodes: Node[]): Node | undefined => {
      for (const node of nodes) {
        const found = node.feed.id === id ? node : find(node.feeds);
        if (found) return found;
      }
      return undefined;
    };
    return find(tree(plan, undefined));
  }

  function pull(cord: Cord, event: PointerEvent) {
    event.preventDefault();
    event.stopPropagation();
    const node = feeds.some((feed) => feed.id === cord.key) ? nodeOf(cord.key) : undefined;
    cords.held = { paths: cord.paths, name: cord.name, lamp: cord.lamp, feed: node };
    const from = plugAt(cord);
    drag(
      event,
      ({ dx, dy }) => {
        const at = { x: from.x + dx / stage.live, y: from.y - dy / stage.live };
        const near = feeds
          .filter((feed) => cords.fits(feed))
          .map((feed) => {
            const end = px(feedAt(feed));
            return { feed, far: Math.hypot(end.x - at.x, end.y - at.y) };
          })
          .sort((a, b) => a.far - b.far)[0];
        held = { cord, ...at, over: near && near.far < NEAR_PX ? near.feed : undefined };
      },
      () => {
        if (held?.over) cords.plugInto(held.over.id);
        else cords.letGo();
        held = undefined;
      },
    );
  }

  function carry(feed: Feed, index: number, event: PointerEvent) {
    event.preventDefault();
    event.stopPropagation();
    const from = feedAt(feed);
    drag(
      event,
      ({ dx, dy }) => {
        moved = {
          id: feed.id,
          x: Math.round((from.x + dx / stage.shown) / 10) * 10,
          z: Math.max(0, Math.round((from.z + dy / stage.shown) / 10) * 10),
        };
      },
      (far) => {
        if (far && moved)
          bench.keep(
            [
              { op: 'add', path: `/wiring/feeds/${index}/x_mm`, value: moved.x },
              { op: 'add', path: `/wiring/feeds/${index}/height_mm`, value: moved.z },
            ],
            `moved ${feed.name}`,
          );
        moved = undefined;
      },
      3,
    );
  }
  const colour = {
    circuit: 'var(--ink)',
    socket: 'var(--frame)',
    strip: 'var(--sage)',
    timer: 'var(--straw)',
    chain: 'var(--teal)',
  } as const;
</script>

<g data-testid="cord-sketch">
  {#each drawn.cords as cord (cord.key)}
    {@const a = px(cord.from)}
    {@const b = cord.linked ? px(cord.to) : plugAt(cord)}
    <path
      d={cord.linked ? `M${a.x} ${a.y}L${b.x} ${b.y}` : hanging(a, b)}
      fill="none"
      stroke="var(--paper)"
      stroke-width="3.5"
    />
    <path
      d={cord.linked ? `M${a.x} ${a.y}L${b.x} ${b.y}` : hanging(a, b)}
      fill="none"
      stroke={toneOf(cord)}
      stroke-width="1.6"
    />
  {/each}
  {#each feeds as feed, i (feed.id)}
    {@const at = px(placeOf(feed))}
    <!-- The list in the Power view does the same by keys. -->
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <g data-grab class="cursor-move touch-none" onpointerdown={(event) => carry(feed, i, event)}>
      <title>{feed.name}</title>
      <rect
        x={at.x - wide(feed) / 2}
        y={at.y - 8}
        width={wide(feed)}
        height="16"
        rx={sort(feed) === 'timer' ? 8 : 3}
        fill={held?.over?.id === feed.id ? 'var(--coral)' : colour[sort(feed)]}
        stroke="var(--paper)"
        stroke-width="2"
      />
      {#if scale > NAMES_SCALE}
        <text
          x={at.x}
          y={at.y - 12}
          text-anchor="middle"
          font-size="12"
          fill="var(--ink)"
          stroke="var(--paper)"
          stroke-width="3"
          paint-order="stroke">{feed.name}</text
        >
      {/if}
    </g>
  {/each}
  {#each [...drawn.cords.filter((cord) => !cord.linked), ...drawn.loose] as cord (cord.key)}
    {@const at = held?.cord.key === cord.key ? held : plugAt(cord)}
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <g data-grab class="cursor-grab touch-none" onpointerdown={(event) => pull(cord, event)}>
      <title>plug of {cord.name}</title>
      <circle cx={at.x} cy={at.y} r={PLUG_PX / 2} fill="transparent" />
      <circle
        cx={at.x}
        cy={at.y}
        r="4"
        fill={cord.from === cord.to ? 'var(--coral)' : 'var(--raised)'}
        stroke="var(--ink)"
        stroke-width="1.5"
      />
    </g>
  {/each}
  {#if held}
    {@const from = px(held.cord.from)}
    <path
      d={hanging(from, held)}
      fill="none"
      stroke="var(--coral)"
      stroke-width="2.5"
      pointer-events="none"
    />
    <text x={held.x} y={held.y + 22} text-anchor="middle" font-size="13" fill="var(--coral)"
      >{held.over ? `into ${held.over.name}` : held.cord.name}</text
    >
  {/if}
</g>
