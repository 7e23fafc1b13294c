import AxeBuilder from '@axe-core/playwright';
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { freshJob, markers, pickLink, signIn, watchConsole } from './world';

type Snapshot = { job: { build?: { ticks: Record<string, string>; done: { step: string; minutes?: number }[]; order?: string[] }; revisions: { kind: string; epoch: number; withdrawn?: boolean }[] } };

test('the picked link is ordered, cut, built step by step, and the rig is then another', async ({ page }) => {
  const complaints = watchConsole(page);
  await freshJob(2801);
  await signIn(page);
  const snapshot = async () => (await (await page.request.get('/api/jobs/2801/snapshot')).json()) as Snapshot;
  // Without a pick there is nothing to build, and it says where to pick.
  await page.goto('/jobs/2801/build');
  await expect(page.getByText('Nothing is picked to be built.')).toBeVisible({ timeout: 30_000 });

  await pickLink(page, 2801, /^[A-F] 60 A DC-DC charger/);

  await page.goto('/jobs/2801/build');
  const steps = page.locator('.bdstep');
  // The bench first: lugs are on before the rig stands dead.
  await expect(steps.first()).toContainText('before it is pulled', { timeout: 30_000 });
  await expect(steps.filter({ hasText: 'Engine off, key out' })).toHaveCount(1);
  await expect(steps.last()).toContainText('then Prove');
  const count = await steps.count();
  expect(await markers(page)).toBe(1);
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).include('.build').analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);

  // A step before what it waits for is refused with the reason; nothing moves.
  const last = steps.last().getByRole('button', { name: /^Move step/ });
  await last.focus();
  await page.keyboard.press('Space');
  for (let k = 0; k < 3; k++) {
    await page.keyboard.press('ArrowUp');
    await page.waitForTimeout(120);
  }
  await page.keyboard.press('Space');
  await expect(page.locator('.otroubles')).toContainText('waits for');
  await expect(steps.last()).toContainText('then Prove');

  // Parts are ticked off, the lists leave as files.
  await page.getByText('Parts', { exact: true }).click();
  await page.getByLabel(/^DC-DC charger.*: it is$/).first().selectOption('ordered');
  await expect.poll(async () => Object.values((await snapshot()).job.build?.ticks ?? {})).toEqual(['ordered']);
  const [parts] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Parts as CSV' }).click()]);
  const csv = readFileSync(await parts.path(), 'utf8');
  expect(csv.split('\r\n')[0]).toBe('what,needs,quantity,unit,state');
  expect(csv).toMatch(/DC-DC charger.*,ordered\r\n/);
  await page.getByText('Cut list', { exact: true }).click();
  await expect(page.locator('.bdtable tbody tr').first()).toContainText('←');
  await page.getByText('Steps', { exact: true }).click();

  // Step by step; one with the minutes it took; taken back and done again.
  await page.getByLabel('Minutes step 1 took').fill('7');
  await page.getByLabel('Minutes step 1 took').press('Enter');
  await expect(steps.first()).toContainText('7 min');
  await page.locator('.slip .bx.next').click();
  await expect(page.locator('.bdstep.done')).toHaveCount(2);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.locator('.bdstep.done')).toHaveCount(1);
  for (let k = 1; k < count; k++) {
    await page.locator('.slip .bx.next').click();
    await expect(page.locator('.bdstep.done')).toHaveCount(k + 1);
  }
  await expect(page.locator('.slip .bx.next')).toContainText('It is built');
  await page.locator('.slip .bx.next').click();
  await expect(page.locator('.slip')).toContainText('Built: the rig is described as it is now');
  await expect.poll(async () => (await snapshot()).job.revisions.map((r) => `${r.kind} ${r.epoch}`)).toEqual(['as-found 0', 'proposed 0', 'as-built 1']);
  expect((await snapshot()).job.build!.done).toHaveLength(count);
  expect(complaints).toEqual([]);
});
