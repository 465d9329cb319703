import createClient from 'openapi-fetch';
import type { components, paths } from './schema.d.ts';

type Schemas = components['schemas'];
export type Adjustment = Schemas['Adjustment'];
export type Air = Schemas['Air'];
export type AirFrom = Schemas['AirFrom'];
export type ColdFrame = Schemas['ColdFrame'];
export type Cover = Schemas['Cover'];
export type OtherRoom = Schemas['OtherRoom'];
export type Envelope = Schemas['Envelope'];
export type LitRoomSeason = Schemas['LitRoomSeason'];
export type OutdoorYear = Schemas['OutdoorYear'];
export type RoomSize = Schemas['RoomSize'];
export type RoomWalls = Schemas['RoomWalls'];
export type Assessment = Omit<Schemas['Assessment'], 'room'> & { room: RoomOnDay[] };
export type Band = Schemas['Band'];
export type BayLight = Schemas['BayLight'];
export type LightWhy = Schemas['LightWhy'];
export type BayDetail = Schemas['BayDetail'];
/** With its trays, which the interface always asks for. */
export type BayOnDay = Schemas['BayOnDay'] & { trays: TrayOnDay[]; roots: TrayRoots[] };
export type BayRef = Schemas['BayRef'];
export type ClockSpan = Schemas['ClockSpan'];
export type Figure = Schemas['Figure'];
export type Finding = Schemas['Finding'];
export type Fix = Schemas['Fix'];
export type BayFit = Schemas['BayFit'];
export type ChamberWay = Schemas['ChamberWay'];
export type Changes = Schemas['Changes'];
export type { Schemas };
export type Crop = Schemas['Crop'];
export type CropStart = Schemas['CropStart'];
export type CropLibrary = Schemas['CropLibrary'];
export type DateSpan = Schemas['DateSpan'];
export type Edit = Schemas['Edit'];
export type Edited = Schemas['Edited'];
export type Electricity = Schemas['Electricity'];
export type Feed = Schemas['Feed'];
export type FeedLoad = Schemas['FeedLoad'];
export type Frontier = Schemas['Frontier'];
export type CostPoint = Schemas['CostPoint'];
export type Savings = Schemas['Savings'];
export type HourPrices = Schemas['HourPrices'];
export type Equipment = Schemas['Equipment'];
export type Fan = Schemas['Fan'];
export type Forms = Schemas['Forms'];
export type GearList = Schemas['GearList'];
export type Home = Schemas['Home'];
export type Habit = Schemas['Habit'];
export type Kinds = Schemas['Kinds'];
export type Lamp = Schemas['Lamp'];
export type Packet = Schemas['Packet'];
export type Preview = Schemas['Preview'];
export type Stage = Schemas['Stage'];
export type Sowing = Schemas['Sowing'];
export type SowingCells = Schemas['SowingCells'];
export type SowingDates = Schemas['SowingDates'];
export type ToSow = Schemas['ToSow'];
export type Understanding = Schemas['Understanding'];
export type Want = Schemas['Want'];
export type Luminaire = Schemas['Luminaire'];
export type Mat = Schemas['Mat'];
export type MatSeason = Schemas['MatSeason'];
export type PartOnDay = Schemas['PartOnDay'];
export type Place = Schemas['Place'];
export type PlaceOnDay = Schemas['PlaceOnDay'];
/** A step of a JSON Patch: the server's fixes replace and add, edits made here remove too. */
export interface PatchStep {
  op: 'add' | 'remove' | 'replace';
  path: string;
  value?: unknown;
}
export type Plan = Schemas['Plan'];
export type PlanSummary = Schemas['PlanSummary'];
export type PlanView = Schemas['PlanView'];
export type Probe = Schemas['Probe'];
export type Probed = Schemas['Probed'];
export type Problem = Schemas['Problem'];
export type Quantity = Schemas['Quantity'];
export type RoomOnDay = Omit<Schemas['RoomOnDay'], 'bays'> & { bays: BayOnDay[] };
export type Revision = Schemas['Revision'];
export type SetUp = Schemas['SetUp'];
export type SeasonDay = Schemas['SeasonDay'];
export type ShownUnit = Schemas['ShownUnit'];
export type BaySpots = Schemas['BaySpots'];
export type FreeSpot = Schemas['FreeSpot'];
export type Held = Schemas['Held'];
export type Onto = Schemas['Onto'];
export type PlaceSetting = Schemas['PlaceSetting'];
export type Share = Schemas['Share'];
export type Sharing = Schemas['Sharing'];
export type Tick = Schemas['Tick_Progress'];
export type TryingTick = Schemas['Tick_Trying'];
export type LesseningTick = Schemas['Tick_Lessening'];
export type Overflow = Schemas['Overflow'];
export type WayToFit = Schemas['WayToFit'];
export type LeastGear = Schemas['LeastGear'];
export type FrostNight = Schemas['FrostNight'];
export type Tray = Schemas['Tray'];
export type Today = Schemas['Today'];
export type Stop = Schemas['Stop'];
export type Job = Schemas['Job'];
export type JobFact = Schemas['JobFact'];
export type Recipe = Schemas['Recipe'];
export type Entry = Schemas['Entry'];
export type Fact = Schemas['Fact'];
export type About = Schemas['About'];
export type Measurement = Schemas['Measurement'];
export type Told = Schemas['Told'];
export type Story = Schemas['Story'];
export type Lesson = Schemas['Lesson'];
export type LessonEffect = Schemas['LessonEffect'];
export type Learned = Schemas['Learned'];
export type Meaning = Schemas['Meaning'];
export type Batch = Schemas['Batch'];
export type Comparison = Schemas['Comparison'];
export type Diagnosis = Schemas['Diagnosis'];
export type SymptomKind = Schemas['Symptom'];
export type HandedOn = Schemas['HandedOn'];
export type Track = Schemas['Track'];
export type TableRead = Schemas['TableRead'];
export type LogAsked = NonNullable<paths['/api/plans/{id}/log']['get']['parameters']['query']>;
export type Statement = Schemas['Statement'];
export type Settle = Schemas['Settle'];
export type Site = Schemas['Site'];
export type StepKind = Schemas['StepKind'];
export type SweepPoint = Schemas['SweepPoint'];
export type Thing = Schemas['Thing'];
export type Tier = Schemas['Tier'];
export type TrayRoots = Schemas['TrayRoots'];
export type TrayFormat = Schemas['TrayFormat'];
export type TrayOnDay = Schemas['TrayOnDay'];
export type UnplacedTray = Schemas['UnplacedTray'];
export type UnitRow = Schemas['UnitRow'];
export type UnitSystem = Schemas['UnitSystem'];
export type DateForm = Schemas['DateForm'];
export type WarmWay = Schemas['WarmWay'];
export type WarmWays = Schemas['WarmWays'];
export type Why = Schemas['Why'];

