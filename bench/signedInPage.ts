/** What the browser's halves of the bench begin with: a server of their own, Chromium, somebody signed in. */
import { chromium, type Page } from '@playwright/test';
import { secret, TestServer } from '../scripts/testServer';

export const quantile = (list: number[], q: number): number =>
  [...list].sort((a, b) => a - b)[Math.floor((list.length - 1) * q)]!;

/** Runs the work on a page of somebody signed in; everything is closed behind it. */
export async function withSignedInPage(work: (page: Page, url: string) => Promise<void>): Promise<void> {
  const server = await TestServer.on('surrik_bench');
  const browser = await chromium.launch({
    executablePath: process.env['SURRIK_BROWSER'] ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    await page.goto(`${server.url}/sign-in`);
    await page.getByLabel('Name').fill('bay2');
    await page.getByLabel('Password').fill(secret('DEMO_PASSWORD'));
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.waitForURL(`${server.url}/`);
    await work(page, server.url);
  } finally {
    await browser.close();
    await server.stop();
  }
}
