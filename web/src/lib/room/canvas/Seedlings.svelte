<script lang="ts">
  // Seedlings in a tray, drawn as they are: at their height, as wide as their leaves spread, on thin stems
  // where they have stretched, overlapping where they are crowded. Line work that tells kinds apart by
  // their habit.
  import type { Habit } from '../../api/client';

  interface Props {
    habit: Habit;
    x: number;
    width: number;
    /** The rim, where stems begin. */
    y: number;
    /** Height of the plants in px. */
    height: number;
    /** How wide their leaves spread in px; left out, as wide as suits their height. */
    spread?: number | undefined;
    /** Their height against that of sturdy ones. */
    stretched?: number;
    count: number;
  }
  const { habit, x, width, y, height, spread, stretched = 1, count }: Props = $props();

  /** Leaves wider than this against their room are drawn no wider. */
  const CROWDED = 1.5;
  const STEM_PX = 1.4;
  const stem = $derived(Math.max(0.7, Math.min(1.8, STEM_PX / stretched)));

  // Too small to draw is still there to see.
  const tall = $derived(Math.max(height, 4));
  const spots = $derived(Array.from({ length: count }, (_, i) => x + (width * (i + 0.5)) / count));

  function shape(cx: number): string {
    const room = (width / count) * 0.48;
    const leaf =
      spread === undefined
        ? Math.min(tall * 0.45, room, 11)
        : Math.max(Math.min(spread / 2, room * CROWDED, 14), 1.5);
    const top = y - tall;
    if (habit === 'grass') {
      return `M${cx} ${y}Q${cx - 1} ${y - tall * 0.6} ${cx - leaf * 0.5} ${top}M${cx} ${y}L${cx} ${top + tall * 0.15}M${cx} ${y}Q${cx + 1} ${y - tall * 0.6} ${cx + leaf * 0.5} ${top}`;
    }
    const pair = (at: number, size: number, lift: number) =>
      `M${cx} ${at}q${-size * 0.6} ${-lift} ${-size} ${-lift * 0.4}q${size * 0.4} ${lift * 0.9} ${size} ${lift * 0.4}` +
      `q${size * 0.6} ${-lift} ${size} ${-lift * 0.4}q${-size * 0.4} ${lift * 0.9} ${-size} ${lift * 0.4}z`;
    if (habit === 'rosette') {
      return (
        `M${cx} ${y}V${top + tall * 0.4}` +
        pair(y - tall * 0.35, leaf, tall * 0.75) +
        pair(y - tall * 0.5, leaf * 0.6, tall * 0.6)
      );
    }
    if (habit === 'bushy') {
      const branch = (side: number) =>
        `M${cx} ${y - tall * 0.25}Q${cx + side * leaf * 0.7} ${y - tall * 0.4} ${cx + side * leaf * 0.8} ${y - tall * 0.8}`;
      return (
        `M${cx} ${y}V${top}${branch(-1)}${branch(1)}` +
        pair(top + 2, leaf * 0.7, Math.min(leaf, 5)) +
        pair(y - tall * 0.5, leaf, Math.min(leaf, 5))
      );
    }
    if (habit === 'climbing') {
      // A stem that bends over, with a large leaf on either side and a tendril.
      const bend = leaf * 0.6;
      return (
        `M${cx} ${y}C${cx} ${y - tall * 0.5} ${cx + bend} ${y - tall * 0.6} ${cx + bend * 0.5} ${top}` +
        `q${bend * 0.8} ${-2} ${bend} ${tall * 0.18}` +
        pair(y - tall * 0.45, leaf * 1.1, Math.min(leaf, 7))
      );
    }
    let path = `M${cx} ${y}V${top}`;
    const pairs = Math.max(1, Math.min(4, Math.floor(tall / 10)));
    for (let i = 0; i < pairs; i++) {
      path += pair(y - (tall * (i + 1)) / pairs + 1, leaf * (1 - i * 0.12), Math.min(leaf, 6));
    }
    return path;
  }
</script>

<g
  stroke="var(--sage)"
  stroke-width={stem}
  stroke-linecap="round"
  stroke-linejoin="round"
  fill={habit === 'grass' ? 'none' : 'var(--sage)'}
  aria-hidden="true"
>
  <path d={spots.map(shape).join('')} />
</g>
