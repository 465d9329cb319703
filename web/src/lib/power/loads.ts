// The day's load as lines to draw, and what hangs on what.
import type { Electricity, Feed, FeedLoad, Plan } from '../api/client';

type Step = { from_h: number; watts: number; mean_w: number };

/** The outline of a load over the day, as an SVG path; `x` and `y` place hours and watts. */
export function outline(
  steps: Step[],
  which: 'watts' | 'mean_w',
  x: (h: number) => number,
  y: (w: number) => number,
): string {
  const parts = steps.map((step, i) => {
    const to = steps[i + 1]?.from_h ?? 24;
    return `L${x(step.from_h)} ${y(step[which])}L${x(to)} ${y(step[which])}`;
  });
  return `M${x(0)} ${y(0)}${parts.join('')}L${x(24)} ${y(0)}Z`;
}

/** The word that says what a feed is. */
export function sort(feed: Feed): 'circuit' | 'socket' | 'strip' | 'timer' | 'chain' {
  return Object.keys(feed.kind)[0] as 'circuit';
}

/** A device that is plugged in, or is not. */
export interface Device {
  /** Where it stands in the document. */
  path: string;
  name: string;
  /** The shelf in words; empty for what is not in the room's places. */
  at: string;
  watts: number;
  plugged?: string | null;
  lamp: boolean;
}

/** Every lamp, mat, fan and appliance of a plan. */
export function devices(plan: Plan): Device[] {
  const found: Device[] = [];
  plan.places.forEach((place, p) =>
    place.tiers.forEach((tier, t) => {
      const at = place.tiers.length > 1 ? `${place.name}, ${tier.name}` : place.name;
      for (const list of ['lamps', 'mats', 'fans'] as const)
        tier[list].forEach((gear, i) =>
          found.push({
            path: `/places/${p}/tiers/${t}/${list}/${i}/plugged`,
            name: gear.name,
            at,
            watts: gear.watts,
            plugged: gear.plugged,
            lamp: list === 'lamps',
          }),
        );
    }),
  );
  plan.wiring?.appliances?.forEach((load, i) =>
    found.push({
      path: `/wiring/appliances/${i}/plugged`,
      name: load.name,
      at: '',
      watts: load.watts,
      plugged: load.plugged,
      lamp: false,
    }),
  );
  return found;
}

/** Devices that are alike on one shelf, together. */
export interface Bunch {
  name: string;
  at: string;
  watts: number;
  devices: Device[];
}

export function bunched(all: Device[]): Bunch[] {
  const bunches: Bunch[] = [];
  for (const device of all) {
    const like = bunches.find((b) => b.name === device.name && b.at === device.at);
    if (like) {
      like.devices.push(device);
      like.watts += device.watts;
    } else
      bunches.push({ name: device.name, at: device.at, watts: device.watts, devices: [device] });
  }
  return bunches;
}

/** A feed with what is plugged into it. */
export interface Node {
  feed: Feed;
  index: number;
  load: FeedLoad | undefined;
  /** What hangs on it by the labels, in W. */
  label_w: number | undefined;
  feeds: Node[];
  bunches: Bunch[];
}

/** The tree of cords: circuits, and feeds that are plugged in nowhere. */
export function tree(plan: Plan, answer: Electricity | undefined): Node[] {
  const feeds = plan.wiring?.feeds ?? [];
  const all = devices(plan);
  const node = (feed: Feed, index: number): Node => ({
    feed,
    index,
    load: answer?.load.feeds.find((load) => load.feed === feed.id),
    label_w: answer?.labels_w[index],
    feeds: feeds.flatMap((other, i) => (other.into === feed.id ? [node(other, i)] : [])),
    bunches: bunched(all.filter((device) => device.plugged === feed.id)),
  });
  return feeds.flatMap((feed, i) => (feed.into ? [] : [node(feed, i)]));
}

/** The feeds that something may be plugged into: not a circuit, and only lamps into a chain. */
export function sockets(feeds: Feed[], lamp: boolean): Feed[] {
  return feeds.filter((feed) => {
    const what = sort(feed);
    return what !== 'circuit' && (what !== 'chain' || lamp);
  });
}

/** A run of lamps that one timer switches, or one shelf without a timer. */
export interface Window {
  key: string;
  name: string;
  shelves: Electricity['shelves'];
  fromH: number;
  hours: number;
  stepMin: number;
  /** Whether any of it burns that day. */
  burning: boolean;
  /** Where it had best begin, whether that is worth it, and what it saves a day. */
  bestH: number;
  better: boolean;
  saves: number;
}

const saved = (shelf: Electricity['shelves'][number]) =>
  shelf.burning ? shelf.now.cost_per_day - shelf.best.cost_per_day : 0;

/** The windows of a day: by timer, else shelf by shelf. */
export function windows(answer: Electricity, feeds: Feed[]): Window[] {
  const found: Window[] = [];
  for (const shelf of answer.shelves) {
    const hours = (shelf.now.to_h - shelf.now.from_h + 24) % 24;
    const like = shelf.timer && found.find((window) => window.key === shelf.timer);
    if (like) {
      like.shelves.push(shelf);
      like.burning ||= shelf.burning;
      like.better ||= shelf.better;
      like.saves += saved(shelf);
    } else
      found.push({
        key: shelf.timer ?? `${shelf.bay.place}/${shelf.bay.tier}`,
        name: feeds.find((feed) => feed.id === shelf.timer)?.name ?? shelf.name,
        shelves: [shelf],
        fromH: shelf.now.from_h,
        hours,
        stepMin: shelf.step_min,
        burning: shelf.burning,
        bestH: shelf.best.from_h,
        better: shelf.better,
        saves: saved(shelf),
      });
  }
  return found;
}
