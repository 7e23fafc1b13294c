/** An entry on which the server fails again and again is set aside, told where it covers nothing, and sent again at will. */
import { type Locator, type Page } from '@playwright/test';
import { expect, freshJob, openJob, signIn, test } from './world';

const fails = (page: Page) =>
  page.route('**/api/commands**', (r) =>
    r.fulfill({
      status: 500,
      contentType: 'application/json',
      body: JSON.stringify({ error: { code: 'fault', message: 'Something failed on our side.' } }),
    }),
  );
/** Whether two things on the screen lie on each other. */
async function overlap(a: Locator, b: Locator): Promise<boolean> {
  const [p, q] = [(await a.boundingBox())!, (await b.boundingBox())!];
  return p.x < q.x + q.width && q.x < p.x + p.width && p.y < q.y + q.height && q.y < p.y + p.height;
}

for (const [where, width, height] of [
  ['on a bench screen', 1280, 800],
  ['on a phone', 390, 844],
] as const)
  test(`what the server fails on ${where} is set aside, covers neither keypad nor slip, and goes through later`, async ({
    page,
  }) => {
    const number = width === 390 ? 2098 : 2099;
    await page.setViewportSize({ width, height });
    await freshJob(number);
    await signIn(page);
    // On a phone a probe stands there at once; what is asked for next may be another state, but what is typed is kept.
    if (width === 390) {
      await page.goto(`/jobs/${number}/readings`);
      await expect(page.locator('.pprobe')).toBeVisible({ timeout: 30_000 });
    } else await openJob(page, number);
    await fails(page);
    for (const key of ['1', '2', '.', '6']) await page.getByRole('button', { name: key, exact: true }).click();
    await page.getByRole('button', { name: /^Keep P/ }).click();
    const notice = page.getByRole('alert').filter({ hasText: 'is set aside on this device' });
    await expect(notice).toBeVisible({ timeout: 30_000 });
    await expect(notice).toContainText('Something failed on our side.');
    for (const name of ['Send again', 'Throw away']) await expect(notice.getByRole('button', { name })).toBeVisible();
    // Nothing one types or reads next is under it.
    for (const key of ['7', '0', '.'])
      expect(await overlap(notice, page.getByRole('button', { name: key, exact: true })), key).toBe(false);
    if (width === 1280)
      expect(await overlap(notice, page.getByRole('complementary', { name: 'Bench slip' }))).toBe(false);
    // The copy is the entry itself.
    const [copy] = await Promise.all([
      page.waitForEvent('download'),
      notice.getByRole('link', { name: 'Save a copy' }).click(),
    ]);
    expect(copy.suggestedFilename()).toMatch(/^surrik-reading\.keep-[0-9a-f]{8}\.json$/);
    // The server is well again: it goes through, and stays.
    await page.unroute('**/api/commands**');
    await notice.getByRole('button', { name: 'Send again' }).click();
    await expect(notice).toHaveCount(0, { timeout: 30_000 });
    // On the server, not on the device alone: a phone shows the next probe by now.
    await expect
      .poll(async () => (await page.request.get(`/api/jobs/${number}/snapshot`)).text(), { timeout: 20_000 })
      .toMatch(/"value":12\.6[,}]/);
  });
