/** A bay without signal: the program opens, jobs go on, and what was entered gets there once, whoever's it was. */
import { connect as tcp, createServer, type AddressInfo, type Socket } from 'node:net';
import type { Browser, BrowserContext, Page } from '@playwright/test';
import sharp from 'sharp';
import { demoPassword, expect, freshJob, test } from './world';

/** The road to the server: it can be cut, and mended; entries alone can be kept back, and a newer program come along it. */
async function road() {
  const target = new URL(process.env['E2E_URL']!);
  const open = new Set<Socket>();
  let whole = true;
  let entries = true;
  let newer: Buffer | undefined;
  /** Whether what begins on a connection is answered on the way. */
  const onTheWay = (near: Socket, asked: Buffer): boolean => {
    const line = asked.subarray(0, 60).toString('latin1');
    if (!entries && line.startsWith('POST /api/commands')) near.destroy();
    else if (newer && line.startsWith('GET /service-worker.js ')) {
      const head = `content-type: text/javascript; charset=utf-8\r\ncache-control: no-cache\r\ncontent-length: ${newer.length}`;
      near.write(`HTTP/1.1 200 OK\r\n${head}\r\n\r\n`);
      near.write(newer);
    } else return false;
    return true;
  };
  const server = createServer((near) => {
    if (!whole) return void near.destroy();
    const far = tcp(Number(target.port), target.hostname);
    for (const [a, b] of [
      [near, far],
      [far, near],
    ] as const) {
      open.add(a);
      a.on('data', (d) => (a === near && onTheWay(near, d) ? undefined : b.write(d)));
      a.on('close', () => {
        open.delete(a);
        b.destroy();
      });
      a.on('error', () => b.destroy());
    }
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    cut() {
      whole = false;
      for (const socket of open) socket.destroy();
    },
    mend: () => void (whole = true),
    entries: (through: boolean) => void (entries = through),
    async newerProgram() {
      const now = Buffer.from(await (await fetch(`${target.origin}/service-worker.js`)).arrayBuffer());
      newer = Buffer.concat([now, Buffer.from('\n// another build\n')]);
    },
    close: () => new Promise<void>((done) => (server.close(() => done()), open.forEach((s) => s.destroy()))),
  };
}
type Road = Awaited<ReturnType<typeof road>>;

async function device(browser: Browser, way: Road): Promise<BrowserContext> {
  return browser.newContext({ baseURL: way.url, viewport: { width: 1280, height: 800 } });
}
async function signInOn(page: Page, handle: string): Promise<void> {
  await page.goto('/sign-in');
  await page.getByLabel('Name').fill(handle);
  await page.getByLabel('Password').fill(demoPassword());
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'In the bay' })).toBeVisible();
}
/** The code and the shell are on the device. */
const installed = (page: Page) =>
  page.evaluate(async () => {
    await navigator.serviceWorker.ready;
    for (let k = 0; k < 200 && !navigator.serviceWorker.controller; k++) await new Promise((r) => setTimeout(r, 50));
    return navigator.serviceWorker.controller !== null;
  });
/** Copies of the server's words on the device. */
const copies = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<string[]>((done, fail) => {
        const asked = indexedDB.open('surrik-copies');
        asked.onerror = () => fail(new Error('no copies'));
        asked.onsuccess = () => {
          const all = asked.result.transaction('copies').objectStore('copies').getAllKeys();
          all.onsuccess = () => (done(all.result as string[]), asked.result.close());
        };
      }),
  );
const keep = async (page: Page, figure: string) => {
  await page.keyboard.type(figure);
  await page.keyboard.press('Enter');
};
const values = async (page: Page, job: number): Promise<number[]> => {
  const answer = await page.request.get(`${process.env['E2E_URL']}/api/jobs/${job}/snapshot`);
  const { job: now } = (await answer.json()) as { job: { readings: { value: number }[] } };
  return now.readings.map((r) => r.value);
};
const notice = (page: Page) => page.locator('.notices');

