/** What one does not mean to do: nothing of it is lost, and what cannot be taken is said. */
import { expect, freshJob, openJob, signIn, test, watchConsole } from './world';

test('a job half described outlives a reload and a look at the board; once opened it is described no more', async ({
  page,
}) => {
  const complaints = watchConsole(page);
  // The job that is opened takes the next number, which no other test writes.
  await freshJob(7_900);
  await signIn(page);
  await page.goto('/jobs/new');
  await page.getByText('Truck and trailer', { exact: true }).click();
  await page.getByText('DC-DC charger, own cable', { exact: true }).first().click();
  await page.getByLabel(/nickname/).fill('Plover');
  await page.getByText('Trailer bank charges slowly on the road', { exact: true }).click();
  const all = async () => {
    await expect(page.getByLabel(/nickname/)).toHaveValue('Plover');
    await expect(page.getByLabel('Trailer bank charges slowly on the road')).toBeChecked();
    await expect(page.getByLabel('DC-DC charger, own cable').first()).toBeChecked();
  };
  await all();
  await page.reload();
  await all();
  await page.goto('/');
  await page.goBack();
  await all();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page).toHaveURL(/\/jobs\/\d+\/readings/);
  await page.goto('/jobs/new');
  await expect(page.getByLabel(/nickname/)).toHaveValue('');
  // What stands there from before can be put away by a press.
  await page.getByLabel(/nickname/).fill('Somebody else’s');
  await page.reload();
  await expect(page.getByLabel(/nickname/)).toHaveValue('Somebody else’s');
  await page.getByRole('button', { name: 'Start over' }).click();
  await expect(page.getByLabel(/nickname/)).toHaveValue('');
  await expect(page.getByRole('button', { name: 'Start over' })).toHaveCount(0);
  expect(complaints).toEqual([]);
});

test('reasons typed for a pick outlive a closed dialog and the browser’s way back', async ({ page }) => {
  await freshJob(2981);
  await signIn(page);
  await page.goto('/jobs/2981/intake');
  await page.goto('/jobs/2981/options');
  const pick = page.locator('.slip .btn.next');
  await expect(page.locator('.options-table tbody tr')).toHaveCount(6, { timeout: 40_000 });
  const reasons = page.getByLabel('Reasons, for the customer');
  await pick.click();
  await reasons.fill('Half a sentence');
  await page.keyboard.press('Escape');
  await expect(page.locator('dialog[open]')).toHaveCount(0);
  await pick.click();
  await expect(reasons).toHaveValue('Half a sentence');
  await page.goBack();
  await expect(page).toHaveURL(/intake/);
  await page.goForward();
  await expect(page.locator('.options-table tbody tr')).toHaveCount(6, { timeout: 40_000 });
  await pick.click();
  await expect(reasons).toHaveValue('Half a sentence');
  await page.getByRole('button', { name: 'It is this one' }).click();
  await expect(page.locator('.slip')).toContainText('Half a sentence');
});

test('two fingers on two buttons keep at most one reading', async ({ page }) => {
  await freshJob(2984);
  await signIn(page);
  await openJob(page, 2984);
  const kept = async () => {
    const { job } = (await (await page.request.get('/api/jobs/2984/snapshot')).json()) as {
      job: { readings: unknown[] };
    };
    return job.readings.length;
  };
  const before = await kept();
  await page.keyboard.type('12.4');
  const middle = async (name: RegExp) => {
    const box = (await page.locator('.kp').getByRole('button', { name }).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const [keep, cannot] = [await middle(/^Keep/), await middle(/^Can’t/)];
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('Emulation.setTouchEmulationEnabled', { enabled: true, maxTouchPoints: 2 });
  await devtools.send('Input.dispatchTouchEvent', {
    type: 'touchStart',
    touchPoints: [
      { ...keep, id: 1 },
      { ...cannot, id: 2 },
    ],
  });
  await devtools.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await page.waitForTimeout(500);
  const after = await kept();
  expect(after - before).toBeLessThanOrEqual(1);
  // What was typed is kept, or still stands there.
  if (after === before) await expect(page.locator('.disp output')).toHaveAttribute('aria-label', 'typed 12.4');
  // One finger does what it says.
  await page.touchscreen.tap(keep.x, keep.y).catch(() => page.mouse.click(keep.x, keep.y));
  await expect.poll(kept).toBe(before + 1);
});
