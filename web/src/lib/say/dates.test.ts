import { describe, expect, it } from 'vitest';
import { isDay, readDate, readTime } from './dates';

describe('a day that somebody writes', () => {
  const near = '2027-05-06';
  it.each([
    ['6 May 2027', false, '2027-05-06'],
    ['May 6, 2027', true, '2027-05-06'],
    ['Thu 6 May', false, '2027-05-06'],
    ['6.5.', false, '2027-05-06'],
    ['5/6', true, '2027-05-06'],
    ['5/6/28', false, '2028-06-05'],
    ['2 jan', false, '2027-01-02'],
    ['20 December', false, '2026-12-20'],
    ['2027-02-28', false, '2027-02-28'],
  ])('reads %s', (text, monthFirst, day) => {
    expect(readDate(text, near, monthFirst)).toBe(day);
  });
  it.each(['31 February', 'soon', '', '6', '13/13', '2027-02-30', '1 2 3 4'])(
    'does not read %s',
    (text) => expect(readDate(text, near, false)).toBeUndefined(),
  );
});

describe('a day in an address', () => {
  it('is one of the calendar', () => {
    expect(isDay('2028-02-29')).toBe(true);
    expect(isDay('2027-02-29')).toBe(false);
    expect(isDay('2027-2-9')).toBe(false);
    expect(isDay('2027-99-99')).toBe(false);
  });
});

describe('a time that somebody writes', () => {
  it.each([
    ['22:30', 22.5],
    ['6', 6],
    ['0630', 6.5],
    ['10:30 pm', 22.5],
    ['12 am', 0],
    ['12:15 pm', 12.25],
    ['7.45', 7.75],
    ['24:00', 0],
  ])('reads %s', (text, hour) => expect(readTime(text)).toBe(hour));
  it.each(['25', '13 pm', '6:75', 'noon', '', '24:30'])('does not read %s', (text) =>
    expect(readTime(text)).toBeUndefined(),
  );
});
