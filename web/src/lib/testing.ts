// What tests of the front end begin with.
import { readFileSync } from 'node:fs';
import type { Plan } from './api/client';

/** The Kettle Fen demo, anew each time. */
export function demo(): Plan {
  const file = new URL('../../../demo/kettle-fen.json', import.meta.url);
  return JSON.parse(readFileSync(file, 'utf8')) as Plan;
}
