/** What another enters is told at once, by the database, without the page asking again and again. */
import { randomUUID } from 'node:crypto';
import { expect, freshJob, openJob, signIn, test } from './world';

test('a page that is told does not ask; what another enters shows at once, on its other pages too', async ({
  page,
  context,
}) => {
  await freshJob(3322);
  await signIn(page);
  await openJob(page, 3322);
  const board = await context.newPage();
  await board.goto('/');
  let asked = 0;
  page.on('request', (r) => r.url().includes('/3322/snapshot') && asked++);
  // Once the listening has begun nobody asks but now and then: without it, four times in as long.
  await expect
    .poll(
      async () => {
        asked = 0;
        await page.waitForTimeout(6000);
        return asked;
      },
      { timeout: 60_000 },
    )
    .toBeLessThanOrEqual(1);

  const seq = ((await (await page.request.get('/api/jobs/3322/snapshot')).json()) as { seq: number }).seq;
  const [told] = await Promise.all([
    page.waitForRequest((r) => r.url().includes('/3322/snapshot'), { timeout: 8000 }),
    page.request.post('/api/commands?job=3322', {
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
  await expect(board.getByRole('region', { name: 'Parts or approval' }).getByText('3322')).toBeVisible({
    timeout: 5000,
  });
});
