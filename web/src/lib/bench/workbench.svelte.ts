// The plan on the bench: what the server keeps, what is being edited, and what follows from it.
import { immutableJSONPatch, type JSONPatchDocument } from 'immutable-json-patch';
import { SvelteSet } from 'svelte/reactivity';
import {
  api,
  Refused,
  Unreachable,
  type Assessed,
  type Assessment,
  type BayOnDay,
  type BayRef,
  type Edit,
  type Finding,
  type Fix,
  type Forms,
  type Kinds,
  type PatchStep,
  type Plan,
  type PlanSummary,
  type PlanView,
  type Place,
  type PlaceOnDay,
  type RoomOnDay,
  type SowingDates,
  type StepKind,
  type Thing,
  type UnitRow,
  type UnitSystem,
} from '../api/client';
import { reused } from './reuse';
import { Words, clampDate, daysBetween, movedBy, plusDays, unitsFor } from '../say/words';

/** A run of nudges becomes one edit when the hand has rested this long. */
const REST_MS = 700;
/** The longest word that the history keeps. */
const WORD_LENGTH = 120;
/** How often a lost server is asked whether it is back. */
const RETRY_MS = 2000;

export interface Notice {
  id: number;
  tone: 'done' | 'wrong';
  text: string;
}

class Workbench {
  stage: 'loading' | 'empty' | 'failed' | 'ready' = $state('loading');
  failure = $state('');
  connected = $state(true);
  /** What keeps the server from saving anything, in its own words. */
  trouble = $state('');
  /** Where the server put a damaged database when it started. */
  setAside = $state('');
  /** The plans there are, when the one to open could not be. */
  others: PlanSummary[] = $state.raw([]);
  view: PlanView | undefined = $state.raw();
  /** The document with edits that are not saved yet. */
  draft: Plan | undefined = $state.raw();
  assessment: Assessment | undefined = $state.raw();
  date = $state('');
  /** What the hand has picked: places, tiers, lamps, mats and fans. */
  picked: Thing[] = $state.raw([]);
  /** Whether edges and decks can be dragged, and the shelf of kinds is open. */
  building = $state(false);
  /** Whether each tap picks one more thing, as Shift does with a keyboard. */
  pickingMore = $state(false);
  kinds: Kinds | undefined = $state.raw();
  conflict = $state(false);
  notices: Notice[] = $state([]);
  /** How long the last what-if took from the input to the new figures, in ms. */
  roundTripMs = $state(0);

  /** What fields begin with and can be. */
  forms: Forms | undefined = $state.raw();

  #rows: UnitRow[] = $state.raw([]);
  #chosenUnits: UnitSystem | undefined = $state();
  #unsavedWord = '';
  #rest: ReturnType<typeof setTimeout> | undefined;
  /** The name of the assessment that is shown: the next is asked for as what changes since. */
  #assessed: Assessed | undefined;
  #assessing = false;
  #stale = false;
  #saving: Promise<void> | undefined;
  #noticeId = 0;
  /** Whether a view of sowings is open: it wants the whole season, and no bay. */
  #ofSowings = false;
  /** The dates of every sowing in the plan as it is kept: what an edit moves is told against them. */
  #keptSowings: SowingDates[] | undefined;

