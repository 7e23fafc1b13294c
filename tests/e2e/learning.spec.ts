import { readFileSync } from 'node:fs';
import { expect, freshJob, markers, openJob, signIn, test, watchConsole } from './world';

type Shop = { shop: { settings: { learnt: { jobs: number; others: number; factors: Record<string, number> } } } };

test('closed jobs teach the shop: looked through, taken over, seen, taken back, and lent as sums @alone', async ({
  page,
}) => {
  const complaints = watchConsole(page);
  await freshJob(2211, 1009);
  await freshJob(2212);
  await signIn(page);
  await page.goto('/shop');
  const learning = page.getByRole('region', { name: 'What closed jobs teach' });
  await learning.getByRole('button', { name: 'Look through the closed jobs' }).click();
  const row = learning.getByRole('row', { name: /Coach ground joint bad/ });
  await expect(row).toBeVisible({ timeout: 60_000 });
  const found = Number((await row.getByRole('cell').nth(1).innerText()).replace(' ×', ''));
  // The demo's own closed job and its twin at least; other tests may have closed some of theirs.
  expect(found).toBeGreaterThanOrEqual(2);

  const [file] = await Promise.all([
    page.waitForEvent('download'),
    learning.getByRole('button', { name: 'Save as a case file' }).click(),
  ]);
  const text = readFileSync(await file.path(), 'utf8');
  expect(text).not.toMatch(/heron|lagoon/i);
  const cases = JSON.parse(text) as { jobs: number; faults: Record<string, { seen: number }> };
  expect(Object.values(cases.faults).reduce((s, f) => s + f.seen, 0)).toBeGreaterThanOrEqual(found);

  const learnt = async () => ((await (await page.request.get('/api/shop')).json()) as Shop).shop.settings.learnt;
  await learning.getByRole('button', { name: 'Take these over' }).click();
  await expect(learning.getByRole('status')).toContainText(/In use since 20\d\d-/);
  await expect.poll(async () => (await learnt()).jobs).toBe(cases.jobs);
  expect(await markers(page)).toBeLessThanOrEqual(1);
  try {
    // Where the search starts says so.
    await openJob(page, 2212, 'intake');
    await expect(page.getByLabel('Where the search starts')).toContainText('this shop’s own jobs ×', {
      timeout: 20_000,
    });
  } finally {
    await page.goto('/shop');
    await learning.getByRole('button', { name: 'Back to what is assumed' }).click();
    await expect.poll(async () => (await learnt()).jobs).toBe(0);
  }

  // Another shop's file; and one that is none says so and loses nothing.
  const pick = learning.locator('input[type=file]');
  await pick.setInputFiles({ name: 'theirs.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await expect(learning).toContainText(`theirs.json: ${cases.jobs} jobs, each counts for 0.5`);
  await pick.setInputFiles({ name: 'none.json', mimeType: 'application/json', buffer: Buffer.from('{"jobs":1}') });
  await expect(learning.getByRole('alert')).toContainText('none.json: This is no case file: at /');
  await expect(learning.getByRole('row', { name: /Coach ground joint bad/ })).toBeVisible();
  await learning.getByRole('button', { name: 'Leave it out' }).click();
  await expect(learning.getByRole('table')).toHaveCount(0);
  // The browser itself remarks on the file that was refused.
  expect(complaints.filter((c) => !c.includes('status of 400'))).toEqual([]);
});
