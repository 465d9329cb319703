import { describe, expect, it } from 'vitest';
import type { CropStart } from '../api/client';
import { askedFor, USUAL_PLANTS } from './cropStarts';

const start = (name: string, ...also_called: string[]): CropStart => ({
  crop: name.toLowerCase(),
  name,
  also_called,
  start: 'indoors',
  sow: '2027-03-01',
  out: '2027-05-01',
  now: false,
});
const starts = [
  start('Sweet pea'),
  start('Pea'),
  start('Courgette', 'zucchini', 'summer squash'),
  start('Peanut'),
];

describe('crops that somebody asks for', () => {
  it('are found by name, the very one first, with the plants that were named', () => {
    const { hits, plants } = askedFor(starts, 'pea 60');
    expect(hits.map((hit) => hit.name)).toEqual(['Pea', 'Peanut', 'Sweet pea']);
    expect(plants).toBe(60);
  });

  it('are found by what others call them', () => {
    const { hits, plants } = askedFor(starts, 'zucchini');
    expect(hits.map((hit) => hit.name)).toEqual(['Courgette']);
    expect(plants).toBe(USUAL_PLANTS);
  });
});