/** The server does not answer at all. */
export class Unreachable extends Error {}

/** The server answered with a problem. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** An assessment, and the name that the server gave it. */
export interface Assessed {
  id?: string;
  assessment: Assessment;
}

/** A list whose numbers stand for entries of the list before. */
function list<T>(parts: (T | number)[], before: T[] | undefined): T[] {
  return parts.map((part) => (typeof part === 'number' ? before![part]! : part));
}

/** The whole assessment that `changes` make of the one before. */
export function applied(changes: Changes, before: Assessment | undefined): Assessment {
  return {
    season: changes.season ?? before!.season,
    sowings: list(changes.sowings, before?.sowings),
    to_sow: changes.to_sow ? list(changes.to_sow, before?.to_sow ?? undefined) : undefined,
    room: changes.room.map((day, i) => ({
      ...day,
      places: list(day.places, before?.room[i]?.places),
      bays: list(day.bays as (BayOnDay | number)[], before?.room[i]?.bays),
    })),
    findings: list(changes.findings, before?.findings),
    caution: changes.caution,
    load_caution: changes.load_caution,
    light_caution: changes.light_caution,
  };
}

export const client = createClient<paths>({ baseUrl: '/' });

/** The plan whose log counts where a document is sent that is not kept. */
let logOf: number | undefined;
export function countLogOf(plan: number | undefined) {
  logOf = plan;
}

/** What is asked of a document goes by what happened, too. */
const logged = () => ({ params: { query: { log: logOf } } });

type Answer<T> = { data?: T; error?: unknown; response?: Response };

/** The answer's data; a problem or a dead line is thrown. */
export async function answered<T>(answer: Promise<Answer<T>>): Promise<T> {
  let result: Answer<T>;
  try {
    result = await answer;
  } catch {
    throw new Unreachable('The server cannot be reached.');
  }
  if (result.data !== undefined) return result.data;
  // Done, and nothing to say about it.
  if (result.response?.status === 204) return undefined as T;
  const problem = result.error as Problem | undefined;
  // A proxy's or a dying server's page is no problem document.
  if (problem?.detail === undefined) throw new Unreachable('The server cannot be reached.');
  throw new Refused(problem);
}

