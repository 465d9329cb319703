// The real binary, started for each test on a free port with its own data folder.
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { test as base, expect, type Page } from '@playwright/test';

const BINARY =
  process.env.FAINT_SUNRISE ?? join(import.meta.dirname, '../target/debug/faint-sunrise');

export class App {
  #process: ChildProcess | undefined;
  url = '';

  constructor(
    readonly data = mkdtempSync(join(tmpdir(), 'faint-sunrise-')),
    readonly demo = true,
  ) {}

  /** Starts it; the second time on the same port, as a person would. */
  async start(): Promise<this> {
    const listen = this.url ? new URL(this.url).host : '127.0.0.1:0';
    const args = [
      'serve',
      '--data',
      this.data,
      '--listen',
      listen,
      // Many tests share this machine: what takes long here is told by benchmarks.
      '--longest',
      '20',
      ...(this.demo ? ['--demo'] : []),
    ];
    const child = spawn(BINARY, args, {
      stdio: ['ignore', 'ignore', 'pipe'],
      env: { ...process.env, NO_COLOR: '1' },
    });
    this.#process = child;
    for await (const line of createInterface(child.stderr!)) {
      const found = /(http:\/\/[\d.]+:\d+)/.exec(line);
      if (found) {
        this.url = found[1]!;
        child.stderr!.resume();
        return this;
      }
    }
    throw new Error(`${BINARY} ended before it listened`);
  }

  get pid(): number {
    return this.#process!.pid!;
  }

  async stop() {
    const child = this.#process;
    if (!child || child.exitCode !== null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    await ended;
  }

  remove() {
    rmSync(this.data, { recursive: true, force: true });
  }
}

export const test = base.extend<{ app: App }>({
  app: async ({}, use) => {
    const app = await new App().start();
    await use(app);
    await app.stop();
    app.remove();
  },
});

/** Opens a chapter of the sheet of a shelf. */
export async function chapter(page: Page, name: string) {
  await page.getByRole('tab', { name }).click();
}

export { expect };
