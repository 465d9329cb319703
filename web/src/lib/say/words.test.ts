import { describe, expect, it } from 'vitest';
import type { ShownUnit, UnitRow } from '../api/client';
import { clampDate, daysBetween, plusDays } from './dates';
import { Words, movedBy, unitsFor } from './words';

const row = (
  quantity: UnitRow['quantity'],
  metric: ShownUnit,
  us: ShownUnit,
  held = metric,
): UnitRow => ({ quantity, metric, us, held });
const unit = (unit: string, factor: number, offset: number, decimals: number): ShownUnit => ({
  unit,
  factor,
  offset,
  decimals,
  step: 1,
});
const rows = [
  row(
    'length_mm',
    unit('cm', 0.1, 0, 1),
    { ...unit('in', 1 / 25.4, 0, 2), snap: 0.25 },
    unit('mm', 1, 0, 0),
  ),
  row('clock_h', unit('', 1, 0, 2), unit('', 1, 0, 2)),
  row('temperature_c', unit('°C', 1, 0, 1), unit('°F', 1.8, 32, 0)),
  row('share', unit('%', 100, 0, 0), unit('%', 100, 0, 0)),
  row('illuminance_lux', unit('lux', 1, 0, 0), unit('lux', 1, 0, 0)),
  row('weeks', unit('weeks', 1, 0, 1), unit('weeks', 1, 0, 1)),
  row('money', unit('', 1, 0, 2), unit('', 1, 0, 2)),
];
const words = (system: 'metric' | 'us') =>
  new Words(unitsFor(rows, system), system === 'us', 'EUR', rows);

describe('months', () => {
  it('go by their number', () => {
    expect([1, 8, 12].map((month) => words('us').month(month))).toEqual([
      'January',
      'August',
      'December',
    ]);
  });
});

describe('figures', () => {
  it('are written in the reader’s units', () => {
    expect(words('metric').number(130, 'length_mm')).toBe('13\u00a0cm');
    expect(words('us').number(127, 'length_mm')).toBe('5\u00a0in');
    expect(words('us').number(20, 'temperature_c')).toBe('68\u00a0°F');
    expect(words('metric').number(0.61, 'share')).toBe('61%');
    expect(words('metric').number(1.5, 'money')).toBe('€1.50');
  });

  it('are rounded and set apart as people read them', () => {
    expect(words('metric').number(21683, 'illuminance_lux')).toBe('21,700\u00a0lux');
    expect(words('metric').number(1, 'weeks')).toBe('1\u00a0week');
    expect(words('metric').number(2, 'weeks')).toBe('2\u00a0weeks');
    // A rack of 1220 mm is one of 48 inches to whoever bought it.
    expect(words('us').bare(1220, 'length_mm')).toBe('48');
    expect(words('us').bare(1223, 'length_mm')).toBe('48.15');
  });

  it('come back to what the plan holds', () => {
    expect(words('us').held('5', 'length_mm')).toBe(127);
    expect(words('us').held('68', 'temperature_c')).toBe(20);
    expect(words('metric').held('13,5', 'length_mm')).toBe(135);
    expect(words('metric').held('', 'length_mm')).toBeUndefined();
    expect(words('metric').held('tall', 'length_mm')).toBeUndefined();
  });

  it('are understood as people write and paste them', () => {
    const us = (typed: string) => words('us').held(typed, 'length_mm');
    expect(us('17 1/2"')).toBe(444.5);
    expect(us('1/4')).toBe(6.35);
    expect(us(' 17.5 in ')).toBe(444.5);
    expect(us('44.5 cm')).toBe(445);
    expect(us('445mm')).toBe(445);
    expect(us('-2')).toBe(-50.8);
    expect(words('metric').held('17 1/2″', 'length_mm')).toBe(444.5);
    expect(words('metric').held('70 °F', 'temperature_c')).toBeCloseTo(21.1111, 3);
    for (const typed of ['17 1/0', '1/2/3', '12 bananas', '1 2', '--3', '70 °F']) {
      expect(us(typed), typed).toBeUndefined();
    }
  });

  it('of the clock read as clocks do', () => {
    expect(words('metric').number(6.5, 'clock_h')).toBe('06:30');
    expect(words('us').number(18.25, 'clock_h')).toBe('6:15\u00a0pm');
    expect(words('us').number(24, 'clock_h')).toBe('12:00\u00a0am');
  });

  it('fill sentences', () => {
    const statement = {
      text: 'Hang {lamp} at {height} on {day}',
      figures: {
        lamp: { is: 'text' as const, text: 'Tier {x}' },
        height: { is: 'number' as const, value: 140, quantity: 'length_mm' as const },
        day: { is: 'day' as const, date: '2027-04-09' },
      },
    };
    expect(words('metric').say(statement)).toBe('Hang Tier {x} at 14\u00a0cm on Fri 9 April');
  });
});

describe('dates', () => {
  it('count in whole days across the change to summer time', () => {
    expect(plusDays('2027-03-27', 2)).toBe('2027-03-29');
    expect(daysBetween('2027-03-01', '2027-04-01')).toBe(31);
    expect(clampDate('2026-11-23', '2027-01-15', '2027-06-15')).toBe('2027-01-15');
  });
});

describe('days moved', () => {
  it('say how many and which way', () => {
    expect(movedBy(1)).toBe('1 day later');
    expect(movedBy(-1)).toBe('1 day earlier');
    expect(movedBy(-21)).toBe('21 days earlier');
    expect(movedBy(daysBetween('2027-03-01', '2027-04-01'))).toBe('31 days later');
  });

  it('say why something was refused without paths', () => {
    const metric = words('metric');
    const say = (text: string) => ({ text, figures: {} });
    const fault = (path: string) => ({
      path,
      value: 1,
      problem: say('that is too much'),
      remedy: say('give less'),
    });
    const refusal = (path: string) =>
      metric.refusal({ detail: `${path}: that is too much`, faults: [fault(path)] });
    expect(refusal('/tray')).toBe('That is too much; give less.');
    expect(refusal('/places/0/tiers/1/deck_height_mm')).toBe(
      'Deck height: that is too much; give less.',
    );
    expect(metric.refusal({ detail: 'no', faults: [] })).toBe('no');
  });
});
