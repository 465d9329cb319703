// Dragging and arrow keys, written once: whatever slides takes both from here.

export interface Dragged {
  /** From where it was pressed, in px; up is positive. */
  dx: number;
  dy: number;
  event: PointerEvent;
}

/**
 * Follows a pressed pointer over the whole window until it is let go: what was pressed may move, or be
 * drawn anew, under the hand. A press that goes less than `least` px is a tap.
 */
export function drag(
  pressed: PointerEvent,
  move: (dragged: Dragged) => void,
  end: (moved: boolean, event: PointerEvent) => void,
  least = 0,
): void {
  let moved = false;
  const follow = (event: PointerEvent) => {
    const dx = event.clientX - pressed.clientX;
    const dy = pressed.clientY - event.clientY;
    if (!moved && Math.hypot(dx, dy) < least) return;
    moved = true;
    move({ dx, dy, event });
  };
  const release = (event: PointerEvent) => {
    window.removeEventListener('pointermove', follow);
    window.removeEventListener('pointerup', release);
    window.removeEventListener('pointercancel', release);
    end(moved, event);
  };
  window.addEventListener('pointermove', follow);
  window.addEventListener('pointerup', release);
  window.addEventListener('pointercancel', release);
}

const ACROSS: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1 };
const UPRIGHT: Record<string, number> = { ArrowDown: -1, ArrowUp: 1 };

/** Where an arrow key leads: right and up are positive; undefined for any other key. */
export function direction(event: KeyboardEvent): { x: number; y: number } | undefined {
  const [x, y] = [ACROSS[event.key], UPRIGHT[event.key]];
  return x === undefined && y === undefined ? undefined : { x: x ?? 0, y: y ?? 0 };
}

/**
 * The steps that a key takes along one line: right and up are more, left and down less, the page keys
 * `page` at once. The key is then spent; undefined for any other.
 */
export function steps(event: KeyboardEvent, page = 10): number | undefined {
  const pages: Record<string, number> = { PageUp: page, PageDown: -page };
  const taken = ACROSS[event.key] ?? UPRIGHT[event.key] ?? pages[event.key];
  if (taken === undefined) return undefined;
  event.preventDefault();
  event.stopPropagation();
  return taken;
}
