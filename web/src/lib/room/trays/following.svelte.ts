// Trays that lose their spot by an edit find another by themselves, where somebody wants that.
import { api } from '../../api/client';
import { bench } from '../../bench/workbench.svelte';

const KEY = 'spots-follow-edits';

function kept(): boolean {
  try {
    return localStorage.getItem(KEY) === 'yes';
  } catch {
    return false;
  }
}

class Following {
  /** Whether it is wanted: kept on this device. */
  wanted = $state(kept());
  /** On how many trays a day it was tried last: again only for others. */
  #tried = '';
  #busy = $state(false);

  want(yes: boolean) {
    this.wanted = yes;
    this.#tried = '';
    try {
      localStorage.setItem(KEY, yes ? 'yes' : 'no');
    } catch {
      // A private window forgets it.
    }
  }

  /** To be called in an effect: looks for spots once an edit is kept. */
  follow() {
    const view = bench.view;
    const days = bench.assessment?.season.days;
    if (!this.wanted || !view || !days || bench.unsaved || bench.clashes) return;
    // Who has just undone something wants it as it was.
    if (view.redo != null) return;
    const nowhere = days.map((day) => day.unplaced).join(' ');
    if (nowhere === this.#tried || this.#busy) return;
    this.#tried = nowhere;
    if (days.some((day) => day.unplaced > 0)) void this.#place();
  }

  async #place() {
    this.#busy = true;
    const draft = bench.draft!;
    try {
      const edited = await api.placeAll(draft, false, () => undefined);
      if (bench.draft === draft) await bench.adopt(edited);
    } catch {
      // Nothing more fits: the shelf of trays and the sheet say so already.
    } finally {
      this.#busy = false;
    }
  }
}

export const following = new Following();
