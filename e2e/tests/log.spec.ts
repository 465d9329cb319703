// Looking back: found, told tray by tray, corrected, and as a table.
import { AxeBuilder } from '@axe-core/playwright';
import { expect, test } from '../app.ts';

test('the log is searched and a tray is looked back on', async ({ page, app }) => {
  await page.goto(`${app.url}/log?on=2027-04-09`);
  const entries = page.getByTestId('entries');
  await expect(entries).toContainText('Watered');
  await page.getByLabel('Search').fill('away at the coast');
  await expect(entries.locator('ul > li')).toHaveCount(1);
  await expect(entries).toContainText('Sowed Be1');
  // A crop finds what happened to its trays.
  await page.getByLabel('Search').fill('celery');
  await page.getByLabel('What', { exact: true }).selectOption('shown');
  await expect(entries).toContainText('13 of 50 up');
  await entries.getByRole('button', { name: 'Look back' }).first().click();
  const story = page.getByTestId('story');
  await expect(story).toContainText('Celery');
  await expect(story.getByRole('row', { name: /^Sow 25 Feb 25 Feb as planned/ })).toBeVisible();
  await expect(
    story.getByRole('img', { name: /^Cells up, of 50: .*1[23] on 19 Mar/ }),
  ).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
});

test('a correction moves what follows, and taking back undoes it', async ({ page, app }) => {
  await page.goto(`${app.url}/log?on=2027-04-09&tray=pa1`);
  const story = page.getByTestId('story');
  const sown = story.getByRole('row', { name: /^Sow / });
  await expect(sown).toContainText('6 days later');
  await page.getByLabel('What', { exact: true }).selectOption('sown');
  const correct = page.getByRole('button', { name: 'Correct', exact: true });
  await expect(correct).toHaveCount(1);
  await correct.click();
  const form = page.getByTestId('entries').locator('form');
  await form.getByLabel('Day').fill('2027-02-20');
  await form.getByLabel('Day').press('Enter');
  // Enter keeps it, as anywhere.
  await expect(sown).toContainText('2 days later');
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByTestId('entries')).toContainText('Nothing like that was noted');
  await page.getByLabel('What', { exact: true }).selectOption('');
  await page.getByRole('button', { name: /corrected or taken back/ }).click();
  await expect(page.getByTestId('entries')).toContainText('Sowed Pa1');
});

test('a file with a faulty row adds nothing until the other rows are asked for', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/log?on=2027-04-09`);
  const file = (text: string) => ({
    name: 'log.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(text),
  });
  const rows =
    'day,kind,tray,text\n2027-04-08,noted,pa1,first leaves\n2027-04-08,watered,nowhere,\n';
  await page.getByLabel('CSV file').setInputFiles(file(rows));
  const read = page.getByTestId('table-read');
  await expect(read).toContainText('Nothing was added');
  await expect(read).toContainText('Row 3');
  await read.getByRole('button', { name: 'Add the other rows' }).click();
  await expect(read).toContainText('1 added');
  await expect(page.getByTestId('entries')).toContainText('first leaves');
  await page.getByLabel('CSV file').setInputFiles(file(rows.split('\n').slice(0, 2).join('\n')));
  await expect(read).toContainText('0 added, 1 there already');
});

test('a label has a code, and its address opens the life of the tray', async ({ page, app }) => {
  await page.goto(`${app.url}/print?tray=ce1`);
  const code = page.getByRole('img', { name: 'Code that opens Ce1 on a phone' });
  await expect
    .poll(() => code.evaluate((img) => (img as HTMLImageElement).naturalWidth))
    .toBeGreaterThan(50);
  await page.goto(`${app.url}/log?plan=1&tray=ce1`);
  await expect(page.getByTestId('story')).toContainText('Ce1');
});
