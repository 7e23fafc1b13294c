import AxeBuilder from '@axe-core/playwright';
import { expect, freshJob, markers, signIn, test, watchConsole } from './world';

test('a bench calculation answers at once, lives in its address, and is written into a job', async ({ page }) => {
  const complaints = watchConsole(page);
  await freshJob(2501);
  await signIn(page);
  await page.goto('/');
  await page.getByRole('link', { name: 'Calculators' }).click();
  await page.getByRole('navigation', { name: 'Calculators' }).getByRole('link', { name: 'Contact' }).click();
  const plate = page.getByRole('region', { name: 'Answer' });
  await expect(plate).toContainText('Good.');
  await page.getByLabel('Drop across it').fill('400');
  await expect(plate).toContainText('6.45 mΩ');
  await expect(plate).toContainText('Replace.');
  // The address holds it: after a reload, and for whoever gets it.
  expect(page.url()).toContain('drop=0.4');
  await page.reload();
  await expect(plate).toContainText('6.45 mΩ');
  await page.goBack();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('cable');
  await page.goForward();
  await expect(plate).toContainText('6.45 mΩ');

  // What makes no sense is said at the field, and the last answer stays.
  await page.getByLabel('Current through it').fill('-3');
  await expect(page.getByRole('main').getByRole('alert')).toContainText('0 to 1000 A');
  await expect(plate).toContainText('6.45 mΩ');
  await page.getByRole('button', { name: 'Usual figures again' }).click();
  await expect(plate).toContainText('1.94 mΩ');

  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  expect(await markers(page)).toBe(0);

  await page.getByRole('button', { name: 'Send to a job' }).click();
  await page.getByRole('button', { name: /^2501/ }).click();
  await expect(page.getByRole('dialog').getByRole('status')).toContainText('Written into job 2501');
  await page.goto('/jobs/2501/intake');
  await expect(page.getByText(/Calculated, contact: Drop across it 120 mV/)).toBeVisible({ timeout: 20_000 });
  expect(complaints).toEqual([]);
});

test('every calculator fits a phone: nothing runs off, every field has its unit and an answer', async ({ page }) => {
  const complaints = watchConsole(page);
  await signIn(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/calculators');
  const links = page.getByRole('navigation', { name: 'Calculators' }).getByRole('link');
  // They are drawn in the browser, which goes by the address: a moment after the page is there.
  await expect(links.first()).toBeVisible();
  const names = await links.allTextContents();
  expect(names.length).toBeGreaterThanOrEqual(12);
  for (const name of names) {
    await page.getByRole('navigation', { name: 'Calculators' }).getByRole('link', { name, exact: true }).click();
    await expect(page.locator('.plate output')).not.toBeEmpty();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(wide, name).toBe(0);
    const small = await page
      .locator('.calcs :is(a, button, select, .choose label)')
      .evaluateAll((list) =>
        list
          .filter((e) => e.getClientRects().length > 0 && e.getBoundingClientRect().height < 43.5)
          .map((e) => e.textContent),
      );
    expect(small, name).toEqual([]);
  }
  expect(complaints).toEqual([]);
});
