// How figures are written for their reader. The factors come from the server; none is kept here.
import type {
  Figure,
  Problem,
  Quantity,
  ShownUnit,
  Statement,
  UnitRow,
  UnitSystem,
} from '../api/client';

export type Units = Map<Quantity, ShownUnit>;

export function unitsFor(rows: UnitRow[], system: UnitSystem): Units {
  return new Map(rows.map((row) => [row.quantity, row[system]]));
}

const MONTHS = new Intl.DateTimeFormat('en', { month: 'long', timeZone: 'UTC' });

/** Writes numbers and dates in one reader's units, currency and manner. */
export class Words {
  #dates: Intl.DateTimeFormat;
  #longDates: Intl.DateTimeFormat;
  #shortDates: Intl.DateTimeFormat;

  constructor(
    private units: Units,
    /** Whether days are written May 6, and times 10:30 pm. */
    readonly monthFirst: boolean,
    private currency: string,
    /** How either system writes each quantity: what a hand types or pastes may be in the other. */
    private rows: UnitRow[] = [],
  ) {
    const locale = monthFirst ? 'en-US' : 'en-GB';
    const utc = { timeZone: 'UTC' } as const;
    this.#dates = new Intl.DateTimeFormat(locale, {
      ...utc,
      weekday: 'short',
      day: 'numeric',
      month: 'long',
    });
    this.#longDates = new Intl.DateTimeFormat(locale, {
      ...utc,
      day: 'numeric',
      month: 'long',
      year: 'numeric',
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
    const { factor, offset, decimals, snap } = this.unit(quantity);
    const exact = value * factor + offset;
    const whole = snap ? Math.round(exact / snap) * snap : exact;
    const shown = Math.abs(whole - exact) <= factor ? whole : exact;
    // "15 h", not "15.0 h": a trailing zero claims an accuracy nobody asked for.
    return String(Number(shown.toFixed(decimals)));
  }

  number(value: number, quantity: Quantity): string {
    if (quantity === 'money') {
      return new Intl.NumberFormat('en', { style: 'currency', currency: this.currency }).format(
        value,
      );
    }
    if (quantity === 'clock_h') return this.#clock(value);
    // Nobody says 6400 ml.
    if (quantity === 'volume_ml' && value >= 1000 && this.unit(quantity).unit === 'ml')
      return `${Number((value / 1000).toFixed(1))}\u00a0l`;
    const { unit } = this.unit(quantity);
    // A lux meter is no surer than that.
    const said = quantity === 'illuminance_lux' ? Math.round(value / 100) * 100 : value;
    const bare = grouped(this.bare(said, quantity));
    if (unit === '') return bare;
    if (unit === '%' || unit === '°') return bare + unit;
    // "1 week", not "1 weeks".
    return `${bare}\u00a0${bare === '1' ? unit.replace(/^(day|week|year)s$/, '$1') : unit}`;
  }

  /** A time of day, from hours after midnight. */
  #clock(hours: number): string {
    const minutes = Math.round(hours * 60) % (24 * 60);
    const [h, m] = [Math.floor(minutes / 60), String(minutes % 60).padStart(2, '0')];
    if (!this.monthFirst) return `${String(h).padStart(2, '0')}:${m}`;
    return `${h % 12 || 12}:${m}\u00a0${h < 12 ? 'am' : 'pm'}`;
  }

  /**
   * What a reader typed or pasted, in the unit that the plan holds; undefined when it is no
   * number. A unit behind it may be the other system's; fractions such as 17 1/2 are read too.
   */
  held(typed: string | number, quantity: Quantity): number | undefined {
    const shown = typeof typed === 'number' ? { number: typed, unit: '' } : split(typed);
    if (!shown || !Number.isFinite(shown.number)) return undefined;
    const written = this.#writtenIn(shown.unit, quantity);
    if (!written) return undefined;
    // A tenth of a µm or a ten-thousandth of a euro: beyond that it is only rounding.
    return Number(((shown.number - written.offset) / written.factor).toFixed(4));
  }

  /** The unit that a sign behind a number means for a quantity. */
  #writtenIn(sign: string, quantity: Quantity): { factor: number; offset: number } | undefined {
    const own = this.unit(quantity);
    const wanted = SIGNS[sign] ?? sign;
    const same = (unit: string) => unit.toLowerCase() === wanted;
    if (wanted === '' || same(own.unit)) return own;
    const row = this.rows.find((row) => row.quantity === quantity);
    return row && [row.metric, row.us, row.held].find((shown) => same(shown.unit));
  }

  date(iso: string): string {
    return this.#dates.format(new Date(`${iso}T00:00Z`));
  }

  /** With its year: where a day is set. */
  longDate(iso: string): string {
    return this.#longDates.format(new Date(`${iso}T00:00Z`));
  }

  /** A month by its number, 1 to 12. */
  month(month: number): string {
    return MONTHS.format(new Date(Date.UTC(2027, month - 1, 15)));
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

  /** Why the server did not do something: for people, without paths into the document. */
  refusal({ detail, faults }: Pick<Problem, 'detail' | 'faults'>): string {
    if (faults.length === 0) return detail;
    const said = faults.map(({ path, problem, remedy }) => {
      // Of something deep in the document the field is named; of an edit the sentence says enough.
      const steps = path.split('/').slice(1);
      const field = steps.length > 2 ? named(steps.at(-1)!) : '';
      const text = `${field ? `${field}: ` : ''}${this.say(problem)}; ${this.say(remedy)}`;
      return `${text[0]!.toUpperCase()}${text.slice(1)}.`;
    });
    return said.join('\n');
  }

  /** A sentence with its figures filled in. */
  say(statement: Statement): string {
    return statement.text.replace(/\{(\w+)\}/g, (whole, name: string) => {
      const figure = statement.figures[name];
      return figure ? this.figure(figure) : whole;
    });
  }
}

