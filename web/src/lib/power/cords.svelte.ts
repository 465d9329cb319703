// The cord in the hand, and what is opened of the cords.
import type { Feed, PatchStep } from '../api/client';
import { bench } from '../bench/workbench.svelte';
import { sockets, sort, type Bunch, type Node } from './loads';

class Cords {
  /** Whether they are drawn over the room. */
  drawn = $state(false);
  /** The feed whose figures are open. */
  open: string | undefined = $state();
  picked: Bunch | undefined = $state.raw();
  held: { paths: string[]; name: string; lamp: boolean; feed?: Node } | undefined = $state.raw();

  holdBunch(bunch: Bunch) {
    this.held = {
      paths: bunch.devices.map((device) => device.path),
      name: bunch.name,
      lamp: bunch.devices.every((device) => device.lamp),
    };
  }

  holdFeed(node: Node) {
    this.held = {
      paths: [`/wiring/feeds/${node.index}/into`],
      name: node.feed.name,
      lamp: false,
      feed: node,
    };
  }

  letGo() {
    this.held = undefined;
  }

  pick(bunch: Bunch) {
    this.picked = this.isPicked(bunch) ? undefined : bunch;
  }

  isPicked(bunch: Bunch): boolean {
    return this.picked?.name === bunch.name && this.picked.at === bunch.at;
  }

  /** Whether what is held can be plugged into `feed`: nothing goes into itself. */
  fits(feed: Feed): boolean {
    if (!this.held || sockets([feed], this.held.lamp).length === 0) return false;
    const within = (node: Node): boolean => node.feed.id === feed.id || node.feeds.some(within);
    if (this.held.feed) return sort(feed) !== 'chain' && !within(this.held.feed);
    return true;
  }

  plugInto(feed: string) {
    const held = this.held;
    this.held = undefined;
    if (held) this.plug(held.paths, held.name, feed);
  }

  /** Plugs what stands at `paths` into `feed`, or nowhere. */
  plug(paths: string[], name: string, feed: string | undefined) {
    const there = bench.draft?.wiring?.feeds?.find((other) => other.id === feed);
    const patch: PatchStep[] = paths.map((path) => ({
      op: 'add' as const,
      path,
      value: feed ?? null,
    }));
    bench.keep(patch, there ? `plugged ${name} into ${there.name}` : `unplugged ${name}`);
    this.picked = undefined;
  }
}

export const cords = new Cords();
