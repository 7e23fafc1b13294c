import sharp from 'sharp';
import { expect, freshJob, markers, openJob, signIn, test } from './world';

test('the intake is told, sets where the search starts, and can be taken back', async ({ page }) => {
  await freshJob(2201);
  await signIn(page);
  await openJob(page, 2201, 'intake');
  const start = page.getByLabel('Where the search starts');
  await expect(start.locator('li').first()).toBeVisible();
  const share = async (name: string) =>
    Number(
      /(\d+) %/.exec(
        (
          await start
            .locator('li', { hasText: name })
            .first()
            .innerText()
            .catch(() => '0 %')
        ).replace(/\s+/g, ' '),
      )![1],
    );
  const before = await share('Isolator contact burned open');
  await page.getByText('A tap on the isolator helps').click();
  await expect.poll(() => share('Isolator contact burned open')).toBeGreaterThan(before + 5);
  await expect(start).toContainText('a tap on the isolator helps ×2.5');
  await page.getByLabel('Driving on a travel day').fill('7,5 h');
  await page.getByLabel('History and what was tried, no names').fill('Jump-started twice in spring.');
  await page.getByLabel('Customer').fill('Lagoon survey');
  await page.getByLabel('Registration').fill('LAG 1');
  await page.getByRole('button', { name: '1009' }).click();
  // The demo came back from 1009 already: pressed again, the link goes; and once more, it is back.
  await expect(page.getByLabel('Warranty')).toHaveCount(0);
  await page.getByRole('button', { name: '1009' }).click();
  await page.getByLabel('Warranty').check();
  await expect(page.getByLabel('Warranty')).toBeChecked();

  const jpeg = await sharp({ create: { width: 640, height: 480, channels: 3, background: '#864' } })
    .jpeg()
    .toBuffer();
  await page.getByLabel('What it shows').fill('Link box as found');
  await page.locator('.btn.file input').setInputFiles({ name: 'IMG_1.jpg', mimeType: 'image/jpeg', buffer: jpeg });
  const photo = page.getByRole('img', { name: 'Link box as found' });
  await expect(photo).toBeVisible();
  await expect.poll(() => photo.evaluate((e: HTMLImageElement) => e.naturalWidth)).toBe(640);
  await page
    .locator('.btn.file input')
    .setInputFiles({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('not a picture') });
  const notTaken = page.getByRole('alert').filter({ hasText: 'not a photo Surrik can read' });
  await expect(notTaken).toBeVisible();
  await notTaken.getByRole('button', { name: 'Throw away' }).click();

  // Undo takes back what one did, last first; the rest stays.
  await page.locator('.top').getByRole('button', { name: 'Undo: the photo' }).click();
  await expect(photo).toHaveCount(0);
  await page.reload();
  await expect(page.getByLabel('Driving on a travel day')).toHaveValue('7.5', { timeout: 20_000 });
  await expect(page.getByLabel('History and what was tried, no names')).toHaveValue('Jump-started twice in spring.');
  await expect(page.getByLabel('Customer')).toHaveValue('Lagoon survey');
  await expect(page.getByLabel('Warranty')).toBeChecked();
  expect(await markers(page)).toBeLessThanOrEqual(1);
  // Whose rig it is never stands in the job's document.
  const { job } = (await (await page.request.get('/api/jobs/2201/snapshot')).json()) as { job: unknown };
  expect(JSON.stringify(job)).not.toContain('Lagoon survey');
});

test('a wire that is not there is taken out, told about, and put back', async ({ page }) => {
  await freshJob(2202);
  await signIn(page);
  await openJob(page, 2202, 'rig');
  await page.getByRole('button', { name: /^Coach bank to house frame/ }).click();
  await page.getByRole('button', { name: 'It is not there' }).click();
  await page.getByRole('button', { name: 'I described it wrong' }).click();
  const told = page.getByLabel('What cannot work');
  await expect(told).toContainText('Coach bank: nothing is on its – terminal');
  await page.keyboard.press('f');
  await expect(page.locator('.sus').first()).toBeVisible({ timeout: 20_000 });
  await page.keyboard.press('g');
  await page.keyboard.press('Control+z');
  await expect(told).toHaveCount(0);

  // A wire of one's own, and a probe where none was.
  await page.getByRole('button', { name: 'Add a part, wire or probe' }).click();
  await page.getByRole('combobox', { name: /^From/ }).selectOption({ label: 'House loads, +' });
  await page.getByRole('combobox', { name: /^To/ }).selectOption({ label: 'Boost switch, feed' });
  await page.getByRole('button', { name: 'It was there' }).click();
  await expect(page.getByRole('heading', { name: 'House loads, + to Boost switch, feed' })).toBeVisible();
  await page
    .getByRole('button', { name: /^House loads/ })
    .first()
    .click();
  await page.getByRole('row', { name: /^\+/ }).getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('row', { name: /^\+/ }).getByRole('button', { name: /P27/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: /^P27, house loads/ })).toBeVisible({ timeout: 20_000 });
});

