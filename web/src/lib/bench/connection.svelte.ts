// The line to the server: whether it answers, and what keeps it from saving.
import { api, Refused, Unreachable } from '../api/client';
import { Notices, type Notice } from './notices.svelte';

/** How often a lost server is asked whether it is back. */
export const RETRY_MS = 2000;

export abstract class Connection {
  connected = $state(true);
  /** What keeps the server from saving anything, in its own words. */
  trouble = $state('');
  /** Where the server put a damaged database when it started. */
  setAside = $state('');
  readonly notices = new Notices();

  /** What is to be done when the server is back. */
  protected abstract back(): Promise<void>;

  tell(tone: Notice['tone'], text: string) {
    this.notices.tell(tone, text);
  }

  /** Says what went wrong; a server that does not answer is asked again and again. */
  explain(error: unknown) {
    if (error instanceof Unreachable) this.lost();
    else this.tell('wrong', this.reason(error));
  }

  /** What went wrong, as the reader writes figures and days. */
  protected abstract reason(error: unknown): string;

  protected lost() {
    if (!this.connected) return;
    this.connected = false;
    const again = async () => {
      try {
        await api.health();
        this.connected = true;
        await this.back();
      } catch {
        setTimeout(() => void again(), RETRY_MS);
      }
    };
    setTimeout(() => void again(), RETRY_MS);
  }

  /** Notices a server that went away while nothing was asked of it, and what ails it. */
  async watch() {
    if (!this.connected) return;
    try {
      const health = await api.health();
      this.trouble = '';
      this.setAside = health.set_aside ?? '';
    } catch (error) {
      if (error instanceof Refused) this.trouble = error.message;
      else this.lost();
    }
  }
}
