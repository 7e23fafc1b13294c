/** What the end-to-end tests share: signing in, jobs of their own, a technician with a simulated meter. */
import { randomUUID } from 'node:crypto';
import { expect, test as base, type BrowserContext, type Cookie, type Locator, type Page } from '@playwright/test';
import { demoJobAs } from '../../db/demo/copies';
import { DEMO_SHOP } from '../../db/demo/shop';
import { compileRig } from '../../src/core/compile/compile';
import { rigFaults } from '../../src/core/diagnose/faults';
import { HiddenRig } from '../../src/core/diagnose/hiddenRig';
import { observationsOf } from '../../src/core/diagnose/observations';
import { OPERATING_STATES } from '../../src/core/operate/states';
import { rigMeasurements } from '../../src/core/probe/measurement';
import { motorhome } from '../../src/core/rig/archetypes/motorhome';
import type { Rig } from '../../src/core/rig/schema';
import { readSecrets } from '../../src/server/config';
import { connect } from '../../src/server/db';
import { insertJob } from '../../src/server/job/jobStore';

/**
 * Tests of one worker share a browser profile that forgets everything between them but the scripts it has fetched and
 * compiled: reading those anew took a third of each test.
 */
export const test = base.extend<object, { profile: BrowserContext }>({
  profile: [
    async ({ browser }, use) => {
      const profile = await browser.newContext({
        baseURL: process.env['E2E_URL']!,
        viewport: { width: 1280, height: 800 },
        // What goes through one is out of a test's reach; offline.spec.ts is about it.
        serviceWorkers: 'block',
      });
      await use(profile);
      await profile.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ profile }, use) => {
    await use(profile);
    // Nothing of ours is open while it is cleared: a page would write what it still holds.
    const blank = await profile.newPage();
    for (const p of profile.pages()) if (p !== blank) await p.close();
    const devtools = await profile.newCDPSession(blank);
    await devtools.send('Storage.clearDataForOrigin', {
      origin: process.env['E2E_URL']!,
      storageTypes: 'cookies,indexeddb,local_storage,service_workers,cache_storage',
    });
    await blank.close();
  },
});
export { expect };

const secrets = () => readSecrets(process.env['SURRIK_BASE']!);
export const demoPassword = (): string => secrets()['DEMO_PASSWORD']!;

/** A fresh copy of a demo job, the open one where not said, under a number of its own. */
export async function freshJob(number: number, like = 1042): Promise<void> {
  const db = connect(
    { host: '127.0.0.1', port: Number(process.env['SURRIK_DB_PORT']), name: process.env['SURRIK_DB_NAME']! },
    'surrik_owner',
    secrets()['OWNER_PASSWORD']!,
  );
  try {
    const attempt = base.info().retry;
    await db.transaction(async (tx) => {
      if (attempt > 0)
        await tx('jobs')
          .where({ shop_id: DEMO_SHOP.id, number })
          .update({ number: number * 1000 + attempt });
      await insertJob(tx, DEMO_SHOP.id, randomUUID(), demoJobAs(number, like, String(attempt)));
    });
  } finally {
    await db.destroy();
  }
}

/** Sessions of this worker by handle. */
const sessions = new Map<string, Cookie[]>();

/** Somebody signed in: by hand the first time, then by the cookie they got. Where the page stands after it is not said. */
export async function signIn(page: Page, handle = 'bay2'): Promise<void> {
  const cookies = sessions.get(handle);
  if (cookies) return page.context().addCookies(cookies);
  await signInByHand(page, handle);
  sessions.set(handle, await page.context().cookies());
}

export async function signInByHand(page: Page, handle = 'bay2'): Promise<void> {
  await page.goto('/sign-in');
  await page.getByLabel('Name').fill(handle);
  await page.getByLabel('Password').fill(demoPassword());
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'In the bay' })).toBeVisible();
}

/** Opens a station of a job and waits until the core has answered. */
export async function openJob(page: Page, number: number, station = 'readings'): Promise<void> {
  await page.goto(`/jobs/${number}/${station}`);
  await expect(page.locator('.btn.next:not([aria-disabled])').first()).toBeVisible({ timeout: 30_000 });
}

/** Picks a link under Options, with a reason; a pick then stands. */
export async function pickLink(page: Page, job: number, name: RegExp): Promise<void> {
  await page.goto(`/jobs/${job}/options`);
  const table = page.locator('.options-table');
  await expect(table.locator('tbody tr')).toHaveCount(6, { timeout: 60_000 });
  await table.getByRole('button', { name }).first().click();
  await page.locator('.slip .btn.next').click();
  await page.getByLabel('Reasons, for the customer').fill('Spares the alternator.');
  await page.getByRole('button', { name: 'It is this one' }).click();
  await expect(page.locator('.slip')).toContainText('Picked');
}

