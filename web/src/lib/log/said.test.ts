import { describe, expect, it } from 'vitest';
import type { Entry, Fact, Plan, ShownUnit, UnitRow } from '../api/client';
import { Words, unitsFor } from '../say/words';
import { kindOf, KINDS, Names, said, trayOf } from './said';

const row = (quantity: UnitRow['quantity'], name: string, factor: number, decimals: number) => {
  const unit: ShownUnit = { unit: name, factor, offset: 0, decimals, step: 1 };
  return { quantity, metric: unit, us: unit, held: unit };
};
const units = [
  row('length_mm', 'cm', 0.1, 1),
  row('volume_ml', 'ml', 1, 0),
  row('share', '%', 100, 0),
  row('temperature_c', '°C', 1, 1),
  row('hours', 'h', 1, 1),
];

const plan = {
  trays: [
    { id: 'to1', name: 'To1' },
    { id: 'to2', name: 'To2' },
  ],
  places: [
    {
      id: 'door',
      name: 'Door rack',
      tiers: [
        { id: 't1', name: 'Tier 1' },
        { id: 't2', name: 'Tier 2' },
      ],
    },
    { id: 'bench', name: 'South bench', tiers: [{ id: 't1', name: 'Top' }] },
  ],
  sowings: [{ id: 'onion', variety: 'Mill Lane Brown' }],
} as unknown as Plan;
const names = new Names(plan);
const words = new Words(unitsFor(units, 'metric'), false, 'GBP', units);
const bay = { place: 'door', tier: 't2' };

const facts: [Fact, string][] = [
  [{ sown: { tray: 'to1' } }, 'Sowed To1'],
  [{ shown: { tray: 'to1', count: 22, of: 24 } }, 'To1: 22 of 24 up'],
  [{ thinned: { tray: 'to1', left: 20 } }, 'Thinned To1: 20 left'],
  [{ pricked_out: { tray: 'to1', into: 'to2', plants: 8 } }, 'Pricked out 8 from To1 into To2'],
  [{ potted_on: { tray: 'to1', into: 'to2', plants: 8 } }, 'Potted on 8 from To1 into To2'],
  [{ moved: { tray: 'to1', bay } }, 'Moved To1 to Door rack, Tier 2'],
  [{ watered: { tray: 'to1' } }, 'Watered To1'],
  [{ watered: { tray: 'to1', water_ml: 1200 } }, 'Watered To1: 1.2\u00a0l'],
  [{ fed: { tray: 'to1', strength: 0.25 } }, 'Fed To1 at 25% strength'],
  [{ mat_switched: { bay, on: false } }, 'Mat of Door rack, Tier 2 off'],
  [{ dome: { tray: 'to1', dome: 'vented' } }, 'Dome of To1 vented'],
  [{ hardening: { tray: 'to1', outdoors: true } }, 'To1 out to harden off'],
  [{ planted_out: { tray: 'to1', plants: 9 } }, 'Planted out 9 from To1'],
  [{ lost: { tray: 'to1', plants: 2, why: 'dry' } }, 'Lost 2 in To1: too dry'],
  [{ done: { job: 'turn/bench' } }, 'Done: turn trays · South bench'],
  [
    { put_off: { job: 'thin/onion', until: '2027-04-12' } },
    'Put off until 12 Apr: thin · Mill Lane Brown',
  ],
  [{ skipped: { job: 'gnats/room' } }, 'Skipped: look for gnats and mould'],
  [{ noted: { about: { bay: { place: 'bench', tier: 't1' } } } }, 'Note on South bench'],
];

describe('what was noted', () => {
  it.each(facts)('%o is said', (fact, expected) => {
    expect(said(fact, names, words)).toBe(expected);
    expect(KINDS[kindOf(fact)]).toBeTruthy();
  });

  it('gives readings and lamps in the reader’s units', () => {
    const soil: Fact = { measured: { about: { tray: 'to1' }, reading: { soil_c: 21.5 } } };
    expect(said(soil, names, words)).toMatch(/^Temperature of the mix, To1: 21\.5/);
    const lamps: Fact = { lamp_set: { bay, height_mm: 260, hours_h: 14 } };
    expect(said(lamps, names, words)).toMatch(/Door rack, Tier 2: 26/);
  });

  it('names a thing that is gone by its id, and finds the tray', () => {
    expect(said({ sown: { tray: 'gone' } }, names, words)).toBe('Sowed gone');
    const entry = (fact: Fact) => ({ id: 'e', on: '2027-04-09', fact }) as Entry;
    expect(trayOf(entry({ sown: { tray: 'to1' } }))).toBe('to1');
    expect(trayOf(entry({ noted: { about: { tray: 'to2' } } }))).toBe('to2');
    expect(trayOf(entry({ noted: { about: 'room' } }))).toBeUndefined();
  });
});

describe('what was measured at a spot of a shelf', () => {
  const spot = { spot: { bay, x_mm: 450, y_mm: 200 } };
  const fact: Fact = { measured: { about: spot, reading: { height_mm: 85 } } };

  it('is told by the shelf', () => {
    expect(names.about(spot)).toBe('Door rack, Tier 2');
    const told = said(fact, names, words).replaceAll('\u00a0', ' ');
    expect(told).toBe('Height of the plants, Door rack, Tier 2: 8.5 cm');
  });

  it('is about no tray', () => {
    expect(trayOf({ id: 'a', on: '2027-04-07', fact } as Entry)).toBeUndefined();
  });
});
