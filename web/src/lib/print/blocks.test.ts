import { describe, expect, it } from 'vitest';
import type { Tray, TrayFormat } from '../api/client';
import { blocksOf, kindsOf } from './blocks';

const format = { columns: 12, rows: 6 } as TrayFormat;
const tray = (parts: Tray['parts']) => ({ parts }) as Tray;

describe('blocks', () => {
  it('are the whole tray where nothing is said', () => {
    const [block] = blocksOf(tray([{ sowing: 'a' }]), format);
    expect(block).toEqual({ sowing: 'a', columns: [0, 12], rows: [0, 6], cells: 72 });
  });

  it('of one kind are counted together', () => {
    const parts = [
      { sowing: 'a', columns: [0, 2], rows: [0, 3] },
      { sowing: 'b', columns: [2, 12] },
      { sowing: 'a', columns: [0, 2], rows: [3, 6] },
    ];
    expect(kindsOf(tray(parts), format)).toEqual([
      { sowing: 'a', cells: 12 },
      { sowing: 'b', cells: 60 },
    ]);
  });
});
