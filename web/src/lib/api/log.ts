// What happened: noted, asked for, and what is to be done by it.
import { answered, client, type Entry, type LogAsked } from './client';

export const logApi = {
  /** What is to be done on a day, as a walk round the room. */
  today: (id: number, on: string) =>
    answered(client.GET('/api/plans/{id}/today', { params: { path: { id }, query: { on } } })),
  /** What was noted, the last day first. */
  log: (id: number, query: LogAsked) =>
    answered(client.GET('/api/plans/{id}/log', { params: { path: { id }, query } })),
  note: (id: number, entries: Entry[]) =>
    answered(client.POST('/api/plans/{id}/log', { params: { path: { id } }, body: { entries } })),
  logTable: (id: number, text: string, keep_sound: boolean) =>
    answered(
      client.POST('/api/plans/{id}/log/table', {
        params: { path: { id } },
        body: { text, keep_sound },
      }),
    ),
  /** The life of a tray: planned beside happened. */
  story: (id: number, tray: string) =>
    answered(client.GET('/api/plans/{id}/trays/{tray}/story', { params: { path: { id, tray } } })),
  keepPhoto: async (id: number, name: string, photo: Blob) => {
    await answered(
      client.PUT('/api/plans/{id}/photos/{name}', {
        params: { path: { id, name } },
        body: photo as never,
        bodySerializer: (body) => body as never,
        headers: { 'content-type': photo.type || 'image/jpeg' },
        parseAs: 'text',
      }),
    );
  },
};
