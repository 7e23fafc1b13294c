/** A code from the phone, a paper for the day it is lost, and a tablet that two share with their PINs. */
import AxeBuilder from '@axe-core/playwright';
import { Secret, TOTP } from 'otpauth';
import { secret } from '../../scripts/testServer';
import { expect, freshJob, openJob, signIn, test, watchConsole } from './world';
import type { Page } from '@playwright/test';

/** Somebody new of the demo shop, with a password of their own, on the page. */
async function somebody(owner: Page, page: Page, name: string, role: string): Promise<string> {
  const handle = `${name.toLowerCase()}${Date.now() % 1_000_000}`;
  await owner.goto('/people');
  const form = owner.getByRole('form', { name: 'Somebody new' });
  await form.getByLabel('Name, as records shall say it').fill(`${name} ${handle.slice(name.length)}`);
  await form.getByLabel('Signs in as').fill(handle);
  await form.getByLabel('Role').selectOption(role);
  await form.getByRole('button', { name: 'Add and make an invitation' }).click();
  await page.goto(await owner.getByLabel('Invitation link').inputValue());
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByLabel('The same again').fill(PASSWORD);
  await page.getByRole('button', { name: 'Set it and sign in' }).click();
  await expect(page.getByRole('heading', { name: 'In the bay' })).toBeVisible();
  return handle;
}
const PASSWORD = 'four plain words here';
const signOut = (page: Page) => page.getByRole('button', { name: 'Sign out' }).click();
async function withPassword(page: Page, handle: string): Promise<void> {
  await page.getByLabel('Name').fill(handle);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

test('a code is asked for after the password, once it was set up; a paper does once', async ({ page, browser }) => {
  expect(secret('COOKIE_SECRET')).toBeTruthy();
  await signIn(page, 'owner');
  const context = await browser.newContext({ baseURL: process.env['E2E_URL']! });
  const mine = await context.newPage();
  const complaints = watchConsole(mine);
  const handle = await somebody(page, mine, 'Tove', 'technician');
  await mine.goto('/me');
  const card = mine.getByRole('region', { name: 'A code from your phone' });
  await card.getByLabel('Your password, once more').fill('not this one at all');
  await card.getByRole('button', { name: 'Set it up' }).click();
  await expect(mine.getByRole('alert').filter({ hasText: 'not your password' })).toBeVisible();
  await card.getByLabel('Your password, once more').fill(PASSWORD);
  await card.getByRole('button', { name: 'Set it up' }).click();
  await expect(card.getByAltText('The secret, for the camera of a phone')).toBeVisible();
  const base32 = (await card.locator('code').innerText()).replace(/\s/g, '');
  const axe = await new AxeBuilder({ page: mine }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  const totp = new TOTP({ secret: Secret.fromBase32(base32) });
  await card.getByLabel('The code it shows now').fill(totp.generate());
  await card.getByRole('button', { name: 'Ask me for a code from now on' }).click();
  await expect(card.getByRole('listitem')).toHaveCount(10);
  const papers = await card.getByRole('listitem').allInnerTexts();
  await card.getByRole('button', { name: 'I have them' }).click();
  await expect(card).toContainText('10 of your codes on paper are left');

  await mine.goto('/');
  await signOut(mine);
  await withPassword(mine, handle);
  const code = mine.getByLabel('The code your phone shows, or one off your paper');
  await code.fill('000000');
  await mine.getByRole('button', { name: 'Go on' }).click();
  await expect(mine.getByRole('alert').filter({ hasText: 'not the code of now' })).toBeVisible();
  // The password alone opens nothing.
  expect((await mine.request.get('/api/jobs')).status()).toBe(401);
  await code.fill(papers[0]!);
  await mine.getByRole('button', { name: 'Go on' }).click();
  await expect(mine.getByRole('heading', { name: 'In the bay' })).toBeVisible();
  expect((await mine.request.get('/api/jobs')).status()).toBe(200);

  // The phone is lost for good: the owner takes it off.
  await page.goto('/people');
  const theirs = page.getByRole('listitem').filter({ hasText: handle });
  await expect(theirs).toContainText('with a code');
  await theirs.getByRole('button', { name: 'Ask for no code' }).click();
  await expect(theirs).not.toContainText('with a code');
  await mine.goto('/');
  await withPassword(mine, handle);
  await expect(mine.getByRole('heading', { name: 'In the bay' })).toBeVisible();
  await context.close();
  expect(complaints.filter((c) => !c.includes('403') && !c.includes('401'))).toEqual([]);
});

test('two share a tablet: a name and a PIN, and what is entered is theirs, where the other was', async ({
  page,
  browser,
}) => {
  await freshJob(3314);
  await signIn(page, 'owner');
  const context = await browser.newContext({
    baseURL: process.env['E2E_URL']!,
    viewport: { width: 820, height: 1180 },
  });
  const tablet = await context.newPage();
  const setPin = async (pin: string) => {
    await tablet.goto('/me');
    const card = tablet.getByRole('region', { name: 'A PIN for shared tablets' });
    await card.getByLabel('PIN, four to eight digits').fill(pin);
    await card.getByLabel('Your password, once more').fill(PASSWORD);
    await card.getByRole('button', { name: 'Set it' }).click();
    await expect(card.getByText('on', { exact: true })).toBeVisible();
  };
  const first = await somebody(page, tablet, 'Ada', 'technician');
  await setPin('2580');
  await tablet.goto('/');
  await signOut(tablet);
  const second = await somebody(page, tablet, 'Bo', 'technician');
  await setPin('1379');

  await openJob(tablet, 3314);
  const readings = async () => {
    const answer = await tablet.request.get('/api/jobs/3314/snapshot');
    // Between two people there is nobody.
    if (!answer.ok()) return [];
    const { job } = (await answer.json()) as { job: { readings: { by: string }[] } };
    return job.readings.map((r) => r.by.split(' ')[0]).filter((by) => by !== 'Bay');
  };
  await tablet.keyboard.type('12.61');
  await tablet.keyboard.press('Enter');
  await expect.poll(readings).toEqual(['Bo']);
  await tablet.getByRole('link', { name: /^Switch/ }).click();
  await expect(tablet.getByRole('heading', { name: 'Who is here?' })).toBeVisible();
  const axe = await new AxeBuilder({ page: tablet }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  await tablet.getByRole('button', { name: new RegExp(`^Ada ${first.slice(3)}`) }).click();
  for (const digit of '2581') await tablet.getByRole('button', { name: digit, exact: true }).click();
  await tablet.getByRole('button', { name: 'Go', exact: true }).click();
  await expect(tablet.getByRole('alert').filter({ hasText: 'Wrong PIN. 4 tries are left.' })).toBeVisible();
  await tablet.keyboard.type('2580');
  await tablet.keyboard.press('Enter');
  // Where Bo was.
  await expect(tablet).toHaveURL(/\/jobs\/3314\/readings$/);
  await expect(tablet.locator('.btn.next:not([aria-disabled])').first()).toBeVisible();
  await tablet.keyboard.type('12.58');
  await tablet.keyboard.press('Enter');
  await expect.poll(readings).toEqual(['Bo', 'Ada']);
  // The session that was left is over; the next one is one tap away after signing out as well.
  await tablet.goto('/');
  await signOut(tablet);
  await tablet.getByRole('link', { name: 'With a PIN' }).click();
  await expect(tablet.getByRole('button', { name: new RegExp(`^Bo ${second.slice(2)}`) })).toBeVisible();
  await context.close();
});
