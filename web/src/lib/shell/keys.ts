// Every key, once: the handler, the help and the tooltips read the same list.
import { goto } from '$app/navigation';
import { again, build, takeOut } from '../room/build/actions';
import { stage } from '../room/canvas/stage.svelte';
import { bench } from '../bench/workbench.svelte';
import { shell } from './shell.svelte';
import { views } from './views';

export interface Key {
  key: string;
  does: string;
  run: () => void;
}

export const keys: Key[] = [
  ...views
    .filter((view) => view.key)
    .map(({ key, name, href }) => ({
      key,
      does: name,
      run: () => void goto(`${href}${location.search}`),
    })),
  { key: 'b', does: 'build: drag sizes and decks, add things', run: () => build() },
  { key: 'a', does: 'add another of what is selected', run: () => void again() },
  { key: 's', does: 'sow something', run: () => (shell.sowing = {}) },
  { key: 'Delete', does: 'remove what is selected', run: () => void takeOut() },
  { key: '+', does: 'nearer', run: () => stage.zoomBy(1.25) },
  { key: '-', does: 'further away', run: () => stage.zoomBy(0.8) },
  { key: '0', does: 'the whole room, and back', run: () => stage.toggleWhole() },
  { key: '[', does: 'one day back', run: () => bench.step(-1) },
  { key: ']', does: 'one day on', run: () => bench.step(1) },
  { key: '{', does: 'one week back', run: () => bench.step(-7) },
  { key: '}', does: 'one week on', run: () => bench.step(7) },
  { key: '.', does: 'today, or the season’s nearest day', run: () => bench.today() },
  { key: 'u', does: 'undo', run: () => void bench.undo() },
  { key: 'U', does: 'redo', run: () => void bench.redo() },
  { key: '/', does: 'find a crop, tray, place or finding', run: () => (shell.finding = true) },
  { key: '?', does: 'all keys', run: () => (shell.help = true) },
  { key: 'Escape', does: 'close', run: () => bench.select(undefined) },
];

/** Keys that act where the focus is; the help lists them too. */
export const localKeys = [
  { key: '↑ ↓', does: 'raise and lower the selected lamp; Shift for bigger steps' },
  { key: 'Shift ← →', does: 'move the room’s view; Shift ↑ ↓ too, where no lamp is selected' },
  { key: 'Shift Enter', does: 'pick one more thing' },
  { key: '← →', does: 'move the date or the last frost on the season bar, or a sowing in its row' },
  { key: 'Enter', does: 'open the bay in focus' },
];

/** So long after a dialog closed keys may still have been meant for it. */
const AFTER_DIALOG_MS = 700;

export function onKey(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
  // Nothing in a plan is changed by what was still meant for a dialog.
  const written = /^\p{L}$/u.test(event.key);
  if (shell.open || (written && performance.now() - shell.closedAt < AFTER_DIALOG_MS)) return;
  const target = event.target as HTMLElement;
  if (target.closest('input, textarea, select, dialog, [contenteditable]')) return;
  const key = keys.find((k) => k.key === event.key);
  if (!key) return;
  event.preventDefault();
  key.run();
}
