/** Follows a pressed pointer over the whole window until it is let go: what was pressed may move,
 * or be drawn anew, under the hand. */
export function follow(
  move: (event: PointerEvent) => void,
  release: (event: PointerEvent) => void,
): void {
  const end = (event: PointerEvent) => {
    window.removeEventListener('pointermove', move);
    window.removeEventListener('pointerup', end);
    window.removeEventListener('pointercancel', end);
    release(event);
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', end);
  window.addEventListener('pointercancel', end);
}
