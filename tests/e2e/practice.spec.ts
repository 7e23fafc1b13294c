/**
 * The first five minutes: somebody who has never seen the program does what the guide says, and signs a whole job. With a
 * mouse, by the keyboard alone, and with a thumb on a phone.
 */
import type { Locator, Page } from '@playwright/test';
import { expect, signIn, test, watchConsole } from './world';

/** How a hand works the screen. */
interface Hand {
  /** The highlighted next action. */
  next(): Promise<void>;
  press(button: Locator): Promise<void>;
  /** Writes into a field of a form. */
  write(field: Locator, text: string): Promise<void>;
  /** A reading, on the keypad or by keys, and keeps it. */
  reading(text: string): Promise<void>;
  station(name: string): Promise<void>;
}

const nextOf = (page: Page) => page.locator('.btn.next').first();

const mouse = (page: Page, number: string): Hand => ({
  next: () => nextOf(page).click(),
  press: (button) => button.click(),
  write: (field, text) => field.fill(text),
  async reading(text) {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  },
  station: async (name) => void (await page.goto(`/jobs/${number}/${name}`)),
});

/** Tab until it has the focus: whatever a mouse can reach, the keyboard reaches too. */
async function tabTo(page: Page, wanted: Locator): Promise<void> {
  await expect(wanted).toBeVisible();
  for (let k = 0; k < 200; k++) {
    if (await wanted.evaluate((e) => e === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error('the keyboard does not reach it');
}

const keyboard = (page: Page): Hand => ({
  async next() {
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await page.keyboard.press('Enter');
  },
  async press(button) {
    await tabTo(page, button);
    await page.keyboard.press('Enter');
  },
  async write(field, text) {
    await tabTo(page, field);
    await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.type(text);
  },
  async reading(text) {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  },
  station: (name) => page.keyboard.press({ prove: 'p', fault: 'f' }[name]!),
});

const thumb = (page: Page): Hand => ({
  // What is in hand already needs no press: the keypad stands there.
  next: async () => ((await nextOf(page).count()) > 0 ? nextOf(page).tap() : undefined),
  press: (button) => button.tap(),
  async write(field, text) {
    // A tap that met a page just being drawn is made again, as a thumb would; so is what did not arrive in the field.
    await expect(async () => {
      await field.tap();
      await expect(field).toBeFocused({ timeout: 1000 });
      // Chromium takes no letter for some hundredths of a second after a tap; no hand is as quick.
      await page.waitForTimeout(250);
      await page.keyboard.press('ControlOrMeta+a');
      await page.keyboard.type(text);
      await expect(field).toHaveValue(text, { timeout: 2000 });
    }).toPass();
  },
  async reading(text) {
    for (const c of text.replace('-', ''))
      await page
        .locator('.keys')
        .getByRole('button', { name: c === '.' ? /point|^\.$/ : c, exact: true })
        .tap();
    if (text.startsWith('-')) await page.locator('.fn').getByRole('button').first().tap();
    await page.locator('.kfoot .keep').tap();
  },
  station: async (name) => {
    const tab = page.getByRole('navigation', { name: 'Stations' }).getByRole('button', {
      name: name.charAt(0).toUpperCase() + name.slice(1),
    });
    await tab.tap();
  },
});

/** Does what the guide says until the job is signed; returns the words of the trade it met. */
async function follow(page: Page, hand: Hand, number: string): Promise<ReadonlySet<string>> {
  const guide = page.getByRole('status', { name: 'Practice guide' });
  const signed = async () =>
    ((await (await page.request.get(`/api/jobs/${number}/snapshot`)).json()) as { job: { signOffs?: unknown[] } }).job
      .signOffs?.length ?? 0;
  /** What it says once it says the same twice. */
  const said = async () => {
    let words = '';
    await expect(async () => {
      await expect(page.locator('.btn.next[aria-disabled="true"]')).toHaveCount(0);
      const now = await guide.innerText();
      const same = now === words && !now.includes('One moment');
      words = now;
      expect(same).toBe(true);
    }).toPass({ intervals: [250], timeout: 60_000 });
    return words;
  };
  const at = async (name: string) => {
    if (page.url().endsWith(`/${name}`)) return;
    await hand.station(name);
    await expect(page).toHaveURL(new RegExp(`/${name}$`));
  };
  const terms = new Set<string>();
  let last = '';
  for (let step = 0; step < 60; step++) {
    const words = await said();
    for (const term of ['State:', 'Probe:', 'Band:', 'Epoch:']) if (words.includes(term)) terms.add(term);
    const shows = /Your meter shows (−?[\d.]+) (mV|V|A|mA)/.exec(words);
    if (shows) {
      await hand.next();
      const value = Number(shows[1]!.replace('−', '-')) / (shows[2]!.startsWith('m') ? 1000 : 1);
      await expect(page).toHaveURL(/readings|prove/);
      await hand.reading(String(value));
      await expect(page.locator('.disp output')).toHaveAttribute('aria-label', 'nothing typed');
    } else if (words.includes('It is now')) {
      const now = page.getByRole('button', { name: /^It is now/ });
      // A tap that met a page just being drawn is made again, as a thumb would.
      await expect(async () => {
        if ((await now.count()) === 0) await hand.next();
        await expect(now).toBeVisible({ timeout: 3000 });
      }).toPass({ timeout: 30_000 });
      await hand.press(now);
      await expect(page.locator('dialog[open]')).toHaveCount(0);
    } else if (words.includes('You find:')) {
      const answer = /You find: (.*?)\. Press/.exec(words)![1]!;
      await hand.next();
      const button = page
        .locator('.asks.first .ask')
        .getByRole('button', { name: answer.charAt(0).toUpperCase() + answer.slice(1), exact: true });
      await hand.press(button);
      await page.keyboard.press('Escape');
    } else if (words.includes('press Declare') || words.includes('The proof did not hold')) {
      await hand.next();
    } else if (words.includes('press “Approved”')) {
      await at('fault');
      await hand.write(page.locator('#approve-sum'), '250');
      await expect(page.locator('#approve-sum')).toHaveValue('250');
      await hand.write(page.getByLabel('Who agreed'), 'Owner');
      await hand.press(page.getByRole('button', { name: 'Approved', exact: true }));
    } else if (words.includes('Repair done')) {
      await at('fault');
      await hand.write(page.getByLabel(/What was done/), 'Put right for practice.');
      await hand.press(page.getByRole('button', { name: 'Repair done: prove it' }));
    } else if (words.includes('press Pass')) {
      await at('prove');
      const pass = page.getByRole('button', { name: 'Pass', exact: true }).first();
      const check = page.getByRole('region').filter({ has: pass }).last();
      for (const field of await check.getByRole('textbox').all()) await hand.write(field, '0');
      const on = check.getByRole('button', { name: 'Write down, go on' });
      if ((await on.count()) > 0) await hand.press(on);
      await hand.press(check.getByRole('button', { name: 'Pass', exact: true }));
    } else if (words.includes('Finish and sign')) {
      await at('prove');
      await hand.next();
      await expect.poll(signed).toBe(1);
      return terms;
    } else throw new Error(`the guide says nothing to do: ${words}`);
    await expect(guide)
      .not.toHaveText(words, { timeout: words === last ? 8_000 : 3_000 })
      .catch(() => undefined);
    last = words;
  }
  throw new Error('sixty steps and not signed');
}

/**
 * Presses Practice. What is hidden in the made-up coach hangs on the job's id, so each test has one of its own: with another
 * every time, the same test would be about another coach every time.
 */
async function begin(page: Page, id: string): Promise<string> {
  await signIn(page);
  await page.goto('/');
  await page.route('**/api/jobs', (route) => {
    if (route.request().method() !== 'POST') return route.fallback();
    const asked = route.request().postDataJSON() as object;
    return route.continue({ postData: JSON.stringify({ ...asked, id }) });
  });
  await page.getByRole('button', { name: /^Practice/ }).click();
  await expect(page).toHaveURL(/\/jobs\/\d+\/readings/, { timeout: 30_000 });
  await page.unroute('**/api/jobs');
  return /jobs\/(\d+)/.exec(page.url())![1]!;
}
const practice = (n: number) => process.env['SURRIK_PRACTICE_ID'] ?? `5b7c2f10-4a6e-4d21-9c35-00000000000${n}`;

test('a practice job is finished by its guide alone', async ({ page }) => {
  test.setTimeout(240_000);
  const complaints = watchConsole(page);
  const number = await begin(page, practice(1));
  const terms = await follow(page, mouse(page, number), number);
  expect([...terms].sort()).toEqual(['Band:', 'Epoch:', 'Probe:', 'State:']);
  await page.goto(`/jobs/${number}/report`);
  await expect(page.getByRole('article')).toContainText('Practice, no vehicle');
  expect(complaints).toEqual([]);
});

test('a whole job by the keyboard alone', async ({ page }) => {
  test.setTimeout(240_000);
  const number = await begin(page, practice(2));
  await follow(page, keyboard(page), number);
});

for (const [n, how, viewport] of [
  [3, 'by touch, on a phone', { width: 390, height: 844 }],
  // 1280 × 800 magnified twice.
  [4, 'at 200 %', { width: 640, height: 400 }],
] as const)
  test(`a whole job ${how}, with less motion`, async ({ browser, baseURL }) => {
    test.setTimeout(240_000);
    const context = await browser.newContext({
      viewport,
      reducedMotion: 'reduce',
      hasTouch: true,
      serviceWorkers: 'block',
      ...(baseURL === undefined ? {} : { baseURL }),
    });
    const page = await context.newPage();
    const number = await begin(page, practice(n));
    await follow(page, thumb(page), number);
    await context.close();
  });
