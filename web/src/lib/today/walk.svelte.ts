// The walk of a day: asked of the server, kept on the device, and what was noted on it.
import { Unreachable, type Entry, type Fact, type Job, type Today, type Told } from '../api/client';
import { logApi } from '../api/log';
import { keepDay, seenDay } from '../bench/seen';
import { bench } from '../bench/workbench.svelte';
import { newId, outbox } from '../log/outbox.svelte';

class Walk {
  today: Today | undefined = $state.raw();
  /** What was noted on the day and counts. */
  noted: Told[] = $state.raw([]);
  /** Whether what is shown is what was seen last. */
  old = $state(false);
  problem = $state('');
  #asked = 0;

  /** Asks for the walk of a day. */
  async ask(plan: number, on: string) {
    const asked = ++this.#asked;
    const known = outbox.taken.filter((own) => own.plan === plan);
    try {
      const [today, noted] = await Promise.all([
        logApi.today(plan, on),
        logApi.log(plan, { from: on, to: on, limit: 500 }),
      ]);
      if (asked !== this.#asked) return;
      this.#show({ today, noted: noted.filter((told) => told.counts) }, false);
      outbox.walked(known);
      void keepDay(plan, on, { today, noted: this.noted });
    } catch (error) {
      if (asked !== this.#asked) return;
      const seen = error instanceof Unreachable ? await seenDay(plan, on) : undefined;
      if (seen) this.#show(seen, true);
      else if (this.today?.date !== on) {
        this.today = undefined;
        this.problem = error instanceof Error ? error.message : String(error);
      }
      if (error instanceof Unreachable) void bench.watch();
    }
  }

  #show({ today, noted }: { today: Today; noted: Told[] }, old: boolean) {
    this.today = today;
    this.noted = noted;
    this.old = old;
    this.problem = '';
  }

  /** The day that what is tapped happened on: no later than today. */
  get on(): string {
    const today = bench.view?.today ?? bench.date;
    return bench.date < today ? bench.date : today;
  }

  /** An entry of what happened now, or on the day that is looked at. */
  entry(fact: Fact | undefined, more: Partial<Entry> = {}): Entry {
    const now = new Date();
    const day = `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
    // Of a day gone by nobody knows the hour.
    const at_h =
      day === this.on
        ? Math.round((now.getHours() + now.getMinutes() / 60) * 100) / 100
        : undefined;
    return {
      id: newId(),
      on: this.on,
      ...(at_h === undefined ? {} : { at_h }),
      ...(fact ? { fact } : {}),
      ...more,
    } as Entry;
  }

  /** Notes that a job was done. */
  done(job: Job, facts: Fact[], more: Partial<Entry> = {}) {
    const plan = bench.view?.id;
    if (plan !== undefined)
      outbox.note(
        plan,
        facts.map((fact) => this.entry(fact, more)),
        job.id,
      );
  }

  /** Notes something by itself. */
  note(fact: Fact, more: Partial<Entry> = {}) {
    const plan = bench.view?.id;
    if (plan !== undefined) outbox.note(plan, [this.entry(fact, more)]);
  }

  /** Takes an entry back. */
  takeBack(entry: Entry) {
    const plan = bench.view?.id;
    if (plan === undefined || outbox.drop(entry.id)) return;
    outbox.note(plan, [this.entry(undefined, { corrects: entry.id })]);
  }
}

export const walk = new Walk();
