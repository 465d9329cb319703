import { describe, expect, it } from 'vitest';
import { reused } from './reuse';

describe('an answer like the last one', () => {
  it('is the last one, part by part', () => {
    const old = {
      bays: [
        { id: 'a', cells: [1, 2] },
        { id: 'b', cells: [3] },
      ],
      n: 1,
    };
    expect(reused(old, structuredClone(old))).toBe(old);
    const changed = structuredClone(old);
    changed.bays[1]!.cells[0] = 4;
    const kept = reused(old, changed);
    expect(kept).not.toBe(old);
    expect(kept).toEqual(changed);
    expect(kept.bays[0]).toBe(old.bays[0]);
    expect(kept.bays[1]).not.toBe(old.bays[1]);
  });

  it('is not taken for one with more, fewer or other parts', () => {
    expect(reused([1, 2], [1])).toEqual([1]);
    expect(reused<unknown>({ a: undefined }, { b: undefined })).toEqual({ b: undefined });
    expect(reused<unknown>({}, [])).toEqual([]);
    expect(reused<unknown>(null, { a: 1 })).toEqual({ a: 1 });
  });
});
