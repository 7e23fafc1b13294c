/**
 * The README's pictures, taken anew from demo data on a server and a database of its own: `./surrik pictures [NAME …]`.
 * One entry each: where it is, and what is pressed before it is taken.
 */
import { chromium, type Page } from 'playwright-core';
import { secret, TestServer } from './testServer';

interface Picture {
  path: string;
  before?: (page: Page) => Promise<unknown>;
  size?: { width: number; height: number };
  dark?: true;
  /** Seconds for what is worked out before it is taken. */
  wait?: number;
}

const press = (name: string | RegExp) => (page: Page) => page.getByRole('button', { name }).first().click();
const say = (words: string) => (page: Page) =>
  page.getByText(words, { exact: true }).first().click({ timeout: 90_000 });
const PICTURES: Readonly<Record<string, Picture>> = {
  board: { path: '/' },
  bays: { path: '/calendar' },
  shop: { path: '/shop' },
  'new-job': { path: '/jobs/new' },
  calculators: { path: '/calculators' },
  readings: { path: '/jobs/1042/readings' },
  'readings-dark': { path: '/jobs/1042/readings', dark: true },
  'readings-390': { path: '/jobs/1042/readings', size: { width: 390, height: 844 } },
  intake: { path: '/jobs/1042/intake' },
  rig: { path: '/jobs/1042/rig', before: press(/^Isolator/) },
  fault: { path: '/jobs/1042/fault' },
  options: { path: '/jobs/1042/options', wait: 30 },
  sizing: { path: '/jobs/1043/sizing', wait: 20 },
  tow: { path: '/jobs/1045/sizing', before: say('Tow plug'), wait: 5 },
  build: {
    path: '/jobs/1043/options',
    async before(page) {
      const table = page.locator('.options-table');
      await table.locator('tbody tr').nth(5).waitFor({ timeout: 90_000 });
      await table
        .getByRole('button', { name: /Heavy line/ })
        .first()
        .click();
      await page.locator('.slip .btn.next').click();
      await page.getByLabel('Reasons, for the customer').fill('Charges on a day’s drive.');
      await page.getByRole('button', { name: 'It is this one' }).click();
      await page.keyboard.press('b');
    },
    wait: 10,
  },
  prove: { path: '/jobs/1009/prove' },
  logbook: {
    path: '/jobs/1042/logbook',
    async before(page) {
      await say('Read a log')(page);
      await page.getByLabel('Log file').setInputFiles('examples/heron-trip.csv');
      await page.getByLabel('Clock of the recorder').fill('utc');
      await page.getByRole('button', { name: 'Read it' }).click();
    },
    wait: 8,
  },
  report: { path: '/jobs/1009/report' },
  wiring: { path: '/jobs/1042/wiring' },
};

const wanted = process.argv.slice(2);
for (const name of wanted)
  if (!(name in PICTURES)) throw new Error(`no picture ${name}: ${Object.keys(PICTURES).join(', ')}`);
const server = await TestServer.on('surrik_pictures');
const browser = await chromium.launch({ executablePath: process.env['SURRIK_BROWSER']!, args: ['--no-sandbox'] });
try {
  const context = await browser.newContext({ baseURL: server.url, serviceWorkers: 'block' });
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByLabel('Name').fill('bay2');
  await page.getByLabel('Password').fill(secret('DEMO_PASSWORD'));
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'In the bay' }).waitFor();
  for (const [name, { path, before, size, dark, wait = 6 }] of Object.entries(PICTURES)) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    await page.setViewportSize(size ?? { width: 1280, height: 800 });
    await context.addCookies([{ name: 'surrik-theme', value: dark ? 'carbon' : 'ticket', url: server.url }]);
    await page.goto(path);
    await page.waitForTimeout(1500);
    await before?.(page);
    // What is being worked out says so; a moment more for what is drawn last.
    await page
      .locator('.btn.next[aria-disabled="true"], [aria-busy="true"]')
      .first()
      .waitFor({ state: 'detached', timeout: 90_000 });
    await page.waitForTimeout(wait * 1000);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    console.log(name);
  }
} finally {
  await browser.close();
  await server.stop();
}
