// Plans as wholes: begun, deleted, brought back.
import { api, type Plan, Refused } from '../api/client';
import { bench } from './workbench.svelte';

/** Deletes a plan, and opens another when it was this one. */
export async function deletePlan(id: number) {
  await bench.settle();
  try {
    await api.deletePlan(id);
    if (bench.view?.id === id) await bench.load(null);
  } catch (error) {
    bench.explain(error);
  }
}

/** Brings a deleted plan back, and opens it. */
export async function restorePlan(id: number) {
  await bench.settle();
  try {
    await api.restorePlan(id);
    await bench.load(null, id);
  } catch (error) {
    bench.explain(error);
  }
}

/** Copies a plan as the start of the next season with the lessons named in `takes`, and opens the copy. */
export async function nextYear(id: number, takes: string[]) {
  await bench.settle();
  try {
    const copy = await api.nextYear(id, takes);
    bench.open(copy, null);
    const lessons = takes.length === 1 ? 'one lesson' : `${takes.length} lessons`;
    const taken = takes.length === 0 ? '' : `, with ${lessons} of this season taken over`;
    bench.tell('done', `This is ${copy.plan.name}: all dates a year later${taken}.`);
  } catch (error) {
    bench.explain(error);
  }
}

/** Keeps a new plan and opens it; says what is wrong with it otherwise. */
export async function begin(plan: Plan, word: string) {
  try {
    bench.open(await api.create(plan, word), null);
  } catch (error) {
    // Of a whole document the path says where.
    if (error instanceof Refused) bench.tell('wrong', error.message);
    else bench.explain(error);
  }
}

export async function beginWithDemo() {
  try {
    bench.open(await api.beginDemo(), null);
  } catch (error) {
    bench.fail(error);
  }
}
