// A page that nobody touches asks the server nothing.
import { expect, test } from '../app.ts';

const VIEWS = ['', 'today', 'sowing', 'seeds', 'power', 'log', 'setup'];

for (const view of VIEWS) {
  test(`${view || 'the room'} comes to rest`, async ({ page, app }) => {
    const asked: string[] = [];
    page.on('request', (request) => {
      if (request.url().includes('/api/')) asked.push(request.url());
    });
    await page.goto(`${app.url}/${view}?on=2027-04-09`);
    await page.getByRole('main').waitFor();
    await expect.poll(() => asked.length).toBeGreaterThan(0);
    // Some ask for more once the first is there; then nobody does.
    await expect(async () => {
      asked.length = 0;
      await page.waitForTimeout(1500);
      expect(asked).toEqual([]);
    }).toPass({ timeout: 30_000 });
  });
}
