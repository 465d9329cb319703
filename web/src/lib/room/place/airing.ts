// How what is closed is aired, as it is chosen and said.
import type { Place, Schemas } from '../../api/client';

export type Airing = Schemas['Airing'];

export type Aired = 'never' | 'hours' | 'warm';

export const airings: Record<Aired, string> = {
  never: 'kept shut',
  hours: 'open by the clock',
  warm: 'open when it is warm inside',
};

/** What is begun with; undefined where it stays shut. */
export function begun(aired: Aired): Airing | undefined {
  if (aired === 'never') return undefined;
  const gap_mm = 50;
  return aired === 'hours'
    ? { gap_mm, from_h: 8, hours: 12 }
    : { gap_mm, from_h: 0, hours: 24, over_c: 26 };
}

/** Whether some of it can be closed and aired. */
export function isClosed(place: Place): boolean {
  const shutIn = place.tiers.some((tier) =>
    (['left', 'right', 'back', 'front'] as const).every((side) => tier.sides[side] !== 'open'),
  );
  return 'chamber' in place.kind || ('closet' in place.kind && !!place.kind.closet.shut) || shutIn;
}
