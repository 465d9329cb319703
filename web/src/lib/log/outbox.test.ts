import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Entry } from '../api/client';

const note = vi.fn();
const bench = {
  view: { id: 1 },
  words: { say: ({ text }: { text: string }) => text },
  watch: vi.fn(),
  tell: vi.fn(),
  explain: vi.fn(),
  noted: vi.fn(),
};
vi.mock('../api/log', () => ({ logApi: { note, keepPhoto: vi.fn() } }));
vi.mock('../bench/seen', () => ({ photoOf: vi.fn(), forgetPhoto: vi.fn() }));
vi.mock('../bench/workbench.svelte', () => ({ bench }));

const store = new Map<string, string>();
vi.stubGlobal('localStorage', {
  getItem: (key: string) => store.get(key) ?? null,
  setItem: (key: string, value: string) => void store.set(key, value),
});

const entry = (id: string): Entry => ({ id, on: '2027-04-09', fact: { done: { job: 'wash' } } });
const kept = (entries: Entry[], faulty: string[] = []) => ({
  entries: entries.map(({ id }) => ({
    kept: 'new',
    faults: faulty.includes(id) ? [{ problem: { text: 'no such tray' } }] : [],
  })),
  not_followed: [],
  plan_changed: false,
});
const ids = (list: { entry: Entry }[]) => list.map((own) => own.entry.id);

/** The page as it opens: what the device keeps is there. */
async function opened() {
  vi.resetModules();
  return (await import('./outbox.svelte')).outbox;
}

/** The server cannot be reached. The error is of the page as it was opened last, which knows it by its class. */
async function gone() {
  const { Unreachable } = await import('../api/client');
  throw new Unreachable('gone');
}

beforeEach(() => {
  store.clear();
  note.mockReset();
  bench.watch.mockReset();
});

describe('what was noted', () => {
  it('waits on the device while the server cannot be reached, also when the page is opened anew', async () => {
    note.mockImplementation(gone);
    const outbox = await opened();
    outbox.note(1, [entry('a')], 'wash/door');
    await vi.waitFor(() => expect(note).toHaveBeenCalled());
    expect(ids(outbox.waiting)).toEqual(['a']);
    expect(outbox.taken).toEqual([]);
    expect(ids((await opened()).waiting)).toEqual(['a']);
  });

  it('answers its job after it was sent, until a walk knows of it', async () => {
    note.mockImplementation((_: number, entries: Entry[]) => Promise.resolve(kept(entries)));
    const outbox = await opened();
    outbox.note(1, [entry('a')], 'wash/door');
    outbox.note(1, [entry('b')]);
    await vi.waitFor(() => expect(outbox.waiting).toEqual([]));
    // What answers no job need not be remembered.
    expect(ids(outbox.taken)).toEqual(['a']);
    expect(ids((await opened()).taken)).toEqual(['a']);
    // A walk that was asked for before knows nothing of what was sent since.
    outbox.walked([]);
    expect(ids(outbox.taken)).toEqual(['a']);
    outbox.walked(outbox.taken);
    expect(outbox.taken).toEqual([]);
    expect((await opened()).taken).toEqual([]);
  });

  it('is told with the reason when the server refuses it, and its job is open again', async () => {
    note.mockImplementation((_: number, entries: Entry[]) => Promise.resolve(kept(entries, ['a'])));
    const outbox = await opened();
    outbox.note(1, [entry('a'), entry('b')], 'wash/door');
    await vi.waitFor(() => expect(outbox.waiting).toEqual([]));
    expect(ids(outbox.refused)).toEqual(['a']);
    expect(outbox.refused[0]!.why).toBe('no such tray');
    expect(ids(outbox.taken)).toEqual(['b']);
    outbox.dismiss('a');
    expect(outbox.refused).toEqual([]);
  });

  it('can be taken back while it waits, and not after', async () => {
    note.mockImplementation(gone);
    const outbox = await opened();
    outbox.note(1, [entry('a')], 'wash/door');
    await vi.waitFor(() => expect(bench.watch).toHaveBeenCalled());
    expect(outbox.drop('a')).toBe(true);
    expect(outbox.waiting).toEqual([]);
    expect(outbox.drop('a')).toBe(false);
  });

  it('cannot be taken back while it is on its way', async () => {
    let arrive = () => {};
    note.mockImplementation(
      (_: number, entries: Entry[]) => new Promise((done) => (arrive = () => done(kept(entries)))),
    );
    const outbox = await opened();
    outbox.note(1, [entry('a')], 'wash/door');
    await vi.waitFor(() => expect(note).toHaveBeenCalled());
    expect(outbox.drop('a')).toBe(false);
    expect(ids(outbox.waiting)).toEqual(['a']);
    arrive();
    await vi.waitFor(() => expect(outbox.waiting).toEqual([]));
    expect(ids(outbox.taken)).toEqual(['a']);
  });
});
