/** What every screen owes everybody: names, contrast, one highlight at most, nothing that spills, targets for a thumb. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { STATIONS } from '../../src/ui/shell/stations';
import { expect, markers, openJob, signIn, test } from './world';

/** Screens of the bay, and between them every kind of piece there is, looked at in the dark theme too. */
const DARK: ReadonlySet<string> = new Set(['board', 'readings', 'fault', 'prove', 'build', 'sizing', 'logbook']);

const SIZES = [
  [1024, 768],
  [768, 1024],
  // 1280 × 800 at 200 %.
  [640, 400],
  [390, 844],
  [1280, 800],
] as const;
/** Screens that stand on a tablet and in a hand too. */
const FITS: ReadonlySet<string> = new Set(['board', 'shop', ...STATIONS]);

/** Nothing runs off to the side at any size, and what is pressed is large enough for a thumb. */
async function fits(page: Page, name: string): Promise<void> {
  for (const [width, height] of SIZES) {
    const where = `${name} at ${width} × ${height}`;
    await page.setViewportSize({ width, height });
    await page.waitForTimeout(100);
    const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(over, where).toBeLessThanOrEqual(0);
    const small = await page.evaluate(() =>
      [...document.querySelectorAll('button, a.btn')]
        .filter((e) => e.getClientRects().length > 0 && !e.closest('dialog'))
        .map((e) => [e.textContent?.slice(0, 30), e.getBoundingClientRect()] as const)
        .filter(([, r]) => r.width > 0 && r.height < 39.5)
        .map(([t, r]) => `${t}: ${Math.round(r.height)} px high`),
    );
    expect(small, `${where}: targets too small for a thumb`).toEqual([]);
  }
}

test('screens are accessible in both themes, one highlight at most, nothing spills at any size', async ({ page }) => {
  test.setTimeout(400_000);
  // What is all right is not written up: it takes as long as looking.
  const look = () => new AxeBuilder({ page }).options({ resultTypes: ['violations'] });
  const wrong = async (axe: AxeBuilder, name: string) => {
    const { violations } = await axe.analyze();
    expect(violations.map((v) => `${name}: ${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  };
  const theme = (id: string) => page.evaluate((t) => document.documentElement.setAttribute('data-theme', t), id);
  const scan = async (name: string) => {
    // The strip is the same drawing on every station: it is looked at once, where it stands at its full height.
    const axe = look().withTags(['wcag2a', 'wcag2aa']);
    // Colors are looked at where between them every kind of piece stands, in either theme.
    if (!DARK.has(name)) axe.disableRules(['color-contrast']);
    await wrong(name === 'readings' ? axe : axe.exclude('svg'), name);
    expect(await markers(page), name).toBeLessThanOrEqual(1);
    if (FITS.has(name)) await fits(page, name);
    if (!DARK.has(name)) return;
    // What the other theme changes is its colours.
    await theme('carbon');
    const colors = look().withRules(['color-contrast']);
    await wrong(name === 'readings' ? colors : colors.exclude('svg'), `${name}, dark`);
    await theme('ticket');
  };
  await page.goto('/sign-in');
  await scan('sign-in');
  await signIn(page);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'In the bay' })).toBeVisible();
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
  await expect(page.locator('.options-table tbody tr').first()).toBeVisible({ timeout: 60_000 });
  await scan('options');
  await page.goto('/jobs/1009/logbook');
  await expect(page.getByRole('heading', { name: 'Bench slip' })).toBeVisible();
  await page.waitForTimeout(400);
  await scan('logbook');
  await page.goto('/calendar');
  await expect(page.getByRole('main')).toBeVisible();
  await scan('bays');
  await page.goto('/shop');
  await expect(
    page.getByRole('region', { name: 'Meters and clamps' }).or(page.getByLabel('Instruments')),
  ).toBeVisible();
  await scan('shop');
  await page.goto('/me');
  await expect(page.getByRole('region', { name: 'A PIN for shared tablets' })).toBeVisible();
  await scan('me');
  await page.goto('/switch');
  await expect(page.getByRole('heading', { name: 'Who is here?' })).toBeVisible();
  await scan('switch');
  await page.goto('/jobs/1009/report');
  await expect(page.getByRole('article')).toContainText('It is right now');
  await scan('report');
  for (const paper of ['wiring', 'card']) {
    await page.goto(`/jobs/1009/${paper}`);
    await expect(page.getByRole('article')).toBeVisible({ timeout: 30_000 });
    await scan(paper);
  }
});
