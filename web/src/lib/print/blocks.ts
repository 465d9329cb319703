// The blocks of cells that the kinds in a tray have.
import type { Tray, TrayFormat } from '../api/client';

export interface Block {
  sowing: string;
  /** From one column up to another, and from one row, counted from the front. */
  columns: [number, number];
  rows: [number, number];
  cells: number;
}

export function blocksOf(tray: Tray, format: TrayFormat): Block[] {
  return tray.parts.map((part) => {
    const [x0, x1] = part.columns ?? [0, format.columns];
    const [y0, y1] = part.rows ?? [0, format.rows];
    return {
      sowing: part.sowing,
      columns: [x0!, x1!],
      rows: [y0!, y1!],
      cells: (x1! - x0!) * (y1! - y0!),
    };
  });
}

/** The kinds in a tray, each once, with the number of its cells. */
export function kindsOf(tray: Tray, format: TrayFormat): { sowing: string; cells: number }[] {
  const kinds: { sowing: string; cells: number }[] = [];
  for (const { sowing, cells } of blocksOf(tray, format)) {
    const own = kinds.find((kind) => kind.sowing === sowing);
    if (own) own.cells += cells;
    else kinds.push({ sowing, cells });
  }
  return kinds;
}
