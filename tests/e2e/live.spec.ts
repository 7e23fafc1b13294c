/** What another enters is told at once, by the database, without the page asking again and again. */
import { randomUUID } from 'node:crypto';
import { expect, freshJob, openJob, signIn, test } from './world';

test('a page that is told does not ask; what another enters shows at once, on its other pages too', async ({
  page,
  context,
}) => {
  await freshJob(3320);
  await signIn(page);
  await openJob(page, 3320);
  const board = await context.newPage();
  await board.goto('/');
  // The listening begins; from then on nobody asks but now and then.
  await page.waitForTimeout(2500);
  let asked = 0;
  page.on('request', (r) => r.url().includes('/3320/snapshot') && asked++);
  await page.waitForTimeout(6000);
  expect(asked).toBeLessThanOrEqual(1);

  const seq = ((await (await page.request.get('/api/jobs/3320/snapshot')).json()) as { seq: number }).seq;
  const [told] = await Promise.all([
    page.waitForRequest((r) => r.url().includes('/3320/snapshot'), { timeout: 3000 }),
    page.request.post('/api/commands?job=3320', {
      headers: { origin: process.env['E2E_URL']! },
      data: {
        id: randomUUID(),
        type: 'job.set-status',
        version: 1,
        baseSeq: seq,
        at: new Date().toISOString(),
        actor: 'Bay 2 technician',
        payload: { status: 'waiting-parts' },
      },
    }),
  ]);
  expect(told.url()).toContain('since=');
  await expect(page.getByLabel('Status of the job')).toHaveValue('waiting-parts');
  // The board, another page of the same browser, looks every half minute where it is told.
  await expect(board.getByRole('region', { name: 'Parts or approval' }).getByText('3320')).toBeVisible({
    timeout: 5000,
  });
});
