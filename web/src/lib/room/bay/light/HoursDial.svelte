<script lang="ts">
  // The day as a dial, noon at the top: when the lamps burn, when people sleep, when a kWh is
  // cheap. The hours are turned by hand or with the arrow keys.
  import { drag, steps } from '../../../fields/slider';
  import type { ClockSpan } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';

  interface Props {
    fromH: number;
    hours: number;
    quiet: ClockSpan | undefined;
    cheap: ClockSpan | undefined;
    /** Where the hours had best begin. */
    bestH: number | undefined;
    onturn: (fromH: number) => void;
  }
  const { fromH, hours, quiet, cheap, bestH, onturn }: Props = $props();

  const SIZE = 168;
  const MIDDLE = SIZE / 2;
  const STEP_H = 0.5;
  const words = $derived(bench.words);
  const time = $derived((hour: number) => words.number(hour, 'clock_h'));
  /** Turned while the hand is down, before it is kept. */
  let turned: number | undefined = $state();
  const start = $derived(turned ?? fromH);
  const id = $props.id();

  const at = (hour: number, radius: number) => {
    const angle = ((hour - 12) / 24) * 2 * Math.PI;
    return [MIDDLE + radius * Math.sin(angle), MIDDLE - radius * Math.cos(angle)] as const;
  };

  /** A band from one hour on, between two radii. */
  function band(from: number, length: number, inner: number, outer: number): string {
    if (length <= 0) return '';
    const to = from + Math.min(length, 23.999);
    const large = length > 12 ? 1 : 0;
    const corner = (hour: number, r: number) =>
      at(hour, r)
        .map((v) => v.toFixed(2))
        .join(' ');
    return (
      `M${corner(from, outer)}A${outer} ${outer} 0 ${large} 1 ${corner(to, outer)}` +
      `L${corner(to, inner)}A${inner} ${inner} 0 ${large} 0 ${corner(from, inner)}Z`
    );
  }
  const length = (span: ClockSpan) => (span.to_h - span.from_h + 24) % 24;

  let svg: SVGSVGElement | undefined = $state();

  function hourUnder(event: PointerEvent): number {
    const box = svg!.getBoundingClientRect();
    const x = event.clientX - box.left - box.width / 2;
    const y = event.clientY - box.top - box.height / 2;
    return 12 + (Math.atan2(x, -y) / (2 * Math.PI)) * 24;
  }
  const snapped = (hour: number) => (((Math.round(hour / STEP_H) * STEP_H) % 24) + 24) % 24;

  function grab(event: PointerEvent) {
    event.preventDefault();
    const grabbedAt = hourUnder(event) - fromH;
    turned = fromH;
    const turn = ({ event: e }: { event: PointerEvent }) =>
      (turned = snapped(hourUnder(e) - grabbedAt));
    const end = () => {
      const to = turned;
      turned = undefined;
      if (to !== undefined && to !== fromH) onturn(to);
    };
    drag(event, turn, end);
  }
  function key(event: KeyboardEvent) {
    const by = steps(event, 2);
    if (!by) return;
    onturn(snapped(fromH + by * STEP_H));
  }
</script>

<svg bind:this={svg} width={SIZE} height={SIZE} viewBox="0 0 {SIZE} {SIZE}" class="shrink-0">
  <defs>
    <pattern
      id="{id}-sleep"
      width="6"
      height="6"
      patternUnits="userSpaceOnUse"
      patternTransform="rotate(45)"
    >
      <path d="M0 3h6" stroke="var(--soft)" stroke-width="2" />
    </pattern>
  </defs>
  <circle cx={MIDDLE} cy={MIDDLE} r="57" fill="none" stroke="var(--line)" stroke-width="18" />
  {#if quiet}
    <path
      d={band(quiet.from_h, length(quiet), 70, 80)}
      fill="url(#{id}-sleep)"
      stroke="var(--soft)"
      stroke-width="1"
    />
  {/if}
  {#if cheap}
    <path d={band(cheap.from_h, length(cheap), 38, 44)} fill="var(--teal)" />
  {/if}
  <path
    d={band(start, hours, 48, 66)}
    fill="var(--straw)"
    stroke="var(--ink)"
    stroke-width="1"
    role="slider"
    tabindex="0"
    aria-label="Hours of light"
    aria-valuemin="0"
    aria-valuemax="24"
    aria-valuenow={start}
    aria-valuetext="from {time(start)} to {time((start + hours) % 24)}"
    style="cursor: grab; touch-action: none"
    onpointerdown={grab}
    onkeydown={key}
  />
  {#if bestH !== undefined && bestH !== start}
    {@const [x1, y1] = at(bestH, 46)}
    {@const [x2, y2] = at(bestH, 70)}
    <line {x1} {y1} {x2} {y2} stroke="var(--coral)" stroke-width="3" />
  {/if}
  {#each [0, 6, 12, 18] as hour (hour)}
    {@const [x, y] = at(hour, 27)}
    <text {x} y={y + 5} text-anchor="middle" font-size="14" fill="var(--soft)">{hour}</text>
  {/each}
</svg>
