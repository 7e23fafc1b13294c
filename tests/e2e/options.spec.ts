import AxeBuilder from '@axe-core/playwright';
import { expect, freshJob, markers, signIn, test, watchConsole } from './world';

test('links are compared on the customer’s own use, one is picked, and the pick can be taken back', async ({
  page,
}) => {
  const complaints = watchConsole(page);
  await freshJob(2421);
  await signIn(page);
  await page.goto('/jobs/2421/options');
  const table = page.locator('.options-table');
  await expect(table.locator('tbody tr')).toHaveCount(6, { timeout: 40_000 });
  await expect(table).toContainText('Leave it');
  // One thing to press: the pick.
  expect(await markers(page)).toBe(1);
  const next = page.locator('.slip .btn.next');
  await expect(next).toContainText('Pick');
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);

  // Another row: the strip shows the rig it would make.
  await table.getByRole('button', { name: /^[A-F] 40 A DC-DC charger(?!,)/ }).click();
  await expect(page.getByRole('region', { name: 'Loom strip, slim' })).toContainText('DC-DC charger');
  expect(await markers(page)).toBe(0);

  // The cursor reads every line at one hour.
  await page.locator('.chart-box').first().focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('.oread')).toContainText(/day \d.* %/);

  // When and why.
  await page.getByText('Events', { exact: true }).click();
  await expect(page.locator('.oevents')).toContainText('DC-DC charger gives all it can');
  await expect(page.locator('.oevents')).toContainText(/input 1\d\.\d\d V/);
  await page.getByText('Schools', { exact: true }).click();
  await expect(page.locator('.oschools')).toContainText('Regulate it');

  // Points open their working.
  await page.getByText('Compare', { exact: true }).click();
  await table.locator('.opoints').first().click();
  await expect(page.getByRole('dialog')).toContainText('Starts the engine');
  await page.getByRole('button', { name: 'Close' }).click();

  // Pick what is recommended.
  await table.locator('tbody tr').nth(3).getByRole('button').first().click();
  await next.click();
  await expect(page.getByRole('dialog')).toContainText('What changes on the rig');
  await page.getByLabel('Reasons, for the customer').fill('Keeps both banks on shore power.');
  await page.getByRole('button', { name: 'It is this one' }).click();
  await expect(page.locator('.slip')).toContainText('Picked');
  await expect(page.locator('.slip')).toContainText('Keeps both banks on shore power.');
  await expect(page.getByRole('link', { name: /Options/ })).toContainText('picked');
  // It is on the server, as a proposed revision, and survives a reload.
  await expect
    .poll(async () =>
      (
        (await (await page.request.get('/api/jobs/2421/snapshot')).json()) as { job: { revisions: { kind: string }[] } }
      ).job.revisions.map((r) => r.kind),
    )
    .toEqual(['as-found', 'proposed']);
  await page.reload();
  await expect(page.locator('.slip')).toContainText('Picked', { timeout: 30_000 });
  await page.getByRole('button', { name: 'Take the pick back' }).click();
  await expect(page.locator('.slip .btn.next')).toContainText('Pick', { timeout: 30_000 });
  expect(complaints).toEqual([]);
});

test('the use is edited by keys, a wrong number is said and loses nothing, and questions are answered', async ({
  page,
}) => {
  await freshJob(2422);
  await signIn(page);
  await page.goto('/jobs/2422/options');
  await expect(page.locator('.options-table tbody tr')).toHaveCount(6, { timeout: 40_000 });
  const arrives = () => page.locator('.options-table tbody tr').first().locator('td').first().textContent();
  const before = await arrives();
  await page.getByText('Use', { exact: true }).click();
  const home = page.getByRole('button', { name: /^Drive home, 5 h/ });
  await home.click();
  await page.keyboard.press('-');
  await page.keyboard.press('-');
  await expect(page.getByRole('button', { name: /^Drive home, 4 h/ })).toBeVisible();
  const lasts = page.getByLabel('Lasts');
  await lasts.fill('-2');
  await expect(page.getByText('0.05 to 4400 h')).toBeVisible();
  await lasts.fill('2');
  await lasts.press('Enter');
  await expect(page.getByRole('button', { name: /^Drive home, 2 h/ })).toBeVisible();
  // By Alt and arrow the leg changes its place.
  await page.getByRole('button', { name: /^Drive home, 2 h/ }).focus();
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(page.locator('.leg').nth(2)).toContainText('Drive home');
  await page.keyboard.press('Alt+ArrowRight');
  await page.getByText('Compare', { exact: true }).click();
  await expect.poll(arrives, { timeout: 30_000 }).not.toBe(before);

  await page.getByText('Ask', { exact: true }).click();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.locator('.answers li').first()).toContainText(/driving from 40 % to 80 %|Not reached/, {
    timeout: 40_000,
  });
  await page.getByText('How long until it does not start?').click();
  await page.getByRole('button', { name: 'Work it out' }).click();
  await expect(page.locator('.answers li').first()).toContainText(/starts for \d+ days|Longer than a year/, {
    timeout: 40_000,
  });
});

test('how sure it is: samples of the assumptions with progress, and a stop that stops', async ({ page }) => {
  test.slow();
  await freshJob(2423);
  await signIn(page);
  await page.goto('/jobs/2423/options');
  await expect(page.locator('.options-table tbody tr')).toHaveCount(6, { timeout: 40_000 });
  // Two of the six are compared: the samples of all six take three times as long and say no more.
  await page.getByRole('button', { name: /^6 of \d+ links/ }).click();
  const picker = page.getByRole('dialog', { name: 'Which links to compare' });
  for (let k = 0; k < 4; k++) await picker.getByRole('checkbox', { checked: true }).last().uncheck();
  await picker.getByRole('button', { name: 'Compare these 2' }).click();
  await expect(page.locator('.options-table tbody tr')).toHaveCount(2, { timeout: 40_000 });
  await page.getByRole('button', { name: 'How sure is this?' }).click();
  await page.getByRole('button', { name: 'Stop' }).click();
  await page.getByRole('button', { name: 'How sure is this?' }).click();
  await expect(page.locator('.slip')).toContainText('nine tenths of 60 draws', { timeout: 100_000 });
  await expect(page.locator('.options-table tbody tr').first()).toContainText(/\d+ to \d+/);
});

test('any of the six families can be drawn up and compared', async ({ page }) => {
  const complaints = watchConsole(page);
  await signIn(page);
  await page.goto('/jobs/new');
  const strip = page.getByRole('group', { name: /Loom strip/ });
  for (const [family, piece] of [
    ['Truck and slide-in camper', 'Camper bank'],
    ['Motorhome and towed car', 'Car battery'],
    ['Van, second battery, trailer', 'Accessory'],
    ['48 V trailer', 'Brake battery'],
    ['Truck and trailer', 'Trailer bank'],
  ] as const) {
    await page.getByText(family, { exact: true }).click();
    await expect(strip).toContainText(piece);
  }
  await page.getByLabel(/nickname/).fill('Plover');
  await page.getByText('Trailer bank does not charge on the road').click();
  await page.getByText('Heavy line and solenoid').click();
  await page.getByRole('button', { name: 'Open the job' }).click();
  await expect(page).toHaveURL(/\/jobs\/\d+\/readings/);
  await page.getByRole('link', { name: /Options/ }).click();
  await expect(page.locator('.options-table')).toContainText('Factory charge line', { timeout: 40_000 });
  expect(complaints).toEqual([]);
});
