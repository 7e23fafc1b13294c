import AxeBuilder from '@axe-core/playwright';
import { expect, freshJob, markers, pickLink, signIn, test, watchConsole } from './world';

test('bays are booked, what is too much is told before and after, @alone', async ({ page }) => {
  const complaints = watchConsole(page);
  await freshJob(2951);
  await freshJob(2952, 1043);
  await signIn(page);
  await page.goto('/calendar?job=2951');
  const form = page.getByRole('region', { name: 'Book' });
  await expect(form.getByLabel('Job')).toHaveValue('2951');
  // A Wednesday two weeks on: nothing of the demo, or of its copies, stands there.
  const WEEKS = 2;
  const today = new Date();
  const wednesday = new Date(
    today.getFullYear(),
    today.getMonth(),
    today.getDate() - ((today.getDay() + 6) % 7) + 2 + 7 * WEEKS,
    12,
  );
  const day = [wednesday.getFullYear(), wednesday.getMonth() + 1, wednesday.getDate()]
    .map((n) => String(n).padStart(2, '0'))
    .join('-');
  await form.getByLabel('Day').fill(day);
  await form.getByLabel('From').fill('09:00');
  await form.getByLabel('Minutes').fill('300');
  await form.getByRole('button', { name: 'Book it' }).click();
  await expect
    .poll(async () =>
      ((await (await page.request.get('/api/calendar')).json()) as { bookings: { job: number }[] }).bookings.map(
        (b) => b.job,
      ),
    )
    .toContain(2951);
  // The week of it.
  for (let k = 0; k < WEEKS; k++) await page.getByRole('button', { name: 'Week after' }).click();
  await expect(page.locator('.calitem').filter({ hasText: '2951' })).toContainText('09:00');
  await form.getByLabel('Job').selectOption('2952');
  await form.getByLabel('Day').fill(day);
  await form.getByLabel('From').fill('10:00');
  await form.getByLabel('Minutes').fill('400');
  await expect(form.getByRole('status')).toContainText('Another rig stands there then.');
  await expect(form.getByRole('status')).toContainText('The day has 9 h, this makes 11.7 h.');
  await form.getByRole('button', { name: 'Book it' }).click();
  await expect(page.locator('.calcell .over')).toContainText('2.7 h too much, two at one time');
  expect(await markers(page)).toBeLessThanOrEqual(1);
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  // Moved to the other bay, it is well.
  await page.locator('.calitem').filter({ hasText: '2952' }).click();
  await page.getByRole('region', { name: 'Book' }).getByLabel('Bay').selectOption('Bay 2');
  await page.getByRole('button', { name: 'Move it' }).click();
  await expect(page.locator('.calcell .over')).toHaveCount(0);
  await page.locator('.calitem').filter({ hasText: '2952' }).click();
  await page.getByRole('button', { name: 'Take it out' }).click();
  await expect(page.locator('.calitem').filter({ hasText: '2952' })).toHaveCount(0);
  expect(complaints).toEqual([]);
});

test('the board finds words in the records and takes a job file in, never half', async ({ page }) => {
  await freshJob(2961, 1047);
  await signIn(page);
  await page.goto('/');
  await page.getByLabel('Search jobs').fill('ground joint');
  await expect(page.getByRole('region', { name: 'Found in the records' })).toContainText('Coach ground joint bad');
  await page.getByLabel('Search jobs').fill('');
  const file = await (await page.request.get('/api/jobs/2961/file')).body();
  const pick = page.getByLabel('Job file', { exact: true });
  await pick.setInputFiles({ name: 'job.zip', mimeType: 'application/zip', buffer: file });
  await expect(page.getByText('This job is here already: 2961.')).toBeVisible();
  await pick.setInputFiles({
    name: 'bad.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"schemaVersion":1}'),
  });
  await expect(page.getByRole('alert').filter({ hasText: 'bad.json' })).toContainText('wanted this property');
  const { readFileSync } = await import('node:fs');
  const text = readFileSync('examples/dipper.surrik.json', 'utf8')
    .replace(/[0-9a-f]{8}(?=-[0-9a-f]{4}-)/g, 'abcdef12')
    .replace(/"number": \d+/, '"number": 2962');
  await pick.setInputFiles({ name: 'dipper.surrik.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await expect(page).toHaveURL(/\/jobs\/2962\/intake/, { timeout: 30_000 });
  await expect(page.locator('.job .no')).toHaveText('2962', { timeout: 30_000 });
});

test('a change of plan says why, and what the rules and the proof make of it; steps have pictures', async ({
  page,
}) => {
  const complaints = watchConsole(page);
  await freshJob(2971);
  await signIn(page);
  await pickLink(page, 2971, /^[A-F] 40 A DC-DC charger(?!,)/);
  await page.goto('/jobs/2971/build');
  await expect(page.locator('.bdstep').first()).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Changed the plan because…' }).click();
  const dialog = page.getByRole('dialog');
  const wires = dialog.getByLabel('What changes');
  const charge = await wires
    .locator('option')
    .filter({ hasText: /charger/i })
    .first()
    .getAttribute('value');
  await wires.selectOption(charge!);
  await dialog.getByLabel('Gauge').selectOption('14');
  await expect(dialog.getByRole('button', { name: 'Change the plan' })).toBeDisabled();
  await dialog.getByLabel('Because').fill('Only thin cable was left in the van.');
  await dialog.getByRole('button', { name: 'Change the plan' }).click();
  await expect(dialog.getByText('The rules now say')).toBeVisible({ timeout: 60_000 });
  await expect(dialog).toContainText(/danger/);
  await dialog.getByRole('button', { name: 'Go on with it' }).click();
  await expect(page.locator('.planchanged')).toContainText('because: Only thin cable was left in the van.');
  await page.getByText('Cut list', { exact: true }).click();
  await expect(page.locator('.bdtable')).toContainText('14 AWG');
  // Undo takes the note of it back, then the change itself.
  await page.getByRole('button', { name: 'Undo: the change of plan' }).click();
  await expect(page.locator('.planchanged')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo: the edit of the conductor' }).click();
  await expect(page.locator('.bdtable')).not.toContainText('14 AWG');
  // A picture of the step in hand.
  await page.getByText('Steps', { exact: true }).click();
  const { default: sharp } = await import('sharp');
  const picture = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#865' } })
    .jpeg()
    .toBuffer();
  await page
    .getByLabel(/^Photo of step/)
    .first()
    .setInputFiles({ name: 'lug.jpg', mimeType: 'image/jpeg', buffer: picture });
  await expect(page.locator('.bdstep').first().locator('.stepphotos img')).toHaveCount(1);
  expect(complaints).toEqual([]);
});
