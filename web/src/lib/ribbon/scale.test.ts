import { describe, expect, it } from 'vitest';
import { TimeAxis } from './scale';

describe('the time axis', () => {
  const axis = new TimeAxis('2027-01-15', '2027-06-15', 1510);

  it('puts the season’s ends at its own', () => {
    expect(axis.x('2027-01-15')).toBe(0);
    expect(axis.x('2027-06-15')).toBe(1510);
    expect(axis.x('2027-01-16')).toBe(10);
  });

  it('gives back the date under any point, held within the season', () => {
    for (const date of ['2027-01-15', '2027-03-28', '2027-06-15'])
      expect(axis.date(axis.x(date))).toBe(date);
    expect(axis.date(-500)).toBe('2027-01-15');
    expect(axis.date(9999)).toBe('2027-06-15');
    expect(axis.date(14)).toBe('2027-01-16');
  });

  it('names the months that begin within, over the turn of a year too', () => {
    expect(axis.months()).toEqual([
      '2027-02-01',
      '2027-03-01',
      '2027-04-01',
      '2027-05-01',
      '2027-06-01',
    ]);
    expect(new TimeAxis('2026-11-20', '2027-01-10', 100).months()).toEqual([
      '2026-12-01',
      '2027-01-01',
    ]);
  });
});
