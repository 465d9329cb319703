// How figures are written for their reader. The factors come from the server; none is kept here.
import type { Figure, Quantity, ShownUnit, Statement, UnitRow, UnitSystem } from './api/client';

export type Units = Map<Quantity, ShownUnit>;

export function unitsFor(rows: UnitRow[], system: UnitSystem): Units {
  return new Map(rows.map((row) => [row.quantity, row[system]]));
}

/** Writes numbers and dates in one reader's units, currency and manner. */
export class Words {
  #dates: Intl.DateTimeFormat;
  #shortDates: Intl.DateTimeFormat;

  constructor(
    private units: Units,
    system: UnitSystem,
    private currency: string,
  ) {
    const locale = system === 'us' ? 'en-US' : 'en-GB';
    const utc = { timeZone: 'UTC' } as const;
    this.#dates = new Intl.DateTimeFormat(locale, {
      ...utc,
      weekday: 'short',
      day: 'numeric',
      month: 'long',
    });
    this.#shortDates = new Intl.DateTimeFormat(locale, { ...utc, day: 'numeric', month: 'short' });
  }

  unit(quantity: Quantity): ShownUnit {
    const unit = this.units.get(quantity);
    if (!unit) throw new Error(`the server knows no unit for ${quantity}`);
    return unit;
  }

  /** The number alone, in shown units. */
  bare(value: number, quantity: Quantity): string {
    const { factor, offset, decimals } = this.unit(quantity);
    const shown = value * factor + offset;
    // "15 h", not "15.0 h": a trailing zero claims an accuracy nobody asked for.
    return String(Number(shown.toFixed(decimals)));
  }

  number(value: number, quantity: Quantity): string {
    if (quantity === 'money') {
      return new Intl.NumberFormat('en', { style: 'currency', currency: this.currency }).format(
        value,
      );
    }
    const { unit } = this.unit(quantity);
    const bare = this.bare(value, quantity);
    if (unit === '') return bare;
    return unit === '%' || unit === '°' ? bare + unit : `${bare}\u00a0${unit}`;
  }

  /** What a reader typed, in the unit that the plan holds; undefined when it is no number. */
  held(typed: string | number, quantity: Quantity): number | undefined {
    const { factor, offset } = this.unit(quantity);
    const shown = typeof typed === 'number' ? typed : Number(typed.trim().replace(',', '.'));
    if (!Number.isFinite(shown) || String(typed).trim() === '') return undefined;
    // A tenth of a µm or a ten-thousandth of a euro: beyond that it is only rounding.
    return Number(((shown - offset) / factor).toFixed(4));
  }

  date(iso: string): string {
    return this.#dates.format(new Date(`${iso}T00:00Z`));
  }

  shortDate(iso: string): string {
    return this.#shortDates.format(new Date(`${iso}T00:00Z`));
  }

  figure(figure: Figure): string {
    switch (figure.is) {
      case 'number':
        return this.number(figure.value, figure.quantity);
      case 'day':
        return this.date(figure.date);
      case 'text':
        return figure.text;
    }
  }

  /** A sentence with its figures filled in. */
  say(statement: Statement): string {
    return statement.text.replace(/\{(\w+)\}/g, (whole, name: string) => {
      const figure = statement.figures[name];
      return figure ? this.figure(figure) : whole;
    });
  }
}

const DAY_MS = 86_400_000;

export function plusDays(iso: string, days: number): string {
  return new Date(Date.parse(`${iso}T00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);
}

export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00Z`) - Date.parse(`${from}T00:00Z`)) / DAY_MS);
}

export function clampDate(iso: string, from: string, to: string): string {
  return iso < from ? from : iso > to ? to : iso;
}
