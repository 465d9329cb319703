// What was noted and is not with the server yet. It stays on the device until the server has it; what is
// sent twice is kept once there, by its name.
import { Refused, Unreachable, type Entry } from '../api/client';
import { logApi } from '../api/log';
import { forgetPhoto, photoOf } from '../bench/seen';
import { bench } from '../bench/workbench.svelte';

export interface Waiting {
  plan: number;
  entry: Entry;
  /** The job that it answers. */
  job?: string | undefined;
}

export interface RefusedEntry extends Waiting {
  why: string;
}

const WAITING = 'faint-sunrise/outbox';
const REFUSED = 'faint-sunrise/outbox-refused';
const TAKEN = 'faint-sunrise/outbox-taken';
/** The server takes so many at once. */
const AT_ONCE = 100;
const RETRY_MS = 3000;

function read<T>(key: string): T[] {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '[]') as T[];
  } catch {
    return [];
  }
}

/** A name that no other entry has; the page need not be served securely for it. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

class Outbox {
  waiting: Waiting[] = $state.raw(read<Waiting>(WAITING));
  refused: RefusedEntry[] = $state.raw(read<RefusedEntry>(REFUSED));
  /** With the server, but not yet in a walk that was asked for since: what they answer is done. */
  taken: Waiting[] = $state.raw(read<Waiting>(TAKEN));
  /** Counts up whenever the server took something. */
  sent = $state(0);
  #sending = false;
  /** The entries that are on their way to the server. */
  #underWay: Waiting[] = [];
  #again: ReturnType<typeof setTimeout> | undefined;

  /** Keeps what was noted on the device, and sends it. */
  note(plan: number, entries: Entry[], job?: string) {
    this.#keep([...read<Waiting>(WAITING), ...entries.map((entry) => ({ plan, entry, job }))]);
    void this.send();
  }

  /** Takes back what has not been sent; whether there was such an entry. What is on its way is kept by then. */
  drop(id: string): boolean {
    if (this.#underWay.some(({ entry }) => entry.id === id)) return false;
    const left = read<Waiting>(WAITING).filter(({ entry }) => entry.id !== id);
    const found = left.length < this.waiting.length;
    this.#keep(left);
    return found;
  }

  dismiss(id: string) {
    this.#refuse(this.refused.filter(({ entry }) => entry.id !== id));
  }

  /** A walk is here that knows of these. */
  walked(known: Waiting[]) {
    if (known.length === 0) return;
    const ids = new Set(known.map(({ entry }) => entry.id));
    this.#take(this.taken.filter(({ entry }) => !ids.has(entry.id)));
  }

  /** Sends all that waits, the oldest first. */
  async send() {
    if (this.#sending) return;
    this.#sending = true;
    clearTimeout(this.#again);
    try {
      // Another page of this browser may have sent some of them.
      for (let left = read<Waiting>(WAITING); left.length > 0; left = read<Waiting>(WAITING)) {
        const plan = left[0]!.plan;
        const batch = left.filter((own) => own.plan === plan).slice(0, AT_ONCE);
        this.#underWay = batch;
        await this.#deliver(plan, batch);
      }
    } catch (error) {
      if (error instanceof Unreachable) {
        this.#again = setTimeout(() => void this.send(), RETRY_MS);
        void bench.watch();
      } else bench.explain(error);
    } finally {
      this.#sending = false;
      this.#underWay = [];
      this.waiting = read<Waiting>(WAITING);
    }
  }

  async #deliver(plan: number, batch: Waiting[]) {
    for (const { entry } of batch) {
      const photo = entry.photo ? await photoOf(entry.photo) : undefined;
      if (!photo) continue;
      try {
        await logApi.keepPhoto(plan, entry.photo!, photo);
      } catch (error) {
        // Without its photo the entry is refused, and says why.
        if (error instanceof Unreachable) throw error;
        bench.explain(error);
      }
      await forgetPhoto(entry.photo!);
    }
    let answer;
    try {
      answer = await logApi.note(
        plan,
        batch.map(({ entry }) => entry),
      );
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      // The plan is gone, or what was kept here is no entry any more: nothing is thrown away unseen.
      const status = error.problem.status;
      if (status >= 500) throw new Unreachable(error.message);
      this.#done(
        batch,
        batch.map((own) => ({ ...own, why: error.message })),
      );
      return;
    }
    const refused = batch.flatMap((own, i) => {
      const noted = answer.entries[i]!;
      const faults = noted.faults ?? [];
      if (faults.length > 0) {
        const said = faults.map((fault) => bench.words.say(fault.problem));
        return [{ ...own, why: said.join('; ') }];
      }
      return noted.kept === 'taken'
        ? [{ ...own, why: 'the log has another entry of this name' }]
        : [];
    });
    this.#done(batch, refused);
    for (const fault of answer.not_followed)
      bench.tell(
        'wrong',
        `It is in the log, but the plan cannot follow: ${bench.words.say(fault.problem)}`,
      );
    this.sent += 1;
    if (plan === bench.view?.id) await bench.noted(answer.plan_changed);
  }

  #done(batch: Waiting[], refused: RefusedEntry[]) {
    const ids = new Set(batch.map(({ entry }) => entry.id));
    const not = new Set(refused.map(({ entry }) => entry.id));
    this.#take([...this.taken, ...batch.filter(({ entry, job }) => job && !not.has(entry.id))]);
    this.#keep(read<Waiting>(WAITING).filter(({ entry }) => !ids.has(entry.id)));
    if (refused.length > 0) this.#refuse([...this.refused, ...refused]);
  }

  #keep(waiting: Waiting[]) {
    localStorage.setItem(WAITING, JSON.stringify(waiting));
    this.waiting = waiting;
  }

  #take(taken: Waiting[]) {
    localStorage.setItem(TAKEN, JSON.stringify(taken));
    this.taken = taken;
  }

  #refuse(refused: RefusedEntry[]) {
    localStorage.setItem(REFUSED, JSON.stringify(refused));
    this.refused = refused;
  }
}

export const outbox = new Outbox();
