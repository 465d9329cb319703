// A question to the server that takes its time: asked by hand, and answered for one plan only.
import { Refused } from '../api/client';
import { bench } from './workbench.svelte';

/** An answer about the plan as it is drafted, and about `key`: a bay and a day, say. */
export class Asked<T> {
  state = $state<'no' | 'waiting' | 'answered'>('no');
  problem = $state('');
  answer = $state.raw<T>();
  private plan: unknown = $state.raw();
  private key = $state('');

  /** Whether the answer is about this plan and `key`. */
  fresh(key: string): boolean {
    return this.state === 'answered' && this.key === key && this.plan === bench.draft;
  }

  async ask(key: string, question: () => Promise<T>) {
    this.state = 'waiting';
    this.problem = '';
    const plan = bench.draft;
    try {
      this.answer = await question();
      this.plan = plan;
      this.key = key;
      this.state = 'answered';
    } catch (error) {
      this.state = 'no';
      this.problem =
        error instanceof Refused ? error.message : 'The server does not answer: try again.';
    }
  }
}
