import AxeBuilder from '@axe-core/playwright';
import { expect, freshJob, markers, signIn, test, watchConsole } from './world';

type Snapshot = {
  job: {
    revisions: {
      kind: string;
      epoch: number;
      withdrawn?: boolean;
      doc: { tow?: { plugs: { ways: { pin: string; feed: string; seen?: unknown[] }[] }[] } };
    }[];
    waivers?: { reason: string; withdrawn?: boolean }[];
  };
};

test('socket and plug are read position by position, what coupling does is told, and the smallest change puts it right', async ({
  page,
}) => {
  const complaints = watchConsole(page);
  await freshJob(2701, 1045);
  await signIn(page);
  const snapshot = async () => (await (await page.request.get('/api/jobs/2701/snapshot')).json()) as Snapshot;
  await page.goto('/jobs/2701/sizing');
  await page.getByText('Tow plug', { exact: true }).click({ timeout: 30_000 });
  // A van with a charged accessory battery that feeds the trailer: chained, and a fridge that goes on.
  const findings = page.locator('.twfindings');
  await expect(findings).toContainText('A charger fed by another charger’s battery');
  await expect(findings).toContainText('Fridge element stays on after you park');
  await expect(findings).toContainText('Nothing goes wrong in any state');

  // Face to face: the socket's left is the plug's right.
  await page.getByRole('button', { name: '7-way blade' }).click();
  const x = async (side: number) => {
    const faces = page.locator('.twface').nth(side);
    const [pin, face] = [
      await faces.getByRole('button', { name: /^Pin 4,/ }).boundingBox(),
      await faces.locator('svg').boundingBox(),
    ];
    return (pin!.x + pin!.width / 2 - face!.x) / face!.width;
  };
  expect((await x(0)) + (await x(1))).toBeCloseTo(1, 2);

  // What is measured under a lamp is kept, and says what is wrong with the position.
  await page
    .locator('.twface')
    .first()
    .getByRole('button', { name: /^Pin 4,/ })
    .press('Enter');
  const key = page.getByLabel('Key off, unloaded volts');
  await key.fill('12.6');
  await page.getByLabel('Key off, loaded volts').fill('11.4');
  await page.getByLabel('Key off, loaded volts').press('Enter');
  await expect(page.locator('.twwrong')).toContainText('loaded volts and the amps of that load together');
  await page.getByLabel('Key off, amps of the load').fill('4.5');
  await page.getByLabel('Key off, amps of the load').press('Enter');
  await expect(findings).toContainText('A pin that sags under a lamp', { timeout: 20_000 });
  await expect(page.locator('.gauge-table tr.on')).toContainText('12.6 → 11.4 V');
  await expect
    .poll(
      async () => (await snapshot()).job.revisions[0]!.doc.tow?.plugs[0]!.ways.find((w) => w.pin === '4')?.seen?.length,
    )
    .toBe(1);
  // Two things that cannot both be: refused with the place and the remedy, nothing lost.
  await page
    .getByLabel('ground', { exact: true })
    .or(page.getByLabel('earth', { exact: true }))
    .click();
  await expect(page.getByText(/ground alone/)).toBeVisible({ timeout: 20_000 });
  await expect(page.locator('.gauge-table tr.on')).toContainText('12.6 → 11.4 V');

  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).include('.tw').analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  expect(await markers(page)).toBe(0);

  // Done on the rig: a new revision and epoch, and nothing goes wrong any more; undo takes it back.
  await page.getByRole('button', { name: /^It is done on the rig/ }).click();
  await expect(findings).toContainText('Parked overnight, just stopped, on the road and braking: nothing goes wrong.', {
    timeout: 20_000,
  });
  await expect.poll(async () => (await snapshot()).job.revisions.map((r) => r.epoch)).toEqual([0, 1]);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(findings).toContainText('A charger fed by another charger’s battery', { timeout: 20_000 });
  expect(complaints).toEqual([]);
});

test('a trailer too heavy for no breakaway battery is told so, and one press fits it', async ({ page }) => {
  const complaints = watchConsole(page);
  await freshJob(2703, 1043);
  await signIn(page);
  await page.goto('/jobs/2703/sizing');
  await page.getByText('Tow plug', { exact: true }).click({ timeout: 30_000 });
  const findings = page.locator('.twfindings');
  const missing = 'No breakaway battery on a trailer this heavy';
  await page.getByRole('button', { name: 'It has none' }).click();
  await expect(page.getByRole('button', { name: 'It has one' })).toBeVisible({ timeout: 20_000 });
  // Nobody has said what it weighs: asked, not assumed.
  await expect(findings).not.toContainText(missing);
  await page.getByRole('button', { name: 'Enter its loaded mass' }).click();
  await expect(page.getByLabel('Loaded mass')).toHaveValue('3500', { timeout: 20_000 });
  await expect(findings).toContainText(missing, { timeout: 20_000 });
  await page.getByLabel('Loaded mass').fill('2500');
  await page.getByLabel('Loaded mass').press('Enter');
  await expect(findings).not.toContainText(missing, { timeout: 20_000 });
  await page.getByLabel('Loaded mass').fill('6000');
  await page.getByLabel('Loaded mass').press('Enter');
  await expect(findings).toContainText(missing, { timeout: 20_000 });
  await page.getByRole('button', { name: /^It is done on the rig/ }).click();
  await expect(findings).not.toContainText(missing, { timeout: 20_000 });
  await expect(page.getByRole('button', { name: 'It has none' })).toBeVisible();
  expect(complaints).toEqual([]);
});

test('a rule is set aside with a reason on record, and taken back', async ({ page }) => {
  await freshJob(2702);
  await signIn(page);
  await page.goto('/jobs/2702/sizing');
  await page.getByText('Rules', { exact: true }).click({ timeout: 30_000 });
  const first = page.locator('.szfindings li').first();
  await expect(first).toBeVisible({ timeout: 30_000 });
  const title = (await first.locator('b').first().innerText()).trim();
  const strip = page.getByRole('region', { name: 'Loom strip, slim' });
  await expect(strip.getByRole('listitem', { name: /a rule/ }).first()).toBeVisible();
  await first.getByRole('button', { name: /^Set aside/ }).click();
  await page.getByLabel('Why it may stay, on record').fill('short');
  await expect(page.getByRole('button', { name: 'Set it aside' })).toBeDisabled();
  await page.getByLabel('Why it may stay, on record').fill('Sheathed all the way, agreed with the owner.');
  await page.getByRole('button', { name: 'Set it aside' }).click();
  const waived = page.locator('.szfindings li.waived');
  await expect(waived).toContainText('Sheathed all the way', { timeout: 20_000 });
  await expect(waived).toContainText(title);
  await page.reload();
  await page.getByText('Rules', { exact: true }).click({ timeout: 30_000 });
  await expect(waived).toContainText('Sheathed all the way', { timeout: 30_000 });
  await waived.getByRole('button', { name: 'Take it back' }).click();
  await expect(waived).toHaveCount(0, { timeout: 20_000 });
  // What the screen shows at once is a moment later with the server.
  const waivers = async () =>
    ((await (await page.request.get('/api/jobs/2702/snapshot')).json()) as Snapshot).job.waivers;
  await expect
    .poll(waivers)
    .toMatchObject([{ reason: 'Sheathed all the way, agreed with the owner.', withdrawn: true }]);
});
