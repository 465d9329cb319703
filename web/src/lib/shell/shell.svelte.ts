/** Which of the shell's panels are open. */
class Shell {
  finding = $state(false);
  help = $state(false);
  /** What is about to be sown: a crop, or nothing yet; undefined while nothing is. */
  sowing: { crop?: string } | undefined = $state.raw();
  /** The finding to bring into sight. */
  pointed: string | undefined = $state.raw();
  /** When a dialog closed last: what is typed then was meant for it. */
  closedAt = -Infinity;

  get open(): boolean {
    return this.finding || this.help || this.sowing !== undefined;
  }
}

export const shell = new Shell();
