// The year outdoors as the server reckons it, asked for again when the plan is kept anew.
import { answered, client, type OutdoorYear } from '../api/client';

export class OutdoorsAsked {
  year: OutdoorYear | undefined = $state.raw();
  problem = $state('');
  #asked = 0;

  /** Asks for the year of the plan that is open; call it in an effect. */
  async ask(plan: number) {
    const mine = ++this.#asked;
    try {
      const year: OutdoorYear = await answered(
        client.GET('/api/plans/{id}/outdoors', { params: { path: { id: plan } } }),
      );
      if (mine === this.#asked) [this.year, this.problem] = [year, ''];
    } catch (error) {
      if (mine === this.#asked)
        this.problem = error instanceof Error ? error.message : String(error);
    }
  }
}
