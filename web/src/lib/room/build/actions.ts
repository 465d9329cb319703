// What can be done with what is picked: the same from buttons, keys and sheets.
import type { Thing } from '../../api/client';
import { bench } from '../../bench/workbench.svelte';

export function build() {
  bench.building = !bench.building;
  bench.hand.pickingMore = false;
}

export async function again(things: Thing[] = bench.hand.picked) {
  if (things.length === 0) return bench.tell('done', 'Select what to add another of first.');
  await bench.edit({ again: { things } });
}

export async function takeOut(things: Thing[] = bench.hand.picked) {
  if (things.length === 0) return bench.tell('done', 'Select what to remove first.');
  await bench.edit({ remove: { things } });
}

/** Moves a place along the row by so many steps. */
export async function movePlace(id: string, by: number) {
  const from = bench.places.findIndex((place) => place.id === id);
  const to = Math.min(Math.max(from + by, 0), bench.places.length - 1);
  if (from >= 0 && to !== from) await bench.edit({ move_place: { place: id, to } });
}
