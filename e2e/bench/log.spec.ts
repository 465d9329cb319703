// A log of 100,000 entries: what is to be done, a search, a tray's life. Prints one JSON object.
import { test } from '../app.ts';

const ENTRIES = 100_000;
const ROWS = 20_000;

const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

test('a long log', async ({ app }) => {
  test.setTimeout(300_000);
  const plan = await (await fetch(`${app.url}/api/plans/1/file`)).json();
  const trays = plan.trays.map((tray: { id: string }) => tray.id) as string[];
  const words = ['dry at the edge', 'strong stems', 'turned', '', '', 'gnats on the card'];
  for (let from = 0; from < ENTRIES; from += ROWS) {
    const rows = Array.from({ length: ROWS }, (_, i) => {
      const n = from + i;
      const day = new Date(Date.UTC(2027, 0, 20 + (n % 78))).toISOString().slice(0, 10);
      const tray = trays[n % trays.length];
      return n % 5 === 0
        ? `bench-${n},${day},measured,${tray},,soil_c,${18 + (n % 7)},${words[n % 6]}`
        : `bench-${n},${day},watered,${tray},${300 + (n % 9) * 10},,,${words[n % 6]}`;
    });
    const text = `id,day,kind,tray,water_ml,reading,value,text\n${rows.join('\n')}\n`;
    const answer = await fetch(`${app.url}/api/plans/1/log/table`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ text }),
    });
    const read = await answer.json();
    if (read.added !== ROWS) throw new Error(JSON.stringify(read).slice(0, 500));
  }
  // As after a start: the log is read once.
  await app.stop();
  await app.start();
  const took = async (path: string) => {
    const began = performance.now();
    const answer = await fetch(`${app.url}/api/plans/1/${path}`);
    if (!answer.ok) throw new Error(await answer.text());
    await answer.text();
    return performance.now() - began;
  };
  const often = async (path: string) => {
    const times: number[] = [];
    for (let i = 0; i < 15; i++) times.push(await took(path));
    return median(times);
  };
  const log_first_ms = await took('today');
  const measured = {
    log_first_ms,
    log_today_ms: await often('today'),
    log_search_ms: Math.max(await often('log?text=gnats'), await often('log?text=celery')),
    log_story_ms: await often('trays/ce1/story'),
  };
  console.log(JSON.stringify(measured));
});
