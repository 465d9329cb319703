import { describe, expect, it } from 'vitest';
import type { Electricity, Feed, Plan } from '../api/client';
import { bunched, devices, outline, sockets, tree, windows } from './loads';
import { goodSteps, priceSteps } from './prices';
import { hanging, sketch } from './sketch';

const feed = (id: string, kind: unknown, into?: string) =>
  ({ id, name: id, into, kind, x_mm: 100, height_mm: 1500 }) as unknown as Feed;
const feeds = [
  feed('c', { circuit: { breaker_a: 16 } }),
  feed('s', { socket: { outlets: 2 } }, 'c'),
  feed('t', { timer: { rating_w: 1800, outlets: 1, clock: 'dial15' } }, 's'),
  feed('chain', { chain: {} }, 't'),
];
const lamp = (id: string, plugged?: string) => ({
  id,
  name: 'shop light',
  watts: 36,
  x_mm: 600,
  height_mm: 200,
  body_height_mm: 40,
  plugged,
});
const plan = {
  places: [
    {
      id: 'r',
      name: 'Rack',
      tiers: [
        {
          id: 't1',
          name: 'Tier 1',
          deck_height_mm: 300,
          lamps: [lamp('a', 'chain'), lamp('b', 'chain'), lamp('c')],
          mats: [],
          fans: [],
        },
      ],
    },
  ],
  wiring: { feeds, appliances: [{ id: 'h', name: 'heater', watts: 1500, plugged: 's' }] },
} as unknown as Plan;

describe('what hangs on what', () => {
  it('is a tree from the circuits, with lamps alike in one bunch', () => {
    const [circuit] = tree(plan, undefined);
    const socket = circuit!.feeds[0]!;
    expect(socket.bunches.map((bunch) => bunch.name)).toEqual(['heater']);
    const chain = socket.feeds[0]!.feeds[0]!;
    expect(chain.bunches.map((bunch) => [bunch.devices.length, bunch.watts])).toEqual([[2, 72]]);
    expect(bunched(devices(plan).filter((device) => !device.plugged))).toHaveLength(1);
  });

  it('lets only lamps into a chain, and nothing into a circuit', () => {
    expect(sockets(feeds, true).map((one) => one.id)).toEqual(['s', 't', 'chain']);
    expect(sockets(feeds, false).map((one) => one.id)).toEqual(['s', 't']);
  });

  it('draws a chain from lamp to lamp, and a loose plug where it lies', () => {
    const { cords, loose } = sketch(plan, { lefts: [75], width: 1500, tallest: 2000 });
    const lamps = cords.filter((cord) => cord.lamp);
    expect(lamps.map((cord) => cord.linked)).toEqual([false, true]);
    expect(lamps[1]!.to).toEqual(lamps[0]!.from);
    expect(lamps.every((cord) => cord.timed)).toBe(true);
    expect(loose).toHaveLength(1);
    const low = Number(/C\S+ (\S+)/.exec(hanging({ x: 0, y: 10 }, { x: 300, y: 40 }))![1]);
    expect(low).toBeGreaterThan(40);
  });
});

describe('the day', () => {
  const steps = [
    { from_h: 0, watts: 0, mean_w: 0 },
    { from_h: 6, watts: 100, mean_w: 50 },
  ];
  it('is drawn as steps', () => {
    expect(
      outline(
        steps,
        'watts',
        (h) => h,
        (w) => -w,
      ),
    ).toBe('M0 0L0 0L6 0L6 -100L24 -100L24 0Z');
  });

  it('has one window for all shelves on a timer', () => {
    const shelf = (tier: string, timer?: string) => ({
      bay: { place: 'r', tier },
      name: tier,
      timer,
      burning: tier === 't2',
      now: { from_h: 22, to_h: 14, cost_per_day: 1 },
      best: { from_h: 23, cost_per_day: 0.75 },
      better: tier === 't2',
      step_min: 15,
    });
    const shelves = [shelf('t1', 't'), shelf('t2', 't'), shelf('t3')];
    const found = windows({ shelves } as unknown as Electricity, feeds);
    expect(found.map((one) => [one.key, one.hours, one.better, one.saves])).toEqual([
      ['t', 16, true, 0.25],
      ['r/t3', 16, false, 0],
    ]);
  });
});

describe('prices', () => {
  it('are begun with the first, and changed in place', () => {
    expect(priceSteps(plan, 'packet', 2)).toEqual([
      { op: 'add', path: '/prices', value: { packet: 2 } },
    ]);
    const priced = { ...plan, prices: { goods: [{ name: 'lamp', owned: 1 }] } } as Plan;
    expect(goodSteps(priced, 'lamp', { price: 9 })).toEqual([
      { op: 'add', path: '/prices/goods/0/price', value: 9 },
    ]);
    expect(goodSteps(priced, 'mat', { owned: 2 })[0]).toMatchObject({
      path: '/prices/goods/-',
      value: { name: 'mat', owned: 2 },
    });
  });
});