/** What people write for a unit's sign. */
const SIGNS: Record<string, string> = {
  '"': 'in',
  '″': 'in',
  '”': 'in',
  inch: 'in',
  inches: 'in',
  c: '°c',
  f: '°f',
  lbs: 'lb',
  hours: 'h',
  degrees: '°',
};

/** A number, whole, decimal or with a fraction, and the unit's sign behind it. */
function split(typed: string): { number: number; unit: string } | undefined {
  const parts = /^([-−+]?)\s*(?:(\d+)\s+)?(\d+)\s*[/⁄]\s*(\d+)\s*(\D*)$/.exec(typed.trim());
  if (parts) {
    const [, sign, whole, over, under, unit] = parts;
    const size = Number(whole ?? 0) + Number(over) / Number(under);
    return { number: sign === '-' || sign === '−' ? -size : size, unit: tidy(unit) };
  }
  const plain = /^([-−+]?)\s*(\d+(?:[.,]\d*)?|[.,]\d+)\s*(\D*)$/.exec(typed.trim());
  if (!plain) return undefined;
  const size = Number(plain[2]!.replace(',', '.'));
  return { number: plain[1] === '-' || plain[1] === '−' ? -size : size, unit: tidy(plain[3]) };
}

/** "21,700": thousands are set apart where a number is read, not where it is typed. */
function grouped(bare: string): string {
  return /^-?\d{5,}(\.\d+)?$/.test(bare) ? Number(bare).toLocaleString('en') : bare;
}

const tidy = (unit: string | undefined) => (unit ?? '').trim().toLowerCase();

/** A field of the document in words, without its unit: `deck_height_mm` is "deck height". */
function named(field: string): string {
  return field.replace(/_(mm|c|h|kg|ml|w|deg|k)$/, '').replaceAll('_', ' ');
}

/** Days later or earlier, in words. */
export function movedBy(days: number): string {
  const unit = Math.abs(days) === 1 ? 'day' : 'days';
  return `${Math.abs(days)} ${unit} ${days < 0 ? 'earlier' : 'later'}`;
}
