// What follows from the plan on a day: asked of the server, one question at a time.
import { api, type Assessed, type Assessment, type BayRef, type Plan } from '../api/client';
import { reused } from './reuse';

export interface Question {
  plan: Plan;
  date: string;
  /** Whose lists are wanted: a bay's, those of all sowings, or nobody's. */
  of: BayRef | 'sowings' | undefined;
  answered: (assessment: Assessment) => void;
}

export class WhatIf {
  assessment: Assessment | undefined = $state.raw();
  /** How long the last one took from the input to the new figures, in ms. */
  roundTripMs = $state(0);
  asking = false;
  /** The name of the assessment that is shown: the next is asked for as what changes since. */
  #assessed: Assessed | undefined;
  #stale = false;

  /** Shows an assessment that came with something else. */
  show(assessment: Assessment): Assessment {
    return (this.assessment = reused(this.assessment, assessment));
  }

  /** The next answer is asked for whole. */
  forget() {
    this.#assessed = undefined;
  }

  /** Asks; whatever changed meanwhile is asked next. */
  async ask(question: () => Question | undefined) {
    if (this.asking) {
      this.#stale = true;
      return;
    }
    this.asking = true;
    try {
      do {
        this.#stale = false;
        const asked = question();
        if (!asked) return;
        const began = performance.now();
        const before = this.#assessed;
        const answer = await api.assess(asked.plan, asked.date, asked.of, before);
        // Entries that the server did not send again are the same objects already.
        this.assessment = before ? answer.assessment : reused(this.assessment, answer.assessment);
        this.#assessed = { id: answer.id!, assessment: this.assessment };
        asked.answered(this.assessment);
        requestAnimationFrame(() => (this.roundTripMs = performance.now() - began));
      } while (this.#stale);
    } finally {
      this.asking = false;
    }
  }
}
