// Days as people write them. Inside, a day is always 2027-05-06.
import type { DateForm, UnitSystem } from '../api/client';

const DAY_MS = 86_400_000;

export function plusDays(iso: string, days: number): string {
  return new Date(Date.parse(`${iso}T00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);
}

export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00Z`) - Date.parse(`${from}T00:00Z`)) / DAY_MS);
}

export function clampDate(iso: string, from: string, to: string): string {
  return iso < from ? from : iso > to ? to : iso;
}

/** Whether it is a day of the calendar, written as 2027-05-06. */
export function isDay(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const time = Date.parse(`${text}T00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text);
}

/** Whether days are written May 6, and times 10:30 pm: where nothing is said, as inches go. */
export function monthFirst(form: DateForm | null | undefined, system: UnitSystem): boolean {
  return form ? form === 'month_first' : system === 'us';
}

const MONTHS = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
];

/**
 * A day as somebody wrote it; undefined when it is none. Without a year it is the one nearest to
 * `near`. Of two numbers the first is the day, or where `monthFirst` is so, the month.
 */
export function readDate(text: string, near: string, monthFirst: boolean): string | undefined {
  const written = text.trim().toLowerCase();
  if (isDay(written)) return written;
  const parts = written.match(/[a-z]+|\d+/g) ?? [];
  // "Thu 6 May": the weekday follows from the rest.
  const words = parts.filter((part) => /[a-z]/.test(part));
  const numbers = parts.filter((part) => /\d/.test(part)).map(Number);
  const named = words
    .map((word) => (word.length < 3 ? -1 : MONTHS.findIndex((month) => month.startsWith(word))))
    .find((month) => month >= 0);
  let day: number | undefined;
  let month: number | undefined;
  let year: number | undefined;
  if (named !== undefined) {
    month = named + 1;
    [day, year] = numbers;
  } else if (words.length === 0 && monthFirst) {
    [month, day, year] = numbers;
  } else if (words.length === 0) {
    [day, month, year] = numbers;
  }
  if (day === undefined || month === undefined || numbers.length > 3) return undefined;
  const full = (year: number) =>
    `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
  if (year !== undefined) {
    const iso = full(year < 100 ? 2000 + year : year);
    return isDay(iso) ? iso : undefined;
  }
  const around = Number(near.slice(0, 4));
  const days = [around - 1, around, around + 1].map(full).filter(isDay);
  const away = (iso: string) => Math.abs(daysBetween(near, iso));
  return days.sort((a, b) => away(a) - away(b))[0];
}

/** A time of day as somebody wrote it, in hours after midnight: 22:30, 22.30, 2230, 10:30 pm, 10 pm. */
export function readTime(text: string): number | undefined {
  const found = /^(\d{1,2})(?:[:.h ]?(\d{2}))?\s*([ap])?\.?m?\.?$/i.exec(text.trim());
  if (!found) return undefined;
  const [h, m, half] = [Number(found[1]), Number(found[2] ?? 0), found[3]?.toLowerCase()];
  if (m > 59 || h > (half ? 12 : 24) || (half && h === 0) || (h === 24 && m > 0)) return undefined;
  const hour = half ? (h % 12) + (half === 'p' ? 12 : 0) : h % 24;
  return hour + m / 60;
}
