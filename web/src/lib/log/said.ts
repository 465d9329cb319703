// What was noted, in words.
import type { About, BayRef, Entry, Fact, Measurement, Plan } from '../api/client';
import type { Words } from '../say/words';

/** The names that a plan gives to trays, shelves and sowings. */
export class Names {
  constructor(private plan: Plan | undefined) {}

  tray(id: string): string {
    return this.plan?.trays.find((tray) => tray.id === id)?.name ?? id;
  }

  bay({ place, tier }: BayRef): string {
    const own = this.plan?.places.find((p) => p.id === place);
    if (!own) return `${place}, ${tier}`;
    if (own.tiers.length === 1) return own.name;
    return `${own.name}, ${own.tiers.find((t) => t.id === tier)?.name ?? tier}`;
  }

  about(about: About): string {
    if (about === 'room') return 'the room';
    if ('tray' in about) return this.tray(about.tray);
    return this.bay('spot' in about ? about.spot.bay : about.bay);
  }

  /** A job by what it is called in the log. */
  job(id: string): string {
    const [what, ...of] = id.split('/');
    const named = of
      .map((part) => {
        const place = this.plan?.places.find((p) => p.id === part);
        const sowing = this.plan?.sowings.find((s) => s.id === part);
        return place?.name ?? sowing?.variety ?? (part === 'room' ? '' : part);
      })
      .filter(Boolean);
    return [JOBS[what!] ?? what!.replaceAll('-', ' '), ...named].join(' · ');
  }
}

const JOBS: Record<string, string> = {
  turn: 'turn trays',
  gnats: 'look for gnats and mould',
  clean: 'wash what was emptied',
  count: 'count what is up',
  water: 'water',
  lamps: 'set lamps',
  frost: 'bring in for frost',
  out: 'harden off',
  in: 'bring in',
  'feed-all': 'feed',
};

export const LOSSES = {
  damping_off: 'damping off',
  dry: 'too dry',
  cold: 'cold or frost',
  heat: 'heat or scorch',
  pests: 'pests',
  accident: 'an accident',
  other: 'something else',
} as const;

export const READINGS = {
  soil_c: { name: 'Temperature of the mix', quantity: 'temperature_c' },
  air_c: { name: 'Temperature of the air', quantity: 'temperature_c' },
  humidity: { name: 'Humidity', quantity: 'share' },
  lux: { name: 'Light meter', quantity: 'illuminance_lux' },
  ppfd: { name: 'PPFD', quantity: 'ppfd_umol_m2_s' },
  height_mm: { name: 'Height of the plants', quantity: 'length_mm' },
  mass_kg: { name: 'Weight of the tray', quantity: 'mass_kg' },
} as const;
export type ReadingKind = keyof typeof READINGS;

/** Which instrument, and what it shows. */
export function readingOf(measurement: Measurement): [ReadingKind, number] {
  return Object.entries(measurement)[0] as [ReadingKind, number];
}

/** The kinds of facts as filters and forms name them. */
export const KINDS = {
  sown: 'Sown',
  shown: 'Counted',
  thinned: 'Thinned',
  pricked_out: 'Pricked out',
  potted_on: 'Potted on',
  moved: 'Moved',
  watered: 'Watered',
  fed: 'Fed',
  lamp_set: 'Lamps set',
  mat_switched: 'Mat switched',
  dome: 'Dome',
  hardening: 'Hardening off',
  planted_out: 'Planted out',
  lost: 'Lost',
  measured: 'Measured',
  done: 'Job done',
  put_off: 'Put off',
  skipped: 'Skipped',
  noted: 'Note',
} as const;
export type FactKind = keyof typeof KINDS;

export function kindOf(fact: Fact): FactKind {
  return Object.keys(fact)[0] as FactKind;
}

/** A fact in a sentence. */
export function said(fact: Fact, names: Names, words: Words): string {
  if ('sown' in fact) return `Sowed ${names.tray(fact.sown.tray)}`;
  if ('shown' in fact)
    return `${names.tray(fact.shown.tray)}: ${fact.shown.count} of ${fact.shown.of} up`;
  if ('thinned' in fact)
    return `Thinned ${names.tray(fact.thinned.tray)}: ${fact.thinned.left} left`;
  if ('pricked_out' in fact) {
    const { tray, into, plants } = fact.pricked_out;
    return `Pricked out ${plants} from ${names.tray(tray)} into ${names.tray(into)}`;
  }
  if ('potted_on' in fact) {
    const { tray, into, plants } = fact.potted_on;
    return `Potted on ${plants} from ${names.tray(tray)} into ${names.tray(into)}`;
  }
  if ('moved' in fact)
    return `Moved ${names.tray(fact.moved.tray)} to ${names.bay(fact.moved.bay)}`;
  if ('watered' in fact) {
    const { tray, water_ml } = fact.watered;
    const much = water_ml == null ? '' : `: ${words.number(water_ml, 'volume_ml')}`;
    return `Watered ${names.tray(tray)}${much}`;
  }
  if ('fed' in fact)
    return `Fed ${names.tray(fact.fed.tray)} at ${words.number(fact.fed.strength, 'share')} strength`;
  if ('lamp_set' in fact) {
    const { bay, height_mm, hours_h } = fact.lamp_set;
    return `Set the lamps of ${names.bay(bay)}: ${words.number(height_mm, 'length_mm')}, ${words.number(hours_h, 'hours')} a day`;
  }
  if ('mat_switched' in fact)
    return `Mat of ${names.bay(fact.mat_switched.bay)} ${fact.mat_switched.on ? 'on' : 'off'}`;
  if ('dome' in fact) {
    const how = { on: 'put on', vented: 'vented', off: 'off' }[fact.dome.dome];
    return `Dome of ${names.tray(fact.dome.tray)} ${how}`;
  }
  if ('hardening' in fact)
    return `${names.tray(fact.hardening.tray)} ${fact.hardening.outdoors ? 'out to harden off' : 'back in'}`;
  if ('planted_out' in fact)
    return `Planted out ${fact.planted_out.plants} from ${names.tray(fact.planted_out.tray)}`;
  if ('lost' in fact)
    return `Lost ${fact.lost.plants} in ${names.tray(fact.lost.tray)}: ${LOSSES[fact.lost.why]}`;
  if ('measured' in fact) {
    const [kind, value] = readingOf(fact.measured.reading);
    const { name, quantity } = READINGS[kind];
    return `${name}, ${names.about(fact.measured.about)}: ${words.number(value, quantity)}`;
  }
  if ('done' in fact) return `Done: ${names.job(fact.done.job)}`;
  if ('put_off' in fact)
    return `Put off until ${words.shortDate(fact.put_off.until)}: ${names.job(fact.put_off.job)}`;
  if ('skipped' in fact) return `Skipped: ${names.job(fact.skipped.job)}`;
  return `Note on ${names.about(fact.noted.about)}`;
}

/** The tray that an entry is about first; nothing where it is about none. */
export function trayOf(entry: Entry): string | undefined {
  const fact = entry.fact;
  if (!fact) return undefined;
  const own = Object.values(fact)[0] as { tray?: string; about?: About };
  if (own.tray) return own.tray;
  return typeof own.about === 'object' && 'tray' in own.about ? own.about.tray : undefined;
}
