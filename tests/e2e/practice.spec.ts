/** The first five minutes: somebody who has never seen the program does what the guide says, and signs a whole job. */
import { expect, signIn, test, watchConsole } from './world';

test('a practice job is finished by its guide alone', async ({ page }) => {
  test.setTimeout(240_000);
  const complaints = watchConsole(page);
  await signIn(page);
  await page.goto('/');
  await page.getByRole('button', { name: /^Practice/ }).click();
  await expect(page).toHaveURL(/\/jobs\/\d+\/readings/, { timeout: 30_000 });
  const number = /jobs\/(\d+)/.exec(page.url())![1]!;
  const guide = page.getByRole('status', { name: 'Practice guide' });
  const next = page.locator('.bx.next').first();
  const signed = async () =>
    ((await (await page.request.get(`/api/jobs/${number}/snapshot`)).json()) as { job: { signOffs?: unknown[] } }).job
      .signOffs?.length ?? 0;
  /** What it says once it says the same twice. */
  const said = async () => {
    let words = '';
    await expect(async () => {
      await expect(page.getByText('thinking')).toHaveCount(0);
      const now = await guide.innerText();
      const same = now === words && !now.includes('One moment');
      words = now;
      expect(same).toBe(true);
    }).toPass({ intervals: [250], timeout: 30_000 });
    return words;
  };
  const terms = new Set<string>();
  let last = '';
  for (let step = 0; step < 60 && (await signed()) === 0; step++) {
    const words = await said();
    for (const term of ['State:', 'Probe:', 'Band:', 'Epoch:']) if (words.includes(term)) terms.add(term);
    const shows = /Your meter shows (−?[\d.]+) (mV|V|A|mA)/.exec(words);
    if (shows) {
      await next.click();
      const volts = Number(shows[1]!.replace('−', '-')) / (shows[2]!.startsWith('m') ? 1000 : 1);
      await page.keyboard.type(String(volts));
      await page.keyboard.press('Enter');
      await expect(page.locator('.disp output')).toHaveAttribute('aria-label', 'nothing typed');
    } else if (words.includes('It is now')) {
      await next.click();
      await page.getByRole('button', { name: /^It is now/ }).click();
      await expect(page.locator('dialog[open]')).toHaveCount(0);
    } else if (words.includes('You find:')) {
      const answer = /You find: (.*?)\. Press/.exec(words)![1]!;
      await next.click();
      await page
        .locator('.asks.first .ask')
        .getByRole('button', { name: answer.charAt(0).toUpperCase() + answer.slice(1), exact: true })
        .click();
      await page.keyboard.press('Escape');
    } else if (words.includes('press Declare')) {
      await next.click();
    } else if (words.includes('press “Approved”')) {
      if (!page.url().endsWith('/fault')) await page.goto(`/jobs/${number}/fault`);
      const form = page.locator('form').filter({ has: page.locator('#approve-sum') });
      await page.locator('#approve-sum').fill('250');
      await form.getByLabel(/[Ww]ho/).fill('Owner');
      await form.locator('button[type="submit"]').click();
    } else if (words.includes('Repair done')) {
      await next.click();
      await page.getByLabel(/What was done/).fill('Put right for practice.');
      await page.getByRole('button', { name: 'Repair done: prove it' }).click();
      await expect(page.getByText('Proof after the repair')).toBeVisible();
    } else if (words.includes('press Pass')) {
      if (!page.url().endsWith('/prove')) await page.goto(`/jobs/${number}/prove`);
      const pass = page.getByRole('button', { name: 'Pass', exact: true }).first();
      const check = page.getByRole('region').filter({ has: pass }).last();
      for (const field of await check.getByRole('textbox').all()) await field.fill('0');
      const on = check.getByRole('button', { name: 'Write down, go on' });
      if ((await on.count()) > 0) await on.click();
      await check.getByRole('button', { name: 'Pass', exact: true }).click();
    } else if (words.includes('Finish and sign')) {
      if (!page.url().endsWith('/prove')) await page.goto(`/jobs/${number}/prove`);
      await next.click();
      await expect.poll(signed).toBe(1);
      break;
    } else throw new Error(`the guide says nothing to do: ${words}`);
    await expect(guide)
      .not.toHaveText(words, { timeout: words === last ? 8_000 : 3_000 })
      .catch(() => undefined);
    last = words;
  }
  await expect.poll(signed).toBe(1);
  expect([...terms].sort()).toEqual(['Band:', 'Epoch:', 'Probe:', 'State:']);
  await page.goto(`/jobs/${number}/report`);
  await expect(page.getByRole('article')).toContainText('Practice, no vehicle');
  expect(complaints).toEqual([]);
});
