// Carrying something over the room by mouse or finger, into a bay.
import type { BayRef } from '../api/client';
import { drag } from '../fields/slider';

const TAP_PX = 8;

/** Where something was let go: in a bay, anywhere in the room, or beside it. */
export interface Dropped {
  bay: BayRef | undefined;
  /** How far along that bay, from 0 at its left edge to 1. */
  at: number;
  inRoom: boolean;
}

class Carry {
  /** What is carried, and where the hand is on the screen. */
  now: { name: string; x: number; y: number } | undefined = $state();
  /** The bay that it is over, as `place/tier`. */
  over = $state('');
  /** How far along that bay it is, from 0 at its left edge to 1. */
  at = $state(0);
  #dragged = false;

  /** Follows a press until it is let go; a tap is none. */
  press(
    pressed: PointerEvent,
    name: string,
    drop: (where: Dropped) => void,
    hand: { taken?: () => void; letGo?: () => void } = {},
  ) {
    if (pressed.button !== 0) return;
    this.#dragged = false;
    const move = ({ event }: { event: PointerEvent }) => {
      if (!this.#dragged) hand.taken?.();
      this.#dragged = true;
      this.now = { name, x: event.clientX, y: event.clientY };
      const { bay, at } = under(event);
      this.over = bay;
      this.at = at;
    };
    const release = (moved: boolean, event: PointerEvent) => {
      this.now = undefined;
      this.over = '';
      hand.letGo?.();
      // The click of this very press comes before any timer; a later one is another matter.
      setTimeout(() => (this.#dragged = false));
      if (!moved || event.type === 'pointercancel') return;
      const { bay, at, inRoom } = under(event);
      const [place, tier] = bay.split('/');
      drop({ bay: place && tier ? { place, tier } : undefined, at, inRoom });
    };
    drag(pressed, move, release, TAP_PX);
  }

  /** Whether the click that follows a press ends a drag and means nothing. */
  wasDragged(): boolean {
    return this.#dragged;
  }
}

function under(event: PointerEvent) {
  const elements = document.elementsFromPoint(event.clientX, event.clientY);
  const bay = elements.find((element) => element.hasAttribute('data-bay'));
  const box = bay?.getBoundingClientRect();
  return {
    at: box && box.width > 0 ? (event.clientX - box.left) / box.width : 0,
    bay: bay?.getAttribute('data-bay') ?? '',
    inRoom: elements.some((element) => element.matches('[data-testid=stage]')),
  };
}

export const carry = new Carry();