/** What comes in as server-sent events: each by its name. */
async function* events(response: Response): AsyncGenerator<{ name: string; data: string }> {
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let text = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    text += value;
    const blocks = text.split('\n\n');
    text = blocks.pop()!;
    for (const block of blocks) {
      const field = (name: string) =>
        block
          .split('\n')
          .filter((line) => line.startsWith(`${name}:`))
          .map((line) => line.slice(name.length + 1).trimStart())
          .join('\n');
      yield { name: field('event'), data: field('data') };
    }
  }
}

/** An answer that takes a while: `tick` hears how far it is. */
async function told<T, P>(path: string, body: unknown, tick: (tick: P) => void): Promise<T> {
  let response: Response;
  try {
    response = await fetch(logOf === undefined ? path : `${path}?log=${logOf}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', accept: 'text/event-stream' },
      body: JSON.stringify(body),
    });
  } catch {
    throw new Unreachable('The server cannot be reached.');
  }
  if (!response.ok) {
    const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
    if (problem?.detail === undefined) throw new Unreachable('The server cannot be reached.');
    throw new Refused(problem);
  }
  try {
    for await (const { name, data } of events(response)) {
      if (name === 'progress') tick(JSON.parse(data) as P);
      else if (name === 'problem') throw new Refused(JSON.parse(data) as Problem);
      else if (name === 'answer') return JSON.parse(data) as T;
    }
  } catch (error) {
    if (error instanceof Refused) throw error;
  }
  throw new Unreachable('The server cannot be reached.');
}

export const api = {
  /** Places every tray; `tick` hears how far it is. */
  placeAll: (plan: Plan, afresh: boolean, tick: (tick: Tick) => void) =>
    told<Edited, Tick>('/api/place-all', { plan, afresh }, tick),
  /** What has no room, and ways to make room. */
  makeRoom: (plan: Plan, tick: (tick: TryingTick) => void) =>
    told<Overflow, TryingTick>('/api/make-room', plan, tick),
  /** How few lit shelves and racks serve the season. */
  leastGear: (plan: Plan, tick: (tick: LesseningTick) => void) =>
    told<LeastGear, LesseningTick>('/api/least-gear', plan, tick),
  /** Where all that is outside goes for a night of frost; nothing where nothing is outside. */
  frostNight: (plan: Plan, date: string) =>
    answered(
      client.POST('/api/frost-night', { ...logged(), body: { plan, date } }),
    ) as Promise<FrostNight | null>,
  /** Ends placing, or a search: the best so far is the answer. */
  stopPlacing: (run: number) =>
    answered(client.POST('/api/placing/{run}/stop', { params: { path: { run } } })),
  health: () => answered(client.GET('/healthz')),
  units: () => answered(client.GET('/api/units')),
  kinds: (units: UnitSystem) =>
    answered(client.GET('/api/kinds', { params: { query: { units } } })),
  homes: () => answered(client.GET('/api/homes')),
  blankPlan: () => answered(client.GET('/api/blank-plan')),
  when: (plan: Plan, today: string) =>
    answered(client.POST('/api/when', { body: { plan, today } })),
  setAside: (id: number, aside: boolean) =>
    answered(
      client.PUT('/api/plans/{id}/aside', {
        params: { path: { id } },
        body: { aside },
        parseAs: 'text',
      }),
    ),
  /** The start of the next season, with what is named in `takes` taken over. */
  nextYear: (id: number, takes: string[]) =>
    answered(
      client.POST('/api/plans/{id}/next-year', {
        params: { path: { id }, query: { takes: takes.join(',') } },
      }),
    ),
  forms: () => answered(client.GET('/api/forms')),
  plans: () => answered(client.GET('/api/plans')),
  crops: () => answered(client.GET('/api/crops')),
  /** One case has one answer. */
  toSow: (want: Want) => answered(client.POST('/api/calc/seeds', { body: want })) as Promise<ToSow>,
  frost: (text: string, how: Understanding) =>
    answered(client.POST('/api/calc/frost', { body: { text, how } })),
  /** Begins with the demo, and what happened in it. */
  beginDemo: () => answered(client.POST('/api/demo-plan')),
  create: (plan: Plan, word: string) =>
    answered(client.POST('/api/plans', { body: { plan, word } })),
  /** With its first assessment, on the day named or its opening day. */
  plan: (id: number, on?: string) =>
    answered(client.GET('/api/plans/{id}', { params: { path: { id }, query: { on } } })),
  /** The plan that was edited last, in the same way; none when there is no plan yet. */
  lastPlan: async (on?: string) => {
    try {
      return await answered(client.GET('/api/last-plan', { params: { query: { on } } }));
    } catch (error) {
      if (error instanceof Refused && error.problem.status === 404) return undefined;
      throw error;
    }
  },
  deletedPlans: () => answered(client.GET('/api/deleted-plans')),
  deletePlan: (id: number) =>
    answered(client.DELETE('/api/plans/{id}', { params: { path: { id } }, parseAs: 'text' })),
  restorePlan: (id: number) =>
    answered(client.POST('/api/plans/{id}/restore', { params: { path: { id } } })),
  history: (id: number) =>
    answered(client.GET('/api/plans/{id}/revisions', { params: { path: { id } } })),
  save: (id: number, base_revision: number, plan: Plan, word: string, settle?: Settle) =>
    answered(
      client.POST('/api/plans/{id}/revisions', {
        params: { path: { id } },
        body: { base_revision, plan, word, settle },
      }),
    ),
  step: (id: number, base_revision: number, step: StepKind) =>
    answered(
      client.POST('/api/plans/{id}/step', {
        params: { path: { id } },
        body: { base_revision, step },
      }),
    ),
  /** What each bay has for a tray that is held. */
  spots: (plan: Plan, held: Held) =>
    answered(client.POST('/api/spots', { ...logged(), body: { plan, held } })),
  sharing: (plan: Plan, share: Share) =>
    answered(client.POST('/api/sharing', { ...logged(), body: { plan, share } })),
  compare: (plan: Plan, bay: BayRef, date: string) =>
    answered(client.POST('/api/compare', { ...logged(), body: { plan, bay, date } })),
  compareWarmth: (plan: Plan, bay: BayRef, date: string) =>
    answered(client.POST('/api/compare/warmth', { ...logged(), body: { plan, bay, date } })),
  compareChamber: (plan: Plan, bay: BayRef, date: string) =>
    answered(client.POST('/api/compare/chamber', { ...logged(), body: { plan, bay, date } })),
  /** The load of a day, and what the season costs. */
  power: (plan: Plan, date: string) =>
    answered(client.POST('/api/power', { ...logged(), body: { plan, date } })),
  /** What gives the same light for less. */
  savings: (plan: Plan, date: string, tick: (tick: LesseningTick) => void) =>
    told<Savings, LesseningTick>('/api/savings', { plan, date }, tick),
  /** Set-ups of a shelf by cost and by what they raise; nothing where nothing grows there. */
  frontier: (
    plan: Plan,
    bay: BayRef | undefined,
    date: string,
    tick: (tick: LesseningTick) => void,
  ) => told<Frontier | null, LesseningTick>('/api/frontier', { plan, bay, date }, tick),
  /** A tariff from the text of a CSV file. */
  tariff: (text: string) => answered(client.POST('/api/tariff', { body: { text } })),
  mats: (plan: Plan) => answered(client.POST('/api/mats', { ...logged(), body: plan })),
  probe: (plan: Plan, probe: Probe) =>
    answered(client.POST('/api/probe', { ...logged(), body: { plan, probe } })),
  /** A luminaire from the text of its photometric file. */
  photometry: (text: string) =>
    answered(client.POST('/api/calc/photometry', { body: text, bodySerializer: (body) => body })),
  edit: (plan: Plan, edit: Edit) =>
    answered(client.POST('/api/edit', { ...logged(), body: { plan, edit } })),
  /**
   * With the cells and fits of one bay at most, since only its sheet shows them, or with what all
   * sowings want.
   */
  assess: async (
    plan: Plan,
    date: string,
    bay: BayRef | 'sowings' | undefined,
    before: Assessed | undefined,
  ): Promise<Assessed> => {
    const detail = bay === 'sowings' ? bay : bay ? { bay } : ('outline' as const);
    const changes = await answered(
      client.POST('/api/assess/changes', {
        ...logged(),
        body: { what: { plan, from: date, to: date, detail }, since: before?.id },
      }),
    );
    return { id: changes.id, assessment: applied(changes, before?.assessment) };
  },
};
