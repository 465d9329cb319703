// Every key, once: the handler, the help and the tooltips read the same list.
import { goto } from '$app/navigation';
import { bench } from '../workbench.svelte';
import { shell } from './shell.svelte';

export interface Key {
  key: string;
  does: string;
  run: () => void;
}

export const keys: Key[] = [
  { key: '2', does: 'Room', run: () => void goto(`/${location.search}`) },
  { key: '[', does: 'one day back', run: () => bench.step(-1) },
  { key: ']', does: 'one day on', run: () => bench.step(1) },
  { key: '{', does: 'one week back', run: () => bench.step(-7) },
  { key: '}', does: 'one week on', run: () => bench.step(7) },
  { key: '.', does: 'today, or the season’s nearest day', run: () => bench.today() },
  { key: 'u', does: 'undo', run: () => void bench.undo() },
  { key: 'U', does: 'redo', run: () => void bench.redo() },
  { key: '/', does: 'find a crop, tray, bay or finding', run: () => (shell.finding = true) },
  { key: '?', does: 'all keys', run: () => (shell.help = true) },
  { key: 'Escape', does: 'close', run: () => bench.select(undefined) },
];

/** Keys that act where the focus is; the help lists them too. */
export const localKeys = [
  { key: '↑ ↓', does: 'raise and lower the selected lamp; Shift for bigger steps' },
  { key: '← →', does: 'move the date, or the last frost, on the ribbon' },
  { key: 'Enter', does: 'open the bay in focus' },
];

export function onKey(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
  const target = event.target as HTMLElement;
  if (target.closest('input, textarea, select, dialog, [contenteditable]')) return;
  const key = keys.find((k) => k.key === event.key);
  if (!key) return;
  event.preventDefault();
  key.run();
}
