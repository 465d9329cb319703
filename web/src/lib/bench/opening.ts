// The day that a plan is opened on.
import { isDay } from '../say/dates';
import type { Words } from '../say/words';

/** What to say where the address asks for another day than the one that is shown. */
export function notedDay(asked: string | null, shown: string, words: Words): string | undefined {
  if (!asked || asked === shown) return undefined;
  const day = words.date(shown);
  return isDay(asked)
    ? `${words.longDate(asked)} is outside this season. This is ${day}.`
    : `“${asked}” in the address is not a day. This is ${day}.`;
}
