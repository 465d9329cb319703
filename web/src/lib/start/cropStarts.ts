// Crops to choose from, with the day that each would be sown here.
import type { CropStart } from '../api/client';
import type { Words } from '../say/words';
import { matching, nameAndNumber } from './asked';

/** Plants of a crop where nobody says how many. */
export const USUAL_PLANTS = 6;
const MOST = 6;

/** The crops that somebody who typed `text` may mean, the best first, and how many plants of them. */
export function askedFor(starts: CropStart[], text: string) {
  const { name, number } = nameAndNumber(text);
  const exact = (start: CropStart) => Number(start.name.toLowerCase() === name.toLowerCase());
  const found = matching(starts, name, (start) => `${start.name} ${start.also_called.join(' ')}`);
  const hits = found.sort((a, b) => exact(b) - exact(a)).slice(0, MOST);
  return { hits, plants: number ?? USUAL_PLANTS };
}

/** Where and when it is sown, in a few words. */
export function sownWhen(start: CropStart, words: Words): string {
  return start.start === 'outdoors'
    ? 'better sown outdoors'
    : `sow about ${words.shortDate(start.sow)}`;
}
