import { describe, expect, it } from 'vitest';
import { Asked } from './outdoors.svelte';

describe('a question about the plan', () => {
  it('keeps the newest answer, whichever comes last', async () => {
    const late: ((value: string) => void)[] = [];
    const asked = new Asked<string>(() => new Promise((answer) => late.push(answer)));
    const [first, second] = [asked.ask(1), asked.ask(1)];
    late[1]!('new');
    await second;
    late[0]!('old');
    await first;
    expect([asked.answer, asked.problem]).toEqual(['new', '']);
  });

  it('says what went wrong, keeps what it had, and forgets it with the next answer', async () => {
    let fails = false;
    const asked = new Asked<number>((plan) =>
      fails ? Promise.reject(new Error('the server is away')) : Promise.resolve(plan),
    );
    await asked.ask(3);
    fails = true;
    await asked.ask(3);
    expect([asked.answer, asked.problem]).toEqual([3, 'the server is away']);
    fails = false;
    await asked.ask(4);
    expect([asked.answer, asked.problem]).toEqual([4, '']);
  });
});
