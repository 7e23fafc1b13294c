import AxeBuilder from '@axe-core/playwright';
import { expect, freshJob, markers, openJob, signIn, test, watchConsole } from './world';

test('a coach nobody has seen before is in the bay within a minute', async ({ page }) => {
  const complaints = watchConsole(page);
  await signIn(page);
  await page.goto('/');
  await page.getByRole('link', { name: 'New job' }).click();
  await expect(page.getByRole('button', { name: 'Give the rig a nickname' })).toBeVisible();
  expect(await markers(page)).toBe(0);
  await page.getByLabel(/nickname/).fill('Lark');
  await expect(page.getByRole('button', { name: 'Say what the owner complains of' })).toBeVisible();
  await page.getByText('Start battery flat after standing').click();
  await page.getByText('Front engine').click();
  await page.getByText('Two-way, by volts').click();
  await page.getByText('Behind the disconnect').click();
  await page.getByText('24 V').click();

  // The strip follows: the module changes, the engine side goes to the nose.
  const strip = page.getByRole('group', { name: /Loom strip/ });
  await expect(strip).toContainText('two-way');
  const x = async (side: string) => (await strip.getByText(side).boundingBox())!.x;
  await expect.poll(async () => (await x('ENGINE SIDE')) < (await x('COACH SIDE'))).toBe(true);

  // A number out of its limits is said and not taken.
  const length = page.getByLabel('Length');
  await length.fill('3');
  await expect(page.getByText('14 to 49 ft')).toBeVisible();
  await length.fill('31');
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  expect(await markers(page)).toBe(1);
  await page.getByRole('button', { name: 'Open the job' }).click();

  await expect(page).toHaveURL(/\/jobs\/\d+\/readings/);
  await expect(page.locator('.btn.next:not([aria-disabled])').first()).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('.top')).toContainText('31-ft front-engine motorhome');
  // A 24 V coach: its bands are for 24 V.
  await expect(page.locator('.sheet')).toContainText(/2[4-8]\.\d to 2[4-9]\.\d V/);
  await page.getByRole('link', { name: /Fault/ }).click();
  await expect(page.locator('.sus').first()).toBeVisible();
  expect(complaints).toEqual([]);
});

test('an edit asks what it means; bands follow; undo takes it back', async ({ page }) => {
  await freshJob(2101);
  await signIn(page);
  await openJob(page, 2101, 'rig');
  await page.getByRole('button', { name: /^Isolator to coach bank/ }).click();
  const flag = page.getByRole('button', { name: /^P17, link cable amps/ });
  const plate = () => flag.locator('.plate-blank').textContent();
  const before = await plate();
  await page.getByRole('group', { name: /Gauge/ }).getByText('8', { exact: true }).click();
  await expect(page.getByText('Which is it?')).toBeVisible();
  await page.getByRole('button', { name: 'I described it wrong' }).click();
  await expect.poll(plate, { timeout: 20_000 }).not.toBe(before);
  // Readings stay evidence about the rig that was always so.
  await expect(page.getByRole('link', { name: /Readings/ })).toContainText('5 taken');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect.poll(plate, { timeout: 20_000 }).toBe(before);

  // A changed rig starts anew; its undo brings the old readings back.
  await page.getByRole('group', { name: /Gauge/ }).getByText('2/0', { exact: true }).click();
  await page.getByRole('button', { name: 'I changed the rig' }).click();
  await expect(page.getByRole('link', { name: /Readings/ })).toContainText('0 taken');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('link', { name: /Readings/ })).toContainText('5 taken');

  // What a part's limits forbid is not sent.
  await page
    .getByRole('button', { name: /^Coach bank/ })
    .first()
    .click();
  const charge = page.getByRole('group', { name: 'State of charge' }).getByRole('textbox').first();
  await charge.fill('140');
  await expect(page.getByText('0 to 100 %')).toBeVisible();
  await expect(page.getByText('Which is it?')).toHaveCount(0);
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
});

test('an end of a wire is moved to another terminal, and back by undo', async ({ page }) => {
  await freshJob(2205);
  await signIn(page);
  await page.goto('/jobs/2205/rig');
  await page.getByRole('button', { name: /^Boost switch to coil/ }).click();
  await page.getByText('Move an end').click();
  const to = page.getByRole('combobox', { name: 'To' });
  await expect(to).toHaveValue('link.coil-plus');
  await to.selectOption('link.coil-minus');
  await page.getByRole('button', { name: 'It was there' }).click();
  const ends = async () => {
    const { job } = (await (await page.request.get('/api/jobs/2205/snapshot')).json()) as {
      job: { revisions: { doc: { conductors: { id: string; to: { terminal: string } }[] } }[] };
    };
    return job.revisions.at(-1)!.doc.conductors.find((c) => c.id === 'boost-wire')!.to.terminal;
  };
  await expect.poll(ends).toBe('coil-minus');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect.poll(ends).toBe('coil-plus');
});

test('what is seen and heard moves the suspects, and can be taken back', async ({ page }) => {
  await freshJob(2102);
  await signIn(page);
  await openJob(page, 2102, 'fault');
  const share = async (name: string) =>
    Number(
      /(\d+) %/.exec((await page.locator('.sus', { hasText: name }).first().innerText()).replace(/\s+/g, ' '))?.[1] ??
        0,
    );
  await expect(page.locator('.sus').first()).toBeVisible();
  const before = await share('Link fuse open');
  await page.getByRole('button', { name: /Seen, heard, tried/ }).click();
  const ask = page.getByRole('group', { name: 'The link fuse is seen to be blown' });
  await ask.getByRole('button', { name: 'Yes' }).click();
  await expect(ask.getByRole('button', { name: 'Yes' })).toHaveAttribute('aria-pressed', 'true');
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  await page.keyboard.press('Escape');
  await expect.poll(() => share('Link fuse open'), { timeout: 20_000 }).toBeGreaterThan(80);
  await page.locator('.sus', { hasText: 'Link fuse open' }).click();
  await expect(page.locator('.clues')).toContainText('The link fuse is seen to be blown');
  await page.reload();
  await expect.poll(() => share('Link fuse open'), { timeout: 20_000 }).toBeGreaterThan(80);
  await page.getByRole('button', { name: /Seen, heard, tried/ }).click();
  await ask.getByRole('button', { name: 'Yes' }).click();
  await page.keyboard.press('Escape');
  await expect.poll(() => share('Link fuse open'), { timeout: 20_000 }).toBe(before);
});
