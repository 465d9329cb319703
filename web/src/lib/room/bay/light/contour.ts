// How a map of light is drawn: its shades, and the edge of the band that a crop wants.
import type { PartOnDay } from '../../../api/client';

/** A perceptually even ramp from dark violet to pale straw: lightness rises in equal steps. */
const RAMP = [
  '#2b1c4f',
  '#4b2466',
  '#6f2f6f',
  '#94406c',
  '#b75a61',
  '#d27b53',
  '#e4a24e',
  '#efcb66',
  '#f7efa5',
];

/** The shade of a share of the greatest light, 0 to 1. */
export function shade(share: number): string {
  const step = Math.floor(share * RAMP.length);
  return RAMP[Math.min(Math.max(step, 0), RAMP.length - 1)]!;
}

type Lit = Pick<PartOnDay, 'x_mm' | 'y_mm' | 'columns' | 'rows' | 'target'>;

/**
 * The path along which cells within the band border on others, from each cell's daily light. `px` and `py` take mm on the deck to the
 * screen, on which back is up.
 */
export function bandEdge(
  part: Lit,
  dli: number[],
  px: (mm: number) => number,
  py: (mm: number) => number,
): string {
  const { low, high } = part.target;
  const side = (light: number) => (light < low ? -1 : light > high ? 1 : 0);
  const [left, right] = [part.x_mm[0]!, part.x_mm[1]!];
  const [front, back] = [part.y_mm[0]!, part.y_mm[1]!];
  const x = (column: number) => px(left + ((right - left) / part.columns) * column);
  const y = (row: number) => py(front + ((back - front) / part.rows) * row);
  const steps: string[] = [];
  dli.forEach((light, i) => {
    const [column, row] = [i % part.columns, Math.floor(i / part.columns)];
    const differs = (j: number) => side(dli[j]!) !== side(light);
    if (column + 1 < part.columns && differs(i + 1))
      steps.push(`M${x(column + 1)} ${y(row + 1)}V${y(row)}`);
    if (row + 1 < part.rows && differs(i + part.columns))
      steps.push(`M${x(column + 1)} ${y(row + 1)}H${x(column)}`);
  });
  return steps.join('');
}
