// What was seen last, kept on the device: a phone in a cellar opens with it.
import { get, set } from 'idb-keyval';
import type { Forms, PlanView, Today, Told, UnitRow } from '../api/client';

interface Seen {
  view: PlanView;
  units: UnitRow[];
  forms: Forms | undefined;
}

/** A day's walk with what was noted on it. */
export interface SeenDay {
  today: Today;
  noted: Told[];
}

const SEEN = 'seen';

/** A browser that lets nothing be kept goes without: it needs the server then. */
async function kept<T>(key: string): Promise<T | undefined> {
  try {
    return await get<T>(key);
  } catch {
    return undefined;
  }
}

async function keep(key: string, value: unknown) {
  try {
    await set(key, value);
  } catch {
    // It is a convenience: nothing of the plan is lost without it.
  }
}

export const lastSeen = () => kept<Seen>(SEEN);

export async function keepSeen(seen: { view: PlanView | undefined } & Omit<Seen, 'view'>) {
  if (seen.view) await keep(SEEN, seen);
}

const dayKey = (plan: number, on: string) => `day/${plan}/${on}`;

export const seenDay = (plan: number, on: string) => kept<SeenDay>(dayKey(plan, on));
export const keepDay = (plan: number, on: string, day: SeenDay) => keep(dayKey(plan, on), day);

/** Photos that were taken and are still to be sent. */
export const keepPhoto = (name: string, photo: Blob) => keep(`photo/${name}`, photo);
export const photoOf = (name: string) => kept<Blob>(`photo/${name}`);
export const forgetPhoto = (name: string) => keep(`photo/${name}`, undefined);
