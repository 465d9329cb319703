// What trays ask of their spots, day by day, against what the room has.
import type { Assessment } from '../api/client';

export interface Lane {
  kind: 'warm' | 'light' | 'outdoors';
  name: string;
  /** Spots that the room has. */
  spots: number;
  /** Trays that want one, by the season's days. */
  days: { date: string; trays: number }[];
  /** The most of them on one day. */
  most: number;
}

const NAMES = {
  warm: 'Warm spots',
  light: 'Lit spots',
  outdoors: 'Cold frame',
} as const;

/** A lane for each sort of spot that the season asks for; nobody needs a cold frame. */
export function lanes(season: Assessment['season']): Lane[] {
  const kinds = ['warm', 'light', 'outdoors'] as const;
  return kinds
    .map((kind) => {
      const days = season.days.map(({ date, demand }) => ({ date, trays: demand[kind] }));
      const most = Math.max(0, ...days.map((day) => day.trays));
      return { kind, name: NAMES[kind], spots: season.spots[kind], days, most };
    })
    .filter((lane) => lane.most > 0 && (lane.kind !== 'outdoors' || lane.spots > 0));
}

/** The spans of days on which more trays want a spot than there are. */
export function tooMany(
  lane: Pick<Lane, 'spots' | 'days'>,
): { from: string; to: string; short: number }[] {
  const found: { from: string; to: string; short: number }[] = [];
  let open: { from: string; to: string; short: number } | undefined;
  for (const { date, trays } of lane.days) {
    if (trays <= lane.spots) {
      open = undefined;
      continue;
    }
    if (!open) found.push((open = { from: date, to: date, short: 0 }));
    open.to = date;
    open.short = Math.max(open.short, trays - lane.spots);
  }
  return found;
}
