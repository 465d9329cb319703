// What a season teaches: corrections, two batches, causes of what is seen, and what the next year takes over.
import { answered, client, type Batch, type Entry, type Meaning, type SymptomKind } from './client';

export const learnApi = {
  lessons: (id: number, put_in: string[]) =>
    answered(
      client.GET('/api/plans/{id}/lessons', {
        params: { path: { id }, query: { put_in: put_in.join(',') } },
      }),
    ),
  /** What accepting a lesson would change. */
  effect: (id: number, lesson: string, put_in: string[]) =>
    answered(
      client.GET('/api/plans/{id}/lesson-effect', {
        params: { path: { id }, query: { lesson, put_in: put_in.join(',') } },
      }),
    ),
  /** What a reading means, before it is noted. */
  meaning: (id: number, entry: Entry) =>
    answered(
      client.POST('/api/plans/{id}/meaning', { params: { path: { id } }, body: entry }),
    ) as Promise<Meaning | null>,
  compare: (id: number, a: Batch, b: Batch, b_plan: number | undefined) =>
    answered(
      client.POST('/api/plans/{id}/comparison', {
        params: { path: { id } },
        body: { a, b, ...(b_plan === undefined ? {} : { b_plan }) },
      }),
    ),
  diagnosis: (id: number, tray: string, symptom: SymptomKind, on: string) =>
    answered(
      client.GET('/api/plans/{id}/trays/{tray}/diagnosis', {
        params: { path: { id, tray }, query: { symptom, on } },
      }),
    ),
  /** What a season hands on to the next. */
  handedOn: (id: number) =>
    answered(client.GET('/api/plans/{id}/handed-on', { params: { path: { id } } })),
};
