import { beforeEach, describe, expect, it } from 'vitest';
import type { Feed } from '../api/client';
import { cords } from './cords.svelte';
import type { Bunch, Node } from './loads';

const feed = (id: string, kind: unknown) => ({ id, name: id, kind }) as unknown as Feed;
const circuit = feed('c', { circuit: { breaker_a: 16 } });
const strip = feed('strip', { strip: { rating_w: 2300, outlets: 6 } });
const inner = feed('inner', { strip: { rating_w: 2300, outlets: 6 } });
const chain = feed('chain', { chain: {} });

const device = (lamp: boolean) => ({ path: '/x', name: 'x', at: '', watts: 1, lamp });
const bunch = (lamp: boolean): Bunch => ({ name: 'x', at: '', watts: 1, devices: [device(lamp)] });
const node = (own: Feed, feeds: Node[] = []): Node => ({
  feed: own,
  index: 0,
  load: undefined,
  label_w: undefined,
  feeds,
  bunches: [],
});

describe('a cord in the hand', () => {
  beforeEach(() => cords.letGo());

  it('fits nowhere while nothing is held', () => {
    expect(cords.fits(strip)).toBe(false);
  });

  it('of a lamp fits a strip and a chain, of a mat no chain, and neither a circuit', () => {
    cords.holdBunch(bunch(true));
    expect([circuit, strip, chain].map((one) => cords.fits(one))).toEqual([false, true, true]);
    cords.holdBunch(bunch(false));
    expect([circuit, strip, chain].map((one) => cords.fits(one))).toEqual([false, true, false]);
  });

  it('of a strip fits no chain, and neither itself nor what hangs on it', () => {
    cords.holdFeed(node(strip, [node(inner)]));
    expect([strip, inner, chain].map((one) => cords.fits(one))).toEqual([false, false, false]);
    cords.holdFeed(node(inner));
    expect(cords.fits(strip)).toBe(true);
  });

  it('is picked by a tap, and let go by another', () => {
    const one = bunch(true);
    cords.pick(one);
    expect(cords.isPicked(bunch(true))).toBe(true);
    cords.pick(one);
    expect(cords.isPicked(one)).toBe(false);
  });
});
