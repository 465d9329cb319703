// Trays slide from the spot of the day before to that of the day: who scrubs sees what is carried where.
import { cubicOut } from 'svelte/easing';

/** The trays that are drawn, and where they were on the day before. */
const drawn: Record<string, SVGGElement> = {};
let before: Record<string, DOMRect> = {};

/** More trays than that are not followed. */
const MOST = 200;
const SLIDE_MS = 260;

const still = () =>
  typeof matchMedia === 'function' && matchMedia('(prefers-reduced-motion: reduce)').matches;

/** Remembers where all trays are drawn; to be called before another day is. */
export function remember() {
  before = {};
  const all = Object.entries(drawn);
  if (all.length > MOST || still()) return;
  for (const [tray, node] of all) before[tray] = node.getBoundingClientRect();
}

/** A tray that stood elsewhere in the room slides in from there. */
export function slides(node: SVGGElement, tray: string) {
  drawn[tray] = node;
  const from = before[tray];
  delete before[tray];
  const to = node.getBoundingClientRect();
  const scale = node.getScreenCTM()?.a ?? 0;
  if (!from || scale === 0 || still()) return { duration: 0 };
  const x = (from.left - to.left) / scale;
  const y = (from.top - to.top) / scale;
  return {
    duration: SLIDE_MS,
    easing: cubicOut,
    css: (_: number, left: number) => `transform: translate(${x * left}px, ${y * left}px)`,
  };
}

/** Keeps count of a tray's drawing while it is there. */
export function stands(node: SVGGElement, tray: string) {
  drawn[tray] = node;
  return {
    destroy() {
      if (drawn[tray] === node) delete drawn[tray];
    },
  };
}
