import AxeBuilder from '@axe-core/playwright';
import { readFileSync } from 'node:fs';
import type { Rig } from '../../src/core/rig/schema';
import { expect, freshJob, markers, pickLink, signIn, Technician, test, watchConsole } from './world';

type Snapshot = {
  job: {
    build?: { ticks: Record<string, string>; done: { step: string; minutes?: number }[]; order?: string[] };
    revisions: { kind: string; epoch: number; withdrawn?: boolean; reason?: string; doc: Rig }[];
    checks?: { check: string; result: string }[];
    signOffs?: { reopened?: { reason: string } }[];
  };
};

test('the picked link is ordered, cut, built step by step, and the rig is then another', async ({ page }) => {
  const complaints = watchConsole(page);
  await freshJob(2801);
  await signIn(page);
  const snapshot = async () => (await (await page.request.get('/api/jobs/2801/snapshot')).json()) as Snapshot;
  // Without a pick there is nothing to build, and it says where to pick.
  await page.goto('/jobs/2801/build');
  await expect(page.getByText('Nothing is picked to be built.')).toBeVisible({ timeout: 30_000 });

  await pickLink(page, 2801, /^[A-F] 40 A DC-DC charger(?!,)/);

  await page.goto('/jobs/2801/build');
  const steps = page.locator('.bdstep');
  // The route is measured before anything is cut; the lugs are on before the first negative is off.
  await expect(steps.first()).toContainText('Measure each route', { timeout: 30_000 });
  await expect(steps.nth(2)).toContainText('before it is pulled');
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
  await expect(page.getByRole('alert').filter({ hasText: 'waits for' })).toBeVisible();
  await expect(steps.last()).toContainText('then Prove');

  // Parts are ticked off, the lists leave as files.
  await page.getByText('Parts', { exact: true }).click();
  await page
    .getByLabel(/^DC-DC charger.*: it is$/)
    .first()
    .selectOption('ordered');
  await expect.poll(async () => Object.values((await snapshot()).job.build?.ticks ?? {})).toEqual(['ordered']);
  const [parts] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Parts as CSV' }).click(),
  ]);
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
  await page.locator('.slip .btn.next').click();
  await expect(page.locator('.bdstep.done')).toHaveCount(2);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.locator('.bdstep.done')).toHaveCount(1);
  for (let k = 1; k < count; k++) {
    await page.locator('.slip .btn.next').click();
    await expect(page.locator('.bdstep.done')).toHaveCount(k + 1);
  }
  await expect(page.locator('.slip .btn.next')).toContainText('It is built');
  await page.locator('.slip .btn.next').click();
  await expect(page.locator('.slip')).toContainText('Built: the rig is described as it is now');
  await expect
    .poll(async () => (await snapshot()).job.revisions.map((r) => `${r.kind} ${r.epoch}`))
    .toEqual(['as-found 0', 'proposed 0', 'as-built 1']);
  expect((await snapshot()).job.build!.done).toHaveLength(count);

  // Proof of exactly this rig: what its charger has to read, engine off and on.
  await page.locator('.slip .btn.next').click();
  await expect(page.getByText('Proof after the build')).toBeVisible();
  await expect(page.locator('.proof').filter({ hasText: 'the charger’s output goes to its stage' })).toHaveCount(1, {
    timeout: 30_000,
  });
  const built = (await snapshot()).job.revisions.at(-1)!.doc;
  const technician = new Technician(page, 'nothing-wrong', 9, built);
  let words = '';
  for (let k = 0; k < 25 && !words.startsWith('Check'); k++) words = await technician.step();
  expect(words).toMatch(/^Check: nothing hunts/);
  await page.goto('/jobs/2801/prove');
  // Nothing is signed before the checks; a value over its limit cannot pass.
  const hunting = page.getByRole('region', { name: 'Nothing hunts' });
  await hunting.getByLabel(/Opened or dropped out/).fill('2');
  await expect(hunting.getByRole('button', { name: 'Pass' })).toBeDisabled();
  await hunting.getByLabel(/Opened or dropped out/).fill('0');
  await hunting.getByRole('button', { name: 'Pass' }).click();
  await expect(hunting).toContainText('passed, 0');
  // A watch is written down as it goes; what it found is its highest.
  const hour = page.getByRole('region', { name: /An hour at idle/ });
  for (const [amps, housing] of [
    ['70', '160'],
    ['62', '182'],
  ]) {
    await hour.getByLabel('Alternator, highest, A').fill(amps!);
    await hour.getByLabel('Housing, highest, °F').fill(housing!);
    await hour.getByRole('button', { name: 'Write down, go on' }).click();
  }
  await expect(hour.locator('.entries tbody tr')).toHaveCount(2);
  await hour.getByRole('button', { name: 'Pass' }).click();
  await expect(hour).toContainText('passed, 70 A, 182 °F');
  const asleep = page.getByRole('region', { name: 'Current at rest' });
  await asleep.getByLabel(/Start battery, asleep/).fill('0.04');
  await asleep.getByRole('button', { name: 'Pass' }).click();
  const prove = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).include('.prove').analyze();
  expect(prove.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  await expect(page.locator('.slip .btn.next')).toContainText('Finish and sign');
  expect(await markers(page)).toBe(1);
  await page.locator('.slip .btn.next').click();
  await expect(page.getByText('The record is locked.')).toBeVisible();
  // Locked; opened again only with a reason, which makes a revision.
  await page.getByRole('button', { name: 'Open the record again' }).click();
  await expect(page.getByRole('button', { name: 'Open it' })).toBeDisabled();
  await page.getByLabel(/Why it is opened again/).fill('Owner rang: the fan is loud.');
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect.poll(async () => (await snapshot()).job.revisions.at(-1)!.reason).toBe('Owner rang: the fan is loud.');
  await page.goto('/jobs/2801/report');
  await expect(page.getByRole('article')).toContainText('Built as proposed, and proven right by measurement.');
  await expect(page.getByRole('article')).toContainText('housing, highest 182 °F');
  await expect(page.getByRole('article')).toContainText('Opened again');
  expect(complaints).toEqual([]);
});