  system: UnitSystem = $derived(this.#chosenUnits ?? this.draft?.site.units ?? 'metric');
  words = $derived(
    new Words(
      unitsFor(this.#rows, this.system),
      this.system,
      this.draft?.site.currency ?? 'EUR',
      this.#rows,
    ),
  );
  room: RoomOnDay | undefined = $derived(this.assessment?.room[0]);
  places: Place[] = $derived(this.draft?.places ?? []);
  /** The one bay that is picked, itself or by something in it. */
  selected: BayRef | undefined = $derived.by(() => {
    const [only] = this.picked;
    return this.picked.length === 1 && only?.tier
      ? { place: only.place, tier: only.tier }
      : undefined;
  });
  bay: BayOnDay | undefined = $derived(this.room?.bays.find((b) => same(b.bay, this.selected)));
  /** The one place that is picked as a whole. */
  place: Place | undefined = $derived.by(() => {
    const [only] = this.picked;
    return this.picked.length === 1 && only && !only.tier
      ? this.places.find((place) => place.id === only.place)
      : undefined;
  });
  placeOnDay: PlaceOnDay | undefined = $derived(
    this.room?.places.find((p) => p.place === this.place?.id),
  );

  /** Opens the plan of this number, or the one that was edited last. */
  async load(date: string | null, id?: number) {
    this.stage = 'loading';
    const on = date && /^\d{4}-\d{2}-\d{2}$/.test(date) ? date : undefined;
    try {
      const view = id === undefined ? api.lastPlan(on) : api.plan(id, on);
      const [rows, forms, opened] = await Promise.all([api.units(), api.forms(), view]);
      this.#rows = rows;
      this.forms = forms;
      if (!opened) {
        this.stage = 'empty';
      } else {
        this.#take(opened);
        this.#open(date);
      }
      void this.watch();
    } catch (error) {
      this.#fail(error);
      // One plan that cannot be opened must not hide the others.
      this.others = await api.plans().catch(() => []);
    }
  }

  /** Deletes a plan, and opens another when it was this one. */
  async deletePlan(id: number) {
    await this.settle();
    try {
      await api.deletePlan(id);
      if (this.view?.id === id) await this.load(null);
    } catch (error) {
      this.#explain(error);
    }
  }

  /** Brings a deleted plan back, and opens it. */
  async restorePlan(id: number) {
    await this.settle();
    try {
      await api.restorePlan(id);
      await this.load(null, id);
    } catch (error) {
      this.#explain(error);
    }
  }

  #explain(error: unknown) {
    if (error instanceof Unreachable) this.#lost();
    else this.tell('wrong', error instanceof Error ? error.message : String(error));
  }

  /** Keeps a new plan and opens it; says what is wrong with it otherwise. */
  async begin(plan: Plan, word: string) {
    try {
      this.#take(await api.create(plan, word));
      this.#open(null);
    } catch (error) {
      this.tell('wrong', error instanceof Error ? error.message : String(error));
    }
  }

  async beginWithDemo() {
    try {
      await this.begin(await api.demoPlan(), 'began with the Kettle Fen demo');
    } catch (error) {
      this.#fail(error);
    }
  }

  #open(date: string | null) {
    const view = this.view!;
    const { from, to } = view.plan.season;
    const asked = date && /^\d{4}-\d{2}-\d{2}$/.test(date) ? date : view.opening_day;
    this.date = clampDate(asked, from, to);
    this.stage = 'ready';
    this.#keptSowings = undefined;
    this.#assessed = undefined;
    const first = view.assessment;
    if (first?.room[0]?.date === this.date) {
      // It came with the plan; what one bay or the sowings want besides is asked for next.
      this.assessment = reused(this.assessment, first);
      this.#keptSowings = this.assessment.sowings;
      if (!this.selected && !this.#ofSowings) return;
    }
    void this.#assess();
  }

  #fail(error: unknown) {
    this.failure = error instanceof Error ? error.message : String(error);
    this.stage = 'failed';
  }

  chooseUnits(system: UnitSystem | undefined) {
    this.#chosenUnits = system;
  }

  go(date: string) {
    if (!this.draft) return;
    const { from, to } = this.draft.season;
    this.date = clampDate(date, from, to);
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
    const before = this.selected;
    if (!thing) this.picked = [];
    else if (!besides && !this.pickingMore) this.picked = [thing];
    else if (this.isPicked(thing)) this.picked = this.picked.filter((t) => !sameThing(t, thing));
    else this.picked = [...this.picked, thing];
    // Only the picked bay's cells and fits are fetched.
    if (this.selected && !same(before, this.selected)) void this.#assess();
  }

  isPicked(thing: Thing): boolean {
    return this.picked.some((other) => sameThing(other, thing));
  }

  /** Findings about a bay, or all. */
  findings(bay?: BayRef): Finding[] {
    const all = this.assessment?.findings ?? [];
    return bay ? all.filter((f) => same(f.bay ?? undefined, bay)) : all;
  }

  /** Findings about a place as a whole. */
  findingsOn(place: string): Finding[] {
    return this.findings().filter((f) => f.place === place && !f.bay);
  }

  async fetchKinds() {
    try {
      this.kinds ??= await api.kinds();
    } catch (error) {
      this.tell('wrong', error instanceof Error ? error.message : String(error));
    }
  }

  /** Changes the plan's form and keeps it; what was made is picked. */
  async edit(edit: Edit) {
    await this.settle();
    if (!this.draft || this.conflict || this.unsaved) return;
    try {
      const { plan, word, made } = await api.edit(this.draft, edit);
      this.draft = reused(this.draft, plan);
      this.#unsavedWord = this.words.say(word).slice(0, WORD_LENGTH);
      if (made.length > 0) this.picked = made;
      this.#letGo();
      void this.#assess();
      await this.settle();
    } catch (error) {
      if (error instanceof Unreachable) this.#lost();
      else this.tell('wrong', error instanceof Error ? error.message : String(error));
    }
  }