test('on my own round nothing is asked for, and everything counts', async ({ page }) => {
  await freshJob(2203);
  await signIn(page);
  await openJob(page, 2203, 'fault');
  const or = page.getByRole('group', { name: 'Or' }).getByRole('button');
  await expect(or).toHaveCount(3);
  await page.getByRole('button', { name: 'I’ll do my own round' }).click();
  await expect(page.locator('.slip')).toContainText('Your own round');
  expect(await markers(page)).toBe(0);
  const top = await page.locator('.sus').first().innerText();
  await page.keyboard.press('r');
  await page.getByRole('button', { name: /^P10, coil \+, to take/ }).click();
  await page.keyboard.type('13.7');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^P11, coil –, to take/ }).click();
  await page.keyboard.type('13.7');
  await page.keyboard.press('Enter');
  await page.keyboard.press('f');
  await expect.poll(() => page.locator('.sus').first().innerText(), { timeout: 20_000 }).not.toBe(top);
  await expect(page.locator('.sus').first()).toContainText('Coil ground lost');
  await page.getByRole('button', { name: /On my own round/ }).click();
  await expect(page.locator('.slip .next')).toBeVisible();
});

test('the shop’s words, units, rates and meters reach the job @alone', async ({ page }) => {
  await freshJob(2204);
  await signIn(page);
  await page.goto('/');
  await page.getByRole('link', { name: 'Shop' }).click();
  await page.getByText('UK and Europe').click();
  await page.getByText('Meters', { exact: true }).click();
  await page.getByText('mm²').click();
  await page.getByLabel(/^Labou?r, an hour/).fill('96');
  await page.getByLabel(/^Labou?r, an hour/).press('Enter');
  await page.getByLabel('A new one, as the shop calls it').fill('Old clamp');
  await page.getByRole('button', { name: 'Add it' }).click();
  const clamp = page.getByRole('group', { name: 'Old clamp' });
  await expect(clamp).toContainText('never verified');
  // Changed while nothing gets through, and the page left at once: the next page sends it, whichever it is.
  await page.route('**/api/commands*', (route) => route.abort());
  await clamp.getByLabel('Compared with something known on').fill('2026-11-01');
  await expect(clamp).toContainText('good until 2027-11-01');
  try {
    await page.goto('/');
    await page.unroute('**/api/commands*');
    await expect
      .poll(async () => JSON.stringify(await (await page.request.get('/api/shop')).json()))
      .toContain('"calibratedOn":"2026-11-01"');
    await openJob(page, 2204);
    await expect(page.locator('.sheet')).toContainText('Leisure');
    await expect(page.locator('svg.strip')).toContainText('Leisure battery');
    await page.keyboard.press('g');
    await expect(page.getByLabel('Parts, nose to tail')).toContainText('67.4 mm²');
    await page.keyboard.press('r');
    await page.getByLabel('Meter in hand').selectOption({ label: 'Old clamp' });
    await page.getByRole('button', { name: /^P12, isolator chassis stud, to take/ }).click();
    await page.keyboard.type('13.8');
    await page.keyboard.press('Enter');
    await expect
      .poll(async () =>
        JSON.stringify(
          (
            (await (await page.request.get('/api/jobs/2204/snapshot')).json()) as { job: { readings: unknown[] } }
          ).job.readings.at(-1),
        ),
      )
      .toContain('"meter":"old-clamp"');
    await page.keyboard.press('f');
    await expect(page.locator('.why .shows').nth(1)).toContainText('$', { timeout: 20_000 });
  } finally {
    // The other tests read the words of the demo.
    await page.goto('/shop');
    await page.getByText('North America').click();
    await page.getByText('Feet').click();
    await page.getByText('AWG').click();
    await page.getByLabel(/^Labou?r, an hour/).fill('150');
    await page.getByLabel(/^Labou?r, an hour/).press('Enter');
    await expect
      .poll(
        async () =>
          (
            (await (await page.request.get('/api/shop')).json()) as {
              shop: { settings: { vocabulary: string; labourPerHour: number } };
            }
          ).shop.settings,
      )
      .toMatchObject({ vocabulary: 'north-america', labourPerHour: 150 });
  }
});
