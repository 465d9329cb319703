// By how many days an edit moved what is to be sown.
import type { SowingDates } from '../api/client';
import { daysBetween } from '../say/dates';
import { movedBy } from '../say/words';

/** The sowings that moved most, in words; undefined when none did. */
export function movedSowings(
  kept: SowingDates[] | undefined,
  now: SowingDates[],
): string | undefined {
  const before = new Map(kept?.map((dates) => [dates.sowing, dates.sow]));
  const moved = now
    .map((dates) => ({
      name: dates.name,
      days: daysBetween(before.get(dates.sowing) ?? dates.sow, dates.sow),
    }))
    .filter(({ days }) => days !== 0);
  if (moved.length === 0) return undefined;
  moved.sort((a, b) => Math.abs(b.days) - Math.abs(a.days));
  const said = moved.slice(0, 2).map(({ name, days }) => `${name} ${movedBy(days)}`);
  if (moved.length > 2) said.push(`${moved.length - 2} more`);
  return said.join('; ');
}
