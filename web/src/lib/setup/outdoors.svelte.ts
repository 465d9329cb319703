// Air as the server reckons it, asked for again when the plan is kept anew.
import { answered, client, type LitRoomSeason, type OutdoorYear } from '../api/client';

/** A question about the plan that is open, and the newest answer to it. */
export class Asked<T> {
  answer: T | undefined = $state.raw();
  problem = $state('');
  #asked = 0;
  readonly #of: (plan: number) => Promise<T>;

  constructor(of: (plan: number) => Promise<T>) {
    this.#of = of;
  }

  /** Asks it of the plan; call it in an effect. */
  async ask(plan: number) {
    const mine = ++this.#asked;
    try {
      const answer = await this.#of(plan);
      if (mine === this.#asked) [this.answer, this.problem] = [answer, ''];
    } catch (error) {
      if (mine === this.#asked)
        this.problem = error instanceof Error ? error.message : String(error);
    }
  }
}

/** The year outdoors, and under each cover. */
export const outdoors = () =>
  new Asked<OutdoorYear>((id) =>
    answered(client.GET('/api/plans/{id}/outdoors', { params: { path: { id } } })),
  );

/** The rooms that their lamps warm. */
export const litRooms = () =>
  new Asked<LitRoomSeason[]>((id) =>
    answered(client.GET('/api/plans/{id}/lit-rooms', { params: { path: { id } } })),
  );