  /** Lets go of what is not in the plan any more. */
  #letGo() {
    const there = (thing: Thing) => {
      const place = this.draft?.places.find((p) => p.id === thing.place);
      const tier = place?.tiers.find((t) => t.id === thing.tier);
      if (!thing.tier) return !!place;
      return !thing.gear
        ? !!tier
        : !!tier?.[thing.gear.list].some((item) => item.id === thing.gear?.id);
    };
    if (!this.picked.every(there)) this.picked = this.picked.filter(there);
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

  /** What the figure at `path` can be: of the plan, or of a calculator under `/calc/`. */
  rangeOf(path: string): { least: number; most: number } | undefined {
    return this.forms?.ranges[path.replace(/\/\d+(?=\/|$)/g, '/*')];
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
      const saved = await api.save(view.id, view.revision, draft, word);
      this.connected = true;
      this.trouble = '';
      // Edits made while this one travelled stay on the bench.
      const more = this.draft !== draft;
      this.#take(saved, more);
      this.#sayMoved();
    } catch (error) {
      if (error instanceof Unreachable) {
        this.#lost();
      } else if (error instanceof Refused && error.problem.status === 409) {
        this.conflict = true;
      } else if (error instanceof Refused && [503, 507].includes(error.problem.status)) {
        // The disk is full, or the folder is gone: the change stays on the bench until it is not.
        this.trouble = error.message;
        this.#rest = setTimeout(() => void this.settle(), RETRY_MS * 2);
      } else {
        this.tell('wrong', error instanceof Error ? error.message : String(error));
        this.discard();
      }
    }
  }

  #take(view: PlanView, keepDraft = false) {
    this.view = view;
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
    if (!view || this.conflict) return;
    if (step === 'undo' && view.undo == null) return this.tell('done', 'There is nothing to undo.');
    if (step === 'redo' && view.redo == null) return this.tell('done', 'There is nothing to redo.');
    try {
      const word = step === 'undo' ? view.undo : view.redo;
      this.#take(await api.step(view.id, view.revision, step));
      this.date = clampDate(this.date, this.draft!.season.from, this.draft!.season.to);
      if (step === 'undo') this.tell('done', `Undone: ${word}`);
      else if (step === 'redo') this.tell('done', `Done again: ${word}`);
      await this.#assess();
    } catch (error) {
      if (error instanceof Unreachable) this.#lost();
      else if (error instanceof Refused && error.problem.current_revision != null)
        this.conflict = true;
      else this.tell('wrong', error instanceof Error ? error.message : String(error));
    }
  }

  /** One click: the finding's own edit of the plan. */
  async apply(fix: Fix) {
    this.try(fix.patch, this.words.say(fix.word));
    await this.settle();
  }

  /** After a conflict: take what the other one saved, or save mine on top of it. */
  async resolve(choice: 'theirs' | 'mine') {
    const mine = this.draft!;
    const word = this.#unsavedWord;
    try {
      const theirs = await api.plan(this.view!.id);
      this.conflict = false;
      this.#take(theirs);
      if (choice === 'mine' && word) {
        this.draft = mine;
        this.#unsavedWord = word;
        await this.settle();
      }
      await this.#assess();
    } catch (error) {
      if (error instanceof Unreachable) this.#lost();
      else this.tell('wrong', String(error));
    }
  }

  /** One what-if at a time; whatever changed meanwhile is asked next. */
  async #assess() {
    if (this.#assessing) {
      this.#stale = true;
      return;
    }
    this.#assessing = true;
    try {
      do {
        this.#stale = false;
        if (!this.draft) return;
        const began = performance.now();
        const date = this.date;
        const kept = !this.unsaved;
        const wanted = this.#ofSowings ? 'sowings' : this.selected;
        const before = this.#assessed;
        const assessed = await api.assess(this.draft, date, wanted, before);
        // Entries that the server did not send again are the same objects already.
        this.assessment = before
          ? assessed.assessment
          : reused(this.assessment, assessed.assessment);
        this.#assessed = { id: assessed.id!, assessment: this.assessment };
        if (kept) this.#keptSowings ??= this.assessment.sowings;
        this.connected = true;
        requestAnimationFrame(() => (this.roundTripMs = performance.now() - began));
      } while (this.#stale);
    } catch (error) {
      if (error instanceof Unreachable) this.#lost();
      else {
        this.tell('wrong', error instanceof Error ? error.message : String(error));
        if (this.unsaved) this.discard();
      }
    } finally {
      this.#assessing = false;
    }
    this.#sayMoved();
  }

  /** Says by how many days an edit that is kept moved the day to sow. */
  #sayMoved() {
    if (this.unsaved || this.#assessing || !this.assessment) return;
    const now = this.assessment.sowings;
    const before = new Map(this.#keptSowings?.map((dates) => [dates.sowing, dates.sow]));
    this.#keptSowings = now;
    const moved = now
      .map((dates) => ({
        name: dates.name,
        days: daysBetween(before.get(dates.sowing) ?? dates.sow, dates.sow),
      }))
      .filter(({ days }) => days !== 0);
    if (moved.length === 0) return;
    moved.sort((a, b) => Math.abs(b.days) - Math.abs(a.days));
    const said = moved.slice(0, 2).map(({ name, days }) => `${name} ${movedBy(days)}`);
    if (moved.length > 2) said.push(`${moved.length - 2} more`);
    this.tell('done', `Day to sow: ${said.join('; ')}`);
  }

  #lost() {
    if (!this.connected) return;
    this.connected = false;
    const again = async () => {
      try {
        await api.health();
        this.connected = true;
        if (this.stage === 'failed') return void this.load(null);
        await this.settle();
        await this.#assess();
      } catch {
        setTimeout(() => void again(), RETRY_MS);
      }
    };
    setTimeout(() => void again(), RETRY_MS);
  }

  /** Notices a server that went away while nothing was asked of it, and what ails it. */
  async watch() {
    if (!this.connected) return;
    try {
      const health = await api.health();
      this.trouble = '';
      this.setAside = health.set_aside ?? '';
    } catch (error) {
      if (error instanceof Refused) this.trouble = error.message;
      else this.#lost();
    }
  }

  tell(tone: Notice['tone'], text: string) {
    if (this.notices.some((notice) => notice.text === text)) return;
    const id = ++this.#noticeId;
    this.notices = [...this.notices.slice(-2), { id, tone, text }];
    setTimeout(() => this.dismiss(id), tone === 'wrong' ? 12_000 : 4000);
  }

  dismiss(id: number) {
    this.notices = this.notices.filter((notice) => notice.id !== id);
  }

  /** Crops, trays, bays and findings whose words hold `text`. */
  find(text: string): Found[] {
    const wanted = text.trim().toLowerCase();
    if (!wanted || !this.draft) return [];
    const hits: Found[] = [];
    const seen = new SvelteSet<string>();
    const add = (found: Found) => {
      const said = `${found.kind} ${found.title} ${found.detail}`;
      const key = found.id ?? said;
      if (!said.toLowerCase().includes(wanted) || seen.has(key)) return;
      seen.add(key);
      hits.push(found);
    };
    const sowings = this.assessment?.sowings ?? [];
    for (const { id, name } of this.places) {
      add({ kind: 'place', title: name, detail: '', place: id });
    }
    for (const bay of this.room?.bays ?? []) {
      add({ kind: 'bay', title: bay.name, detail: '', bay: bay.bay });
    }
    for (const dates of sowings) {
      const detail = `sow ${this.words.shortDate(dates.sow)}, out ${this.words.shortDate(dates.out)}`;
      add({ kind: 'sowing', title: dates.name, detail, date: dates.sow });
    }
    for (const tray of this.draft.trays) {
      const parts = tray.parts.map((part) => sowings.find((s) => s.sowing === part.sowing));
      const up = tray.stands.find((stand) => stand.stage === 'grow');
      add({
        kind: 'tray',
        title: tray.name,
        detail: parts.map((dates) => dates?.name ?? '').join('; '),
        bay: (up ?? tray.stands[0])?.bay,
        date: (up ? parts[0]?.emerge : undefined) ?? parts[0]?.sow,
      });
    }
    for (const finding of this.findings()) {
      add({
        kind: 'finding',
        title: this.words.say(finding.headline),
        detail: this.words.say(finding.reason),
        id: finding.id,
        bay: finding.bay ?? undefined,
        place: finding.place ?? undefined,
        date: finding.days.from,
      });
    }
    return hits.slice(0, 12);
  }
}

export interface Found {
  kind: 'place' | 'bay' | 'sowing' | 'tray' | 'finding';
  title: string;
  detail: string;
  /** A finding's own name. */
  id?: string;
  bay?: BayRef | undefined;
  place?: string | undefined;
  date?: string | undefined;
}

export function same(a: BayRef | undefined, b: BayRef | undefined): boolean {
  return !!a && !!b && a.place === b.place && a.tier === b.tier;
}

export function sameThing(a: Thing, b: Thing): boolean {
  return (
    a.place === b.place &&
    (a.tier ?? '') === (b.tier ?? '') &&
    a.gear?.list === b.gear?.list &&
    a.gear?.id === b.gear?.id
  );
}

export const bench = new Workbench();
