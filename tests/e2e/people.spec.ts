/** Who works here: an invitation taken up, a role that is held to on every screen, and somebody let go. */
import AxeBuilder from '@axe-core/playwright';
import { expect, freshJob, openJob, signIn, test, watchConsole } from './world';

test('somebody is invited, chooses a password, works as their role lets them, and is let go', async ({
  page,
  browser,
}) => {
  const complaints = watchConsole(page);
  await freshJob(3301);
  await signIn(page, 'owner');
  await page.goto('/people');
  const handle = `kim${Date.now() % 1_000_000}`;
  const name = `Kim ${handle.slice(3)}`;
  const form = page.getByRole('form', { name: 'Somebody new' });
  await form.getByLabel('Name, as records shall say it').fill(name);
  await form.getByLabel('Signs in as').fill(handle);
  await form.getByLabel('Role').selectOption('apprentice');
  await form.getByRole('button', { name: 'Add and make an invitation' }).click();
  const link = await page.getByLabel('Invitation link').inputValue();
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);

  // On a device of their own.
  const theirs = await browser.newContext({ baseURL: process.env['E2E_URL']! });
  const kim = await theirs.newPage();
  await kim.goto(link);
  await expect(kim.getByRole('heading', { name: `Welcome, ${name}` })).toBeVisible();
  await kim.getByLabel('Password').fill('four plain words here');
  await kim.getByLabel('The same again').fill('four plain words her');
  await kim.getByRole('button', { name: 'Set it and sign in' }).click();
  await expect(kim.getByRole('alert').filter({ hasText: 'not the same' })).toBeVisible();
  await kim.getByLabel('Password').fill('four plain words here');
  await kim.getByLabel('The same again').fill('four plain words here');
  await kim.getByRole('button', { name: 'Set it and sign in' }).click();
  await expect(kim.getByRole('heading', { name: 'In the bay' })).toBeVisible();
  await kim.goto(link);
  await expect(kim.getByRole('heading', { name: 'This link does not work any more' })).toBeVisible();

  // An apprentice measures.
  await openJob(kim, 3301);
  const keep = async (figure: string) => {
    await kim.keyboard.type(figure);
    await kim.keyboard.press('Enter');
  };
  const readings = async () =>
    ((await (await kim.request.get('/api/jobs/3301/snapshot')).json()) as { job: { readings: unknown[] } }).job.readings
      .length;
  const before = await readings();
  await keep('12.6');
  await expect.poll(readings).toBe(before + 1);

  // Made a viewer, they look on: what they try is told, and nothing is entered.
  const card = page.getByRole('listitem').filter({ hasText: name });
  await card.getByLabel(`Role of ${name}`).selectOption('viewer');
  await expect(page.getByText('What was done to people')).toBeVisible();
  await expect(kim.locator('.slip').getByRole('note')).toContainText('This is for an apprentice', { timeout: 20_000 });
  await keep('12.5');
  await expect(kim.getByRole('alert').filter({ hasText: 'Nothing was entered' })).toContainText(name);
  expect(await readings()).toBe(before + 1);
  await kim.goto('/shop');
  await expect(kim.getByText('To change this is for a lead or the owner.')).toBeVisible();

  // Let go, they are out wherever they are.
  await card.getByRole('button', { name: 'Let go' }).click();
  await expect(card).toContainText('may not sign in');
  await kim.goto('/');
  await expect(kim.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await theirs.close();
  expect(complaints).toEqual([]);
});

test('what was done on a job is told line by line, and leaves as a table', async ({ page }) => {
  await freshJob(3302);
  await signIn(page);
  await openJob(page, 3302);
  await page.keyboard.type('12.61');
  await page.keyboard.press('Enter');
  await expect
    .poll(async () => ((await (await page.request.get('/api/jobs/3302/snapshot')).json()) as { seq: number }).seq)
    .toBeGreaterThan(0);
  await page.goto('/jobs/3302/trail');
  await expect(page.getByRole('row', { name: /the reading \(reading\.keep\)/ })).toContainText('Bay 2 technician');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'As a table (CSV)' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('job-3302-trail.csv');
});
