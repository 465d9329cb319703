<script lang="ts">
  // A grip on an edge: dragged along one axis, or moved by arrow keys. Values are in mm.
  import { drag, steps } from '../../fields/slider';
  import { stage } from '../canvas/stage.svelte';

  interface Props {
    label: string;
    x: number;
    y: number;
    axis: 'x' | 'y';
    value: number;
    least: number;
    most: number;
    /** From one value that it can have to the next. */
    step: number;
    text: string;
    onmove: (value: number, byKey: boolean) => void;
    onend: () => void;
  }
  const { label, x, y, axis, value, least, most, step, text, onmove, onend }: Props = $props();

  const bounded = $derived((mm: number) => {
    const first = Math.ceil(least / step - 1e-6) * step;
    const last = Math.floor(most / step + 1e-6) * step;
    const snapped = Math.round(mm / step) * step;
    return Number(Math.min(Math.max(snapped, Math.min(first, last)), last).toFixed(2));
  });

  function grab(event: PointerEvent) {
    event.preventDefault();
    event.stopPropagation();
    (event.currentTarget as SVGElement).focus();
    const start = value;
    const move = ({ dx, dy }: { dx: number; dy: number }) => {
      const next = bounded(start + (axis === 'x' ? dx : dy) / stage.shown);
      if (next !== value) onmove(next, false);
    };
    drag(event, move, onend);
  }

  function key(event: KeyboardEvent) {
    if (event.shiftKey) return;
    const by = steps(event);
    if (by === undefined) return;
    const next = bounded(value + by * step);
    if (next !== value) onmove(next, true);
  }
</script>

<g
  role="slider"
  tabindex="0"
  data-grab
  aria-label={label}
  aria-orientation={axis === 'x' ? 'horizontal' : 'vertical'}
  aria-valuemin={least}
  aria-valuemax={most}
  aria-valuenow={value}
  aria-valuetext={text}
  class="touch-none outline-none {axis === 'x' ? 'cursor-ew-resize' : 'cursor-ns-resize'}"
  onpointerdown={grab}
  onkeydown={key}
>
  <!-- Room for a thumb. -->
  <circle cx={x} cy={y} r="18" fill="transparent" />
  <circle
    class="grip"
    cx={x}
    cy={y}
    r="9"
    fill="var(--raised)"
    stroke="var(--coral)"
    stroke-width="2"
  />
  <path
    d={axis === 'x'
      ? `M${x - 2} ${y - 3}l-3 3l3 3M${x + 2} ${y - 3}l3 3l-3 3`
      : `M${x - 3} ${y - 2}l3 -3l3 3M${x - 3} ${y + 2}l3 3l3 -3`}
    fill="none"
    stroke="var(--coral)"
    stroke-width="1.8"
  />
</g>

<style>
  g:focus-visible .grip {
    stroke-width: 5;
  }
</style>
