// Where every plug and feed is in the front view of the room, and the cords between them: to scale along
// the row and over the floor.
import type { Feed, Plan } from '../api/client';
import type { Row } from '../room/canvas/geometry';
import { devices, type Device } from './loads';

export interface Point {
  /** From the left end of the row. */
  x: number;
  /** Over the floor. */
  z: number;
}

/** A cord from a plug to what it is plugged into. */
export interface Cord {
  key: string;
  from: Point;
  to: Point;
  /** What is plugged in. */
  name: string;
  /** Where the plug stands in the document. */
  paths: string[];
  lamp: boolean;
  /** Whether it is a lamp linked to the lamp before it. */
  linked: boolean;
  /** Whether a timer switches it. */
  timed: boolean;
  /** Which of the plugs in its feed it is, and of how many: they go side by side. */
  plug: [number, number];
}

export const feedAt = (feed: Feed): Point => ({ x: feed.x_mm ?? 0, z: feed.height_mm ?? 0 });

/** Where a device's cord leaves it; nothing for what is elsewhere in the house. */
function deviceAt(plan: Plan, row: Row, device: Device): Point | undefined {
  const [, list, p, , t, gear, i] = device.path.split('/');
  const place = list === 'places' ? plan.places[Number(p)] : undefined;
  const tier = place?.tiers[Number(t)];
  if (!place || !tier) return undefined;
  const left = row.lefts[Number(p)] ?? 0;
  if (gear === 'lamps') {
    const lamp = tier.lamps[Number(i)]!;
    return {
      x: left + lamp.x_mm,
      z: tier.deck_height_mm + lamp.height_mm + lamp.body_height_mm,
    };
  }
  if (gear === 'mats') {
    const mat = tier.mats[Number(i)]!;
    return { x: left + mat.x_mm, z: tier.deck_height_mm };
  }
  const fan = tier.fans[Number(i)]!;
  return { x: left + fan.x_mm, z: tier.deck_height_mm + fan.height_mm };
}

/** Every cord that is seen in the room, and the plugs that lie loose. */
export function sketch(plan: Plan, row: Row): { cords: Cord[]; loose: Cord[] } {
  const feeds = plan.wiring?.feeds ?? [];
  const cords: Cord[] = [];
  const loose: Cord[] = [];
  const ends: Record<string, Point> = {};
  const timed = (id: string | null | undefined, left = feeds.length): boolean => {
    const feed = feeds.find((other) => other.id === id);
    return feed !== undefined && left > 0 && ('timer' in feed.kind || timed(feed.into, left - 1));
  };
  feeds.forEach((feed, i) => {
    const into = feeds.find((other) => other.id === feed.into);
    if (!into) return;
    cords.push({
      key: feed.id,
      from: feedAt(feed),
      to: feedAt(into),
      name: feed.name,
      paths: [`/wiring/feeds/${i}/into`],
      lamp: false,
      linked: false,
      timed: timed(feed.into),
      plug: [0, 1],
    });
  });
  for (const device of devices(plan)) {
    const from = deviceAt(plan, row, device);
    if (!from) continue;
    const feed = feeds.find((feed) => feed.id === device.plugged);
    const cord = {
      key: device.path,
      from,
      to: from,
      name: device.name,
      paths: [device.path],
      lamp: device.lamp,
      linked: false,
      timed: timed(device.plugged),
      plug: [0, 1] as [number, number],
    };
    if (!feed) loose.push(cord);
    else if ('chain' in feed.kind) {
      // Each lamp of a chain is plugged into the one before it.
      const before = ends[feed.id];
      cords.push({ ...cord, to: before ?? feedAt(feed), linked: before !== undefined });
      ends[feed.id] = from;
    } else cords.push({ ...cord, to: feedAt(feed) });
  }
  // Those that end at one point go side by side.
  const ended: Record<string, Cord[]> = {};
  for (const cord of cords)
    if (!cord.linked) (ended[`${cord.to.x} ${cord.to.z}`] ??= []).push(cord);
  for (const here of Object.values(ended))
    here.forEach((cord, i) => (cord.plug = [i, here.length]));
  return { cords, loose };
}

/** Cords hang no lower than that under their lower end. */
const MOST_SAG_PX = 36;

/** A cord that hangs lower than both its ends: its drip loop, as an SVG path in px. */
export function hanging(a: { x: number; y: number }, b: { x: number; y: number }): string {
  const low =
    Math.max(a.y, b.y) + Math.min(10 + Math.hypot(a.x - b.x, a.y - b.y) * 0.1, MOST_SAG_PX);
  return `M${a.x} ${a.y}C${a.x} ${low} ${b.x} ${low} ${b.x} ${b.y}`;
}
