import { describe, expect, it } from 'vitest';
import type { SowingDates } from '../api/client';
import { movedSowings } from './moved';

const sown = (name: string, sow: string) => ({ sowing: name, name, sow }) as SowingDates;

describe('sowings that moved', () => {
  const kept = ['Leek', 'Onion', 'Pea'].map((name) => sown(name, '2027-03-10'));

  it('are named, those that moved most first', () => {
    const now = [
      sown('Leek', '2027-03-11'),
      sown('Onion', '2027-03-01'),
      sown('Pea', '2027-03-12'),
    ];
    expect(movedSowings(kept, now)).toBe('Onion 9 days earlier; Pea 2 days later; 1 more');
  });

  it('are none when nothing moved, or nothing was kept before', () => {
    expect(movedSowings(kept, kept)).toBeUndefined();
    expect(movedSowings(undefined, kept)).toBeUndefined();
  });
});
