import { expect, openJob, signIn, test } from './world';

test('after a restart of server and database it is all there @after-restart', async ({ page }) => {
  await signIn(page);
  await page.goto('/');
  await expect(page.getByRole('region', { name: 'Done' })).toContainText('2001');
  await openJob(page, 2002);
  await page
    .getByRole('button', { name: /change|Engine idle|Shore/i })
    .first()
    .waitFor();
  const response = await page.request.get('/api/jobs/2002/snapshot');
  const { job } = (await response.json()) as {
    job: { readings: { probe: string; value?: number; retracted?: boolean }[]; rigState: { id: string } };
  };
  expect(job.rigState.id).toBe('shore');
  expect(job.readings.filter((r) => !r.retracted && r.probe === 'link.coil-plus').map((r) => r.value)).toEqual([10.41]);
  await page.goto('/jobs/2001/report');
  await expect(page.getByRole('article')).toContainText('proven right by measurement');
});
