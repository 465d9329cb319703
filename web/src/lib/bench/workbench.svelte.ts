// The plan on the bench: what the server keeps, what is being edited, and what follows from it.
import { immutableJSONPatch, type JSONPatchDocument } from 'immutable-json-patch';
import {
  api,
  countLogOf,
  Refused,
  Unreachable,
  type Assessment,
  type BayRef,
  type Edit,
  type Edited,
  type Fix,
  type PatchStep,
  type Plan,
  type PlanSummary,
  type PlanView,
  type SowingDates,
  type Settle,
  type Statement,
  type StepKind,
  type Thing,
} from '../api/client';
import { RETRY_MS } from './connection.svelte';
import { movedSowings } from './moved';
import { Reading } from './reading.svelte';
import { reused } from './reuse';
import { notedDay } from './opening';
import { keepSeen, lastSeen } from './seen';
import { isThere, same } from './things';
import { clampDate, isDay, plusDays } from '../say/dates';

/** A run of nudges becomes one edit when the hand has rested this long. */
const REST_MS = 700;
/** The longest word that the history keeps. */
const WORD_LENGTH = 120;

class Workbench extends Reading {
  stage: 'loading' | 'empty' | 'failed' | 'ready' = $state('loading');
  failure = $state('');
  /** The plans there are, when the one to open could not be. */
  others: PlanSummary[] = $state.raw([]);
  /** Whether edges and decks can be dragged, and the shelf of kinds is open. */
  building = $state(false);
  /** Whether somebody is led through the first questions. */
  starting = $state(false);
  /** What a change made elsewhere has set otherwise: whose stays must be said first. */
  clashes: Statement[] | undefined = $state.raw();
  #settle: Settle | undefined;
  /** Whether the server was never reached: what is shown is what was seen last. */
  #seenOnly = false;

  #unsavedWord = '';
  #rest: ReturnType<typeof setTimeout> | undefined;
  #saving: Promise<void> | undefined;
  /** Whether a view of sowings is open: it wants the whole season, and no bay. */
  #ofSowings = false;
  /** The dates of every sowing in the plan as it is kept: what an edit moves is told against them. */
  #keptSowings: SowingDates[] | undefined;

