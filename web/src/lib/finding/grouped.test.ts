import { expect, test } from 'vitest';
import { applied, type Assessment, type Changes, type Finding } from '../api/client';
import { grouped } from './grouped';

const finding = (code: string, n: number) => ({ id: `${code}:${n}`, code }) as unknown as Finding;

test('alike findings stand together, in the order of their first', () => {
  const all = [finding('a', 1), finding('b', 1), finding('a', 2), finding('c', 1), finding('b', 2)];
  const ids = grouped(all).map((group) => group.map((f) => f.id));
  expect(ids).toEqual([['a:1', 'a:2'], ['b:1', 'b:2'], ['c:1']]);
  expect(grouped([])).toEqual([]);
});

test('what changed is put into what was there, and the rest stays the same object', () => {
  const before = {
    season: { fullest: 'a day' },
    sowings: [{ sowing: 'a' }, { sowing: 'b' }],
    to_sow: [],
    room: [{ date: 'x', places: [{ place: 'p' }], bays: [{ name: 'one' }, { name: 'two' }] }],
    findings: [finding('a', 1), finding('b', 1)],
  } as unknown as Assessment;
  const changes = {
    id: '2',
    sowings: [1, 0],
    to_sow: [],
    room: [{ date: 'x', places: [0], bays: [{ name: 'new' }, 1] }],
    findings: [1],
    caution: '',
    load_caution: '',
    light_caution: '',
  } as unknown as Changes;
  const now = applied(changes, before);
  expect(now.season).toBe(before.season);
  expect(now.sowings[0]).toBe(before.sowings[1]);
  expect(now.room[0]!.bays[1]).toBe(before.room[0]!.bays[1]);
  expect(now.room[0]!.bays[0]!.name).toBe('new');
  expect(now.findings).toEqual([before.findings[1]]);
});
