import AxeBuilder from '@axe-core/playwright';
import { expect, freshJob, markers, pickLink, signIn, test, watchConsole } from './world';

test('copper and fuses of the picked link are sized, a rule is mended by a press, and undo brings it back', async ({
  page,
}) => {
  const complaints = watchConsole(page);
  await freshJob(2601);
  await signIn(page);
  // Without a pick: the rig as it is, nothing to alter.
  await page.goto('/jobs/2601/sizing');
  await expect(page.getByText('The rig as it is', { exact: true })).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('.szlist button').first()).toBeVisible({ timeout: 30_000 });
  expect(await page.getByRole('button', { name: 'Make it this' }).count()).toBe(0);
  expect(await markers(page)).toBe(0);

  await pickLink(page, 2601, /^[A-F] 40 A DC-DC charger(?!,)/);

  await page.goto('/jobs/2601/sizing');
  await expect(page.locator('.ofor')).toContainText('40 A DC-DC charger', { timeout: 30_000 });
  await page.locator('.szlist button', { hasText: 'DC-DC charger to its fuse' }).click({ timeout: 30_000 });
  const drawn = page.locator('.gauge-table tr.on th');
  const was = await drawn.textContent();
  await page.locator('.gauge-table tr', { hasText: '1/0 AWG' }).getByRole('button', { name: 'Make it this' }).click();
  await expect(drawn).toHaveText('1/0 AWG', { timeout: 20_000 });
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(drawn).toHaveText(was!, { timeout: 20_000 });
  // A length that cannot be is said at its field.
  const length = page.getByLabel(/DC-DC charger to its fuse, length/);
  await length.fill('0');
  await expect(page.locator('.szset').getByRole('alert')).toContainText('0.1 to');
  await length.fill('');
  await page.keyboard.press('Escape');

  await page.getByText('Fuses', { exact: true }).click();
  await expect(page.locator('.szchecks')).toContainText('Interrupting rating');
  await expect(page.getByRole('figure').locator('canvas')).toBeVisible();
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);

  // What was drawn as usual is asked; that there is none makes a danger of it, and undo a question again.
  await page.getByText('Rules', { exact: true }).click();
  const findings = page.locator('.szfindings li');
  const asked = findings.filter({ hasText: 'Coach bank to disconnect' }).first();
  await expect(asked).toContainText('Is there a fuse at the battery?');
  await asked.getByRole('button', { name: /^No fuse there/ }).click();
  const danger = findings.filter({ hasText: 'No fuse at the battery' });
  await expect(danger).toHaveCount(1, { timeout: 20_000 });
  await expect(danger).toContainText('NEC 551.10');

  // The slip's one press mends the worst that can be mended so: the fuse is fitted, drawn on the strip.
  expect(await markers(page)).toBe(1);
  await page.locator('.slip .btn.next').click();
  const fitted = page.getByRole('region', { name: 'Loom strip, slim' }).getByText('Coach bank fuse', { exact: true });
  await expect(fitted).toBeVisible({ timeout: 20_000 });
  await expect(danger).toHaveCount(0, { timeout: 20_000 });
  // It is the proposal that changed, on the server too.
  type Snapshot = { job: { revisions: { kind: string; doc: { parts: { name: string }[] } }[] } };
  const named = async (kind: string) => {
    const { job } = (await (await page.request.get('/api/jobs/2601/snapshot')).json()) as Snapshot;
    return job.revisions.find((r) => r.kind === kind)!.doc.parts.map((p) => p.name);
  };
  await expect.poll(() => named('proposed')).toContain('Coach bank fuse');
  expect(await named('as-found')).not.toContain('Coach bank fuse');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(fitted).toHaveCount(0, { timeout: 20_000 });
  await expect(danger).toHaveCount(1, { timeout: 20_000 });
  // One that is there is put in as seen, its rating still to be read.
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(danger).toHaveCount(0, { timeout: 20_000 });
  await asked.getByRole('button', { name: /^It has a fuse there/ }).click();
  await expect(fitted).toBeVisible({ timeout: 20_000 });
  expect(complaints).toEqual([]);
});
