import { describe, expect, it } from 'vitest';
import type { Words } from '../../say/words';
import { grownWords } from './plant';

const words = { number: (n: number) => `${Math.round(n * 100)}%` } as unknown as Words;
const plant = { spread_mm: 30, stretched: 1, size: 1, behind_by: null, cell_filled: 0.3 };

describe('how plants have grown', () => {
  it('is not worth a word where they grow as they should', () => {
    expect(grownWords(plant, words)).toEqual([]);
  });

  it('is told with what holds them up', () => {
    const dim = { ...plant, stretched: 1.4, size: 0.5, behind_by: 'light' as const };
    expect(grownWords(dim, words)).toEqual([
      'stretched by 40%',
      '50% of the usual size for its age: too little light',
    ]);
    expect(grownWords({ ...plant, cell_filled: 1.2 }, words)).toEqual(['its cell is full']);
    expect(grownWords({ ...plant, cell_filled: 0.95 }, words)).toEqual(['its cell is nearly full']);
  });
});