test('the network is cut: the job goes on over reloads and closed tabs, and all of it arrives once', async ({
  browser,
}) => {
  await freshJob(3401);
  await freshJob(3402, 1043);
  const way = await road();
  const context = await device(browser, way);
  let page = await context.newPage();
  await signInOn(page, 'bay2');
  expect(await installed(page)).toBe(true);
  await page.goto('/jobs/3401/readings');
  await expect(page.locator('.btn.next:not([aria-disabled])').first()).toBeVisible({ timeout: 60_000 });
  await expect.poll(() => copies(page)).toContain('job 3401');

  way.cut();
  await keep(page, '11.87');
  await expect(notice(page)).toContainText('1 entry waits on this device', { timeout: 20_000 });
  // Another station, without a server.
  await page
    .getByRole('link', { name: /^2 *Fault|Fault/ })
    .first()
    .click();
  await expect(page).toHaveURL(/\/jobs\/3401\/fault$/);
  await expect(page.getByText('Suspects').first()).toBeVisible({ timeout: 30_000 });
  await page.reload();
  await expect(page).toHaveURL(/\/jobs\/3401\/fault$/);
  await expect(page.getByText('Suspects').first()).toBeVisible({ timeout: 30_000 });
  await expect(notice(page)).toContainText('1 entry waits on this device', { timeout: 60_000 });

  // The tab is closed; another day it is opened at the board.
  await page.close();
  page = await context.newPage();
  await page.goto('/');
  await expect(page.getByText('No answer from the server: the board as it stood')).toBeVisible({ timeout: 60_000 });
  await page.locator('.tk').getByRole('link', { name: '3401', exact: true }).click();
  await expect(page).toHaveURL(/\/jobs\/3401\//);
  await page.goto('/jobs/3401/readings');
  await expect(page.locator('.btn.next:not([aria-disabled])').first()).toBeVisible({ timeout: 60_000 });
  await keep(page, '11.88');
  await expect(notice(page)).toContainText('2 entries wait on this device', { timeout: 20_000 });
  // A photo is kept too.
  const jpeg = await sharp({ create: { width: 64, height: 48, channels: 3, background: '#345' } })
    .jpeg()
    .toBuffer();
  await page.goto('/jobs/3401/intake');
  await page.getByLabel('What it shows').fill('Link box in the dark');
  await page.locator('.btn.file input').setInputFiles({ name: 'IMG_2.jpg', mimeType: 'image/jpeg', buffer: jpeg });
  await expect(notice(page)).toContainText('1 photo on this device', { timeout: 20_000 });
  await page.goto('/jobs/3401/report');
  await expect(page.getByRole('heading', { name: 'This page needs the server' })).toBeVisible({ timeout: 20_000 });

  // The signal is back while one is at the board: both go from there, each once.
  await page.goto('/');
  await expect(page.locator('.tk').first()).toBeVisible({ timeout: 60_000 });
  way.mend();
  const arrived = async () => (await values(page, 3401)).filter((v) => v === 11.87 || v === 11.88);
  await expect.poll(arrived, { timeout: 60_000 }).toEqual([11.87, 11.88]);
  const photos = async () => {
    const answer = await page.request.get(`${process.env['E2E_URL']}/api/jobs/3401/snapshot`);
    const { job } = (await answer.json()) as { job: { photos: { caption: string; by: string }[] } };
    return job.photos.map((p) => [p.caption, p.by]);
  };
  await expect.poll(photos, { timeout: 60_000 }).toEqual([['Link box in the dark', 'Bay 2 technician']]);
  // Long enough for anything that would come twice.
  await page.waitForTimeout(2500);
  expect(await arrived()).toEqual([11.87, 11.88]);
  expect(await photos()).toHaveLength(1);
  await context.close();
  await way.close();
});

test('what one entered waits for oneself: signed out meanwhile, and another at the same tablet', async ({
  browser,
}) => {
  await freshJob(3403);
  const way = await road();
  const context = await device(browser, way);
  const page = await context.newPage();
  await signInOn(page, 'bay1');
  expect(await installed(page)).toBe(true);
  await page.goto('/jobs/3403/readings');
  await expect(page.locator('.btn.next:not([aria-disabled])').first()).toBeVisible({ timeout: 60_000 });
  await expect.poll(() => copies(page)).toContain('job 3403');
  way.cut();
  await keep(page, '12.43');
  await expect(notice(page)).toContainText('1 entry waits on this device', { timeout: 20_000 });
  // The session is gone, as after a sign-out everywhere.
  await context.clearCookies();
  way.mend();
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible({ timeout: 30_000 });
  await signInOn(page, 'bay2');
  // Nothing of the first one's is shown to the second, and his entry is not sent as another's.
  await page.goto('/jobs/3403/readings');
  await expect(notice(page)).toContainText('Sign in as Bay 1 technician to send it.', { timeout: 60_000 });
  expect(await values(page, 3403)).not.toContain(12.43);
  await page.goto('/');
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible({ timeout: 30_000 });
  await expect.poll(() => copies(page)).toEqual([]);
  await signInOn(page, 'bay1');
  await expect.poll(() => values(page, 3403), { timeout: 60_000 }).toContain(12.43);
  await context.close();
  await way.close();
});

test('a device without room says so, and what it could not keep is sent all the same', async ({ browser }) => {
  await freshJob(3404);
  const way = await road();
  const context = await device(browser, way);
  const page = await context.newPage();
  await signInOn(page, 'bay2');
  await page.goto('/jobs/3404/readings');
  await expect(page.locator('.btn.next:not([aria-disabled])').first()).toBeVisible({ timeout: 60_000 });
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  way.cut();
  await keep(page, '12.44');
  await expect(page.getByRole('alert').filter({ hasText: 'This device has no room' })).toBeVisible({ timeout: 20_000 });
  way.mend();
  await expect.poll(() => values(page, 3404), { timeout: 60_000 }).toContain(12.44);
  await expect(page.getByRole('alert').filter({ hasText: 'This device has no room' })).toHaveCount(0);
  await context.close();
  await way.close();
});

test('a newer program loses nothing that waits, and takes no page its code before it is told to', async ({
  browser,
}) => {
  await freshJob(3405);
  const way = await road();
  const context = await device(browser, way);
  const page = await context.newPage();
  await signInOn(page, 'bay2');
  expect(await installed(page)).toBe(true);
  await page.goto('/jobs/3405/readings');
  await expect(page.locator('.btn.next:not([aria-disabled])').first()).toBeVisible({ timeout: 60_000 });
  way.entries(false);
  await keep(page, '12.45');
  await expect(notice(page)).toContainText('1 entry waits on this device', { timeout: 20_000 });

  await way.newerProgram();
  const old = await page.evaluate(() => {
    (window as { begun?: string }).begun = 'before';
    return navigator.serviceWorker.controller!.scriptURL;
  });
  await page.evaluate(async () => void (await (await navigator.serviceWorker.getRegistration())!.update()));
  const offer = page
    .getByRole('status')
    .filter({ hasText: 'A newer Surrik is on this device. What you entered stays.' });
  await expect(offer).toBeVisible({ timeout: 60_000 });
  // The page goes on with the code it was opened with: a station it has not shown yet opens.
  await page.getByRole('link', { name: /Fault/ }).first().click();
  await expect(page.getByText('Suspects').first()).toBeVisible({ timeout: 30_000 });
  expect(await page.evaluate(() => (window as { begun?: string }).begun)).toBe('before');

  await Promise.all([page.waitForEvent('load'), offer.getByRole('button', { name: 'Use it now' }).click()]);
  expect(await page.evaluate(() => (window as { begun?: string }).begun)).toBeUndefined();
  await expect(notice(page)).toContainText('1 entry waits on this device', { timeout: 60_000 });
  await expect(offer).toHaveCount(0);
  expect(await page.evaluate(() => navigator.serviceWorker.controller!.scriptURL)).toBe(old);
  const waiting = () => page.evaluate(async () => (await navigator.serviceWorker.getRegistration())!.waiting === null);
  expect(await waiting()).toBe(true);

  way.entries(true);
  const arrived = async () => (await values(page, 3405)).filter((v) => v === 12.45);
  await expect.poll(arrived, { timeout: 60_000 }).toEqual([12.45]);
  await expect(notice(page).filter({ hasText: 'waits on this device' })).toHaveCount(0);
  await page.waitForTimeout(2500);
  expect(await arrived()).toEqual([12.45]);
  await context.close();
  await way.close();
});
