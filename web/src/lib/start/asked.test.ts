import { describe, expect, it } from 'vitest';
import { matching, nameAndNumber } from './asked';

describe('what somebody asks for', () => {
  it.each([
    ['tomato 12', 'tomato', 12],
    ['12 tomato', 'tomato', 12],
    ['sweet pea', 'sweet pea', undefined],
    ['pea 60 ', 'pea', 60],
  ])('reads %s', (text, name, number) => {
    expect(nameAndNumber(text)).toEqual({ name, number });
  });

  it('finds the exact name first, then what begins so, whatever the accents', () => {
    const names = ['Sweet pea', 'Pea', 'Pear tomato', 'Peanut', 'Zürich'];
    expect(matching(names, 'pea', (name) => name)).toEqual([
      'Pea',
      'Peanut',
      'Pear tomato',
      'Sweet pea',
    ]);
    expect(matching(names, 'zurich', (name) => name)).toEqual(['Zürich']);
    expect(matching(names, '', (name) => name)).toEqual([]);
  });
});
