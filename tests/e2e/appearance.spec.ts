/** What every screen owes everybody: names, contrast, one highlight at most, nothing that spills, targets for a thumb. */
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { markers, openJob, signIn } from './world';

for (const theme of ['ticket', 'carbon'] as const) {
  test(`screens are accessible, one highlight at most (${theme})`, async ({ page, context }) => {
    await context.addCookies([{ name: 'surrik-theme', value: theme, url: process.env['E2E_URL']! }]);
    const scan = async (name: string) => {
      const axe = new AxeBuilder({ page });
      // What a theme changes is its colours: all the rest is looked at once.
      const result = await (theme === 'ticket' ? axe.withTags(['wcag2a', 'wcag2aa']) : axe.withRules(['color-contrast'])).analyze();
      expect(result.violations.map((v) => `${name}: ${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
      expect(await markers(page), name).toBeLessThanOrEqual(1);
    };
    await page.goto('/sign-in');
    await scan('sign-in');
    await signIn(page);
    await scan('board');
    for (const station of ['intake', 'rig', 'readings', 'fault', 'prove', 'build']) {
      await openJob(page, 1042, station);
      await page.waitForTimeout(400);
      await scan(station);
    }
    await page.goto('/jobs/1042/sizing');
    await expect(page.locator('.szlist button').first()).toBeVisible({ timeout: 30_000 });
    await scan('sizing');
    await page.goto('/jobs/1042/options');
    await expect(page.locator('.otable tbody tr').first()).toBeVisible({ timeout: 60_000 });
    await scan('options');
    await page.goto('/jobs/1009/logbook');
    await expect(page.getByRole('heading', { name: 'Bench slip' })).toBeVisible();
    await page.waitForTimeout(400);
    await scan('logbook');
    await page.goto('/calendar');
    await expect(page.getByRole('main')).toBeVisible();
    await scan('bays');
    await page.goto('/shop');
    await expect(page.getByRole('region', { name: 'Meters and clamps' }).or(page.getByLabel('Instruments'))).toBeVisible();
    await scan('shop');
    await page.goto('/jobs/1009/report');
    await expect(page.getByRole('article')).toContainText('It is right now');
    await scan('report');
    for (const paper of ['wiring', 'card']) {
      await page.goto(`/jobs/1009/${paper}`);
      await expect(page.getByRole('article')).toBeVisible({ timeout: 30_000 });
      await scan(paper);
    }
  });
}

for (const [width, height] of [
  [1280, 800],
  [1024, 768],
  [390, 844],
] as const) {
  test(`nothing spills at ${width} × ${height}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    await signIn(page);
    const stations = ['intake', 'rig', 'readings', 'fault', 'sizing', 'prove'];
    for (const path of ['/', '/shop', ...stations.map((s) => `/jobs/1009/${s}`), ...stations.map((s) => `/jobs/1042/${s}`)]) {
      await page.goto(path);
      if (path.startsWith('/jobs')) await expect(page.locator('.stateplate').first()).toBeVisible();
      await page.waitForTimeout(700);
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      expect(over, path).toBeLessThanOrEqual(0);
      const small = await page.evaluate(() =>
        [...document.querySelectorAll('button, a.bx')]
          .filter((e) => e.getClientRects().length > 0 && !e.closest('dialog'))
          .map((e) => [e.textContent?.slice(0, 30), e.getBoundingClientRect()] as const)
          .filter(([, r]) => r.width > 0 && r.height < 39.5)
          .map(([t, r]) => `${t}: ${Math.round(r.height)} px high`),
      );
      expect(small, `${path}: targets too small for a thumb`).toEqual([]);
    }
  });
}