/** Elements painted with the highlighter: never more than one. */
export const markers = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const marker = getComputedStyle(document.documentElement).getPropertyValue('--marker').trim().toLowerCase();
    const rgb = `rgb(${[1, 3, 5].map((i) => parseInt(marker.slice(i, i + 2), 16)).join(', ')})`;
    return [...document.querySelectorAll('*')].filter(
      (e) => getComputedStyle(e).backgroundColor === rgb && e.getClientRects().length > 0,
    ).length;
  });

/** Complaints of the browser: content policy, errors, failed scripts. */
export function watchConsole(page: Page): string[] {
  const complaints: string[] = [];
  page.on(
    'console',
    (m) =>
      m.type() === 'error' && !/503|409|401|ERR_/.test(m.text()) && complaints.push(`${m.text()} ${m.location().url}`),
  );
  page.on('pageerror', (e) => complaints.push(e.message));
  return complaints;
}

/** A technician who does whatever the highlighted button says, with a meter on a rig that hides a fault. */
export class Technician {
  private readonly questions;
  private meter: HiddenRig;
  private takes = 0;

  constructor(
    private readonly page: Page,
    fault: string,
    private readonly seed: number,
    private readonly rig: Rig = motorhome('heron', 'Heron'),
    /** How the shop says things. */
    private readonly say: (text: string) => string = (text) => text,
  ) {
    this.questions = observationsOf(rig, rigFaults(rig));
    this.meter = new HiddenRig(compileRig(this.rig), fault, seed);
  }

  repairDone(): void {
    this.meter = new HiddenRig(compileRig(this.rig), 'nothing-wrong', this.seed);
  }

  private key(label: string): string {
    return this.rig.probes.find((p) => p.label === label)!.key;
  }

  /** The very bolt a bank’s negative should sit on. */
  private bolt(red: string): string {
    return rigMeasurements(this.rig).find((m) => m.red === red && m.label.endsWith('–bolt'))!.black!;
  }

  /** What the button says once it says the same twice, a moment apart. */
  private async settledWords(button: Locator): Promise<string> {
    const read = async () => (await button.innerText()).replace(/\s+/g, ' ').trim();
    let words = await read();
    for (let k = 0; k < 20; k++) {
      await this.page.waitForTimeout(200);
      const again = await read();
      if (again === words) break;
      words = again;
    }
    return words;
  }

  /** One step; returns what the button said. */
  async step(): Promise<string> {
    const { page } = this;
    const button = page.locator('.btn.next').first();
    await expect(page.locator('.why[aria-busy="true"]')).toHaveCount(0);
    await expect(page.locator('.btn.next[aria-disabled="true"]')).toHaveCount(0);
    const words = await this.settledWords(button);
    const change = /^Change to: (.*)$/.exec(words);
    if (change) {
      await button.click();
      const now = page.getByRole('button', { name: `It is now: ${change[1]!}` });
      // The core may have answered between reading and clicking: the button then did something else.
      const opened = await now.waitFor({ timeout: 10_000 }).then(
        () => true,
        () => false,
      );
      if (!opened) {
        await page.keyboard.press('Escape');
        return words;
      }
      await now.click();
      await expect(page.locator('dialog[open]')).toHaveCount(0);
      await expect(page.locator('.stateplate')).toContainText(change[1]!);
      return words;
    }
    const look = /^(?:Look|Listen|Feel|Try): (.*?)(?: about [\d.]+ min)?$/.exec(words);
    if (look) {
      const question = this.questions.find((q) => this.say(q.ask) === look[1]);
      if (!question) throw new Error(`asked what this rig is not: ${words}`);
      await button.click();
      const ask = page.locator('.asks.first .ask');
      const label = this.say(question.answers.find((a) => a.id === this.meter.answer(question))!.label);
      await ask.getByRole('button', { name: label.charAt(0).toUpperCase() + label.slice(1), exact: true }).click();
      await page.keyboard.press('Escape');
      await expect(page.locator('dialog[open]')).toHaveCount(0);
      await expect(button)
        .not.toHaveText(words, { timeout: 15_000 })
        .catch(() => undefined);
      return words;
    }
    const measure = /^(?:Measure|Take again) (P\d+)(?:–(P\d+|bolt))?,/.exec(words);
    if (!measure) return words;
    await button.click();
    const plate = await page.locator('.stateplate b').first().innerText();
    const state = OPERATING_STATES.find((s) => this.say(s.label) === plate)!.id;
    const probe = this.key(measure[1]!);
    const ref = probe.endsWith('.clamp')
      ? undefined
      : measure[2]
        ? measure[2] === 'bolt'
          ? this.bolt(probe)
          : this.key(measure[2])
        : `${this.rig.reference.part}.${this.rig.reference.terminal}`;
    const { value } = this.meter.read(state, probe, ref, this.takes++);
    await page.keyboard.type(String(value));
    await page.keyboard.press('Enter');
    await expect(page.locator('.disp output')).toHaveAttribute('aria-label', 'nothing typed');
    await expect(button)
      .not.toHaveText(words, { timeout: 15_000 })
      .catch(() => undefined);
    return words;
  }
}