  /** Opens the plan of this number, or the one that was edited last. */
  async load(date: string | null, id?: number) {
    this.stage = 'loading';
    const on = date && isDay(date) ? date : undefined;
    try {
      const view = id === undefined ? api.lastPlan(on) : api.plan(id, on);
      const [opened] = await Promise.all([view, this.facts.fetch()]);
      if (!opened) {
        this.stage = 'empty';
      } else {
        this.open(opened, date);
      }
      void this.watch();
      void keepSeen({ view: this.view, units: this.facts.units, forms: this.facts.forms });
    } catch (error) {
      if (error instanceof Unreachable && (await this.#openSeen(date, id))) return;
      this.fail(error);
      // One plan that cannot be opened must not hide the others.
      this.others = await api.plans().catch(() => []);
    }
  }

  /** Opens the plan as it was seen last, where the server cannot be reached. */
  async #openSeen(date: string | null, id: number | undefined): Promise<boolean> {
    const seen = await lastSeen();
    if (!seen || (id !== undefined && seen.view.id !== id)) return false;
    this.facts.units = seen.units;
    this.facts.forms = seen.forms;
    this.#seenOnly = true;
    this.open(seen.view, date);
    this.lost();
    return true;
  }

  /** Something was noted: what follows from it is asked for anew, and the plan where it followed too. */
  async noted(planChanged: boolean) {
    try {
      if (planChanged && this.view) this.#take(await api.plan(this.view.id), this.unsaved);
      await this.#assess();
    } catch (error) {
      this.explain(error);
    }
  }

  /** Opens what the server gave, on `date` or the day it is to be opened on. */
  open(view: PlanView, date: string | null) {
    this.#take(view);
    const { from, to } = view.plan.season;
    const asked = date && isDay(date) ? date : view.opening_day;
    this.date = clampDate(asked, from, to);
    const note = notedDay(date, this.date, this.words);
    if (note) this.tell('wrong', note);
    this.stage = 'ready';
    this.#keptSowings = undefined;
    this.whatIf.forget();
    const first = view.assessment as Assessment | null | undefined;
    if (first?.room[0]?.date === this.date) {
      // It came with the plan; what one bay or the sowings want besides is asked for next.
      this.#keptSowings = this.whatIf.show(first).sowings;
      if (!this.hand.selected && !this.#ofSowings) return;
    }
    void this.#assess();
  }

  fail(error: unknown) {
    this.failure = error instanceof Error ? error.message : String(error);
    this.stage = 'failed';
  }

  go(date: string) {
    if (!this.draft) return;
    this.date = clampDate(date, this.draft.season.from, this.draft.season.to);
    void this.#assess();
  }

  /** For views of sowings and seeds; gives what to do when they close. */
  showSowings(): () => void {
    this.#ofSowings = true;
    void this.#assess();
    return () => {
      this.#ofSowings = false;
      void this.#assess();
    };
  }

  step(days: number) {
    this.go(plusDays(this.date, days));
  }

  today() {
    if (this.view) this.go(this.view.today);
  }

  select(bay: BayRef | undefined) {
    this.pick(bay);
  }

  /** Picks a thing alone, or besides what is picked already; once more lets it go. */
  pick(thing: Thing | undefined, besides = false) {
    const before = this.hand.selected;
    this.hand.pick(thing, besides);
    // Only the picked bay's cells and fits are fetched.
    if (this.hand.selected && !same(before, this.hand.selected)) void this.#assess();
  }

  /** Changes the plan's form and keeps it; what was made is picked. */
  async edit(edit: Edit) {
    await this.settle();
    if (!this.draft || this.clashes || this.unsaved) return;
    try {
      await this.adopt(await api.edit(this.draft, edit));
    } catch (error) {
      this.explain(error);
    }
  }

  /** Keeps what an edit made of the plan. */
  async adopt({ plan, word, made }: Edited) {
    this.draft = reused(this.draft!, plan);
    this.#unsavedWord = this.words.say(word).slice(0, WORD_LENGTH);
    if (made.length > 0) this.hand.picked = made;
    this.#letGo();
    void this.#assess();
    await this.settle();
  }

  /** Lets go of what is not in the plan any more. */
  #letGo() {
    const there = (thing: Thing) => isThere(this.draft, thing);
    if (!this.hand.picked.every(there)) this.hand.picked = this.hand.picked.filter(there);
  }

  /** Tries a change: figures follow at once, nothing is kept until `settle` or a rest. */
  try(patch: PatchStep[], word: string) {
    if (!this.draft) return;
    // What the patch does not name stays the same object, and is not drawn again.
    this.draft = immutableJSONPatch(this.draft, patch as JSONPatchDocument) as unknown as Plan;
    this.#unsavedWord = word.slice(0, WORD_LENGTH);
    clearTimeout(this.#rest);
    void this.#assess();
  }

  /** Makes a change and keeps it. */
  keep(patch: PatchStep[], word: string) {
    this.try(patch, word);
    void this.settle();
  }

  /** Tries a change and keeps it once the hand rests: for arrow keys and typing. */
  nudge(patch: PatchStep[], word: string) {
    this.try(patch, word);
    this.#rest = setTimeout(() => void this.settle(), REST_MS);
  }

  /** Keeps what has been tried. */
  async settle() {
    clearTimeout(this.#rest);
    // In a loop: of two that waited for the same save only one may go on with the next.
    while (this.#saving) await this.#saving;
    if (!this.unsaved) return;
    this.#saving = this.#save().finally(() => (this.#saving = undefined));
    await this.#saving;
  }

  get unsaved(): boolean {
    return !!this.draft && this.#unsavedWord !== '';
  }

  async #save() {
    const draft = this.draft!;
    const word = this.#unsavedWord;
    const view = this.view!;
    if (JSON.stringify(draft) === JSON.stringify(view.plan)) {
      this.#unsavedWord = '';
      return;
    }
    try {
      const saved = await api.save(view.id, view.revision, draft, word, this.#settle);
      this.connected = true;
      this.trouble = '';
      this.#settle = undefined;
      // Edits made while this one travelled stay on the bench.
      const more = this.draft !== draft;
      const joined = (saved.with?.length ?? 0) > 0;
      if (joined) this.tell('done', `Also changed elsewhere meanwhile: ${saved.with!.join('; ')}`);
      // What was joined is not in the draft yet: the next save goes the same way, and its own wins.
      if (more && joined) this.#settle = 'mine';
      else this.#take(saved, more);
      if (joined) void this.#assess();
      this.#sayMoved();
    } catch (error) {
      if (error instanceof Unreachable) {
        this.lost();
      } else if (error instanceof Refused && error.problem.status === 409) {
        this.clashes = error.problem.faults.map((fault) => fault.problem);
      } else if (error instanceof Refused && [503, 507].includes(error.problem.status)) {
        // The disk is full, or the folder is gone: the change stays on the bench until it is not.
        this.trouble = error.message;
        this.#rest = setTimeout(() => void this.settle(), RETRY_MS * 2);
      } else {
        this.tell('wrong', this.reason(error));
        this.discard();
      }
    }
  }

  #take(view: PlanView, keepDraft = false) {
    this.view = view;
    countLogOf(view.id);
    if (keepDraft) return;
    this.draft = reused(this.draft, view.plan);
    this.#unsavedWord = '';
    this.#letGo();
  }

  /** Puts the plan back to what the server keeps. */
  discard() {
    if (!this.view) return;
    clearTimeout(this.#rest);
    this.#take(this.view);
    void this.#assess();
  }

  async undo() {
    await this.#move('undo');
  }

  async redo() {
    await this.#move('redo');
  }

  async goTo(revision: number) {
    await this.#move({ to: revision });
  }

  async #move(step: StepKind) {
    await this.settle();
    const view = this.view;
    if (!view || this.clashes) return;
    if (step === 'undo' && view.undo == null) return this.tell('done', 'There is nothing to undo.');
    if (step === 'redo' && view.redo == null) return this.tell('done', 'There is nothing to redo.');
    try {
      const word = step === 'undo' ? view.undo : view.redo;
      this.#take(await api.step(view.id, view.revision, step));
      this.date = clampDate(this.date, this.draft!.season.from, this.draft!.season.to);
      if (step === 'undo') this.tell('done', `Undone: ${word}`);
      else if (step === 'redo') this.tell('done', `Redone: ${word}`);
      await this.#assess();
    } catch (error) {
      if (error instanceof Unreachable) this.lost();
      else if (error instanceof Refused && error.problem.current_revision != null) {
        this.#take(await api.plan(view.id));
        this.tell('wrong', 'The plan had been changed elsewhere: this is how it is now.');
        await this.#assess();
      } else this.tell('wrong', this.reason(error));
    }
  }

  /** One click: the finding's own edit of the plan. */
  async apply(fix: Fix) {
    this.try(fix.patch, this.words.say(fix.word));
    await this.settle();
  }

  /** After a clash: whose change of the same field stays. The other is in the history. */
  async resolve(choice: Settle) {
    this.clashes = undefined;
    this.#settle = choice;
    await this.settle();
    await this.#assess();
  }

  /** Asks what follows from the draft; an error of a change that is not kept takes it back. */
  async #assess() {
    try {
      await this.whatIf.ask(() => {
        if (!this.draft) return undefined;
        const kept = !this.unsaved;
        return {
          plan: this.draft,
          date: this.date,
          of: this.#ofSowings ? 'sowings' : this.hand.selected,
          answered: (assessment) => {
            if (kept) this.#keptSowings ??= assessment.sowings;
            this.connected = true;
          },
        };
      });
    } catch (error) {
      this.explain(error);
      if (!(error instanceof Unreachable) && this.unsaved) this.discard();
    }
    this.#sayMoved();
  }

  protected async back() {
    if (this.stage === 'failed' || this.#seenOnly) {
      this.#seenOnly = false;
      return void this.load(this.date || null, this.view?.id);
    }
    await this.settle();
    await this.#assess();
  }

  /** Says by how many days an edit that is kept moved the day to sow. */
  #sayMoved() {
    if (this.unsaved || this.whatIf.asking || !this.assessment) return;
    const now = this.assessment.sowings;
    const said = movedSowings(this.#keptSowings, now);
    this.#keptSowings = now;
    if (said) this.tell('done', `Sowing dates moved: ${said}`);
  }
}

export const bench = new Workbench();
