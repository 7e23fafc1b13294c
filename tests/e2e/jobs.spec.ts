/**
 * Jobs of the trade from the first word to the signature, through the browser as a technician does them. A sample runs
 * with the tests; `./surrik trials jobs` runs every row in the three vocabularies.
 */
import type { Page } from '@playwright/test';
import type { Rig } from '../../src/core/rig/schema';
import { inWords, VOCABULARIES as VOCABULARY_LABELS, type Vocabulary } from '../../src/core/units/vocabulary';
import { expect, freshJob, signIn, Technician, test, watchConsole } from './world';

const ALL = process.env['SURRIK_JOBS'] === 'all';
const VOCABULARIES: readonly Vocabulary[] = ALL ? ['north-america', 'europe', 'oceania'] : ['north-america'];

interface Row {
  /** Row of docs/jobs.md, and what it is in words. */
  row: string;
  job: string;
  family: string;
  /** Chosen under New job, by what stands on the buttons. */
  chosen: readonly string[];
  /** By what stands beside the tick; of a bench, in words of one's own. */
  complaint: string;
  /** What the rig hides. */
  fault: string;
  /** Which rig of its kind, where not the seventh: of a sound one a band misses every twentieth reading. */
  seed?: number;
  sampled?: true;
}

const JOBS: readonly Row[] = [
  {
    row: 'R8',
    job: 'a towed car fed from the house bank, its charge pin corroded',
    family: 'Motorhome and towed car',
    chosen: ['House bank', 'Breaker, set by hand'],
    complaint: 'Car dead on arrival',
    fault: 'connector.pin-corroded',
    sampled: true,
  },
  {
    row: 'R7',
    job: 'a camper’s automatic fridge whose trigger wire is open',
    family: 'Truck and slide-in camper',
    chosen: ['By itself, by a trigger'],
    complaint: 'Fridge gets warm on the road',
    fault: 'fridge-trigger.trigger-lost',
  },
  {
    row: 'R9',
    job: 'a coach with a monitor, its shunt’s stud loose',
    family: 'Motorhome',
    chosen: ['Shunt in the negative'],
    complaint: 'Coach bank charges slowly on the road',
    fault: 'shunt.loose',
  },
  {
    row: 'R4',
    job: 'a charger with keyed connectors round it, left joined',
    family: 'Motorhome',
    chosen: ['DC-DC charger', 'Keyed connectors'],
    complaint: 'Both banks flat together',
    fault: 'bypass.left-closed',
  },
  {
    row: 'R3',
    job: 'a trailer’s charger enabled by marker lights that are dead',
    family: 'Truck and trailer',
    chosen: ['DC-DC charger, own cable', 'Marker lights'],
    complaint: 'Trailer bank does not charge on the road',
    fault: 'marker-lights.dead',
    seed: 12,
  },
  {
    row: 'R1',
    job: 'a charger before the plug whose pin is corroded',
    family: 'Truck and trailer',
    chosen: ['DC-DC charger, own cable', 'Before the plug'],
    complaint: 'Trailer bank charges slowly on the road',
    fault: 'connector.pin-corroded',
  },
  {
    row: 'R5',
    job: 'a coach kept up by a maintainer, its start battery’s ground bad',
    family: 'Motorhome',
    chosen: ['Differential, about 1 A'],
    complaint: 'Start battery does not charge with the engine on',
    fault: 'chassis-negative.bad-joint',
  },
  {
    row: 'R10',
    job: 'a van in one box with a dual-input charger, its enable wire off',
    family: 'Motorhome',
    chosen: ['Front engine', 'Dual-input charger', 'LFP', 'Built in'],
    complaint: 'Coach bank does not charge on the road',
    fault: 'dcdc-enable.not-enabled',
  },
  {
    row: 'R2',
    job: 'a small charger on the pin, its enable wire off',
    family: 'Truck and trailer',
    chosen: ['Small DC-DC on the pin'],
    complaint: 'Trailer bank does not charge on the road',
    fault: 'dcdc-enable.not-enabled',
  },
  {
    row: 'R6',
    job: 'a second power connector beside the lamp plug, a lug of its line bad',
    family: 'Truck and trailer',
    chosen: ['Heavy line and solenoid'],
    complaint: 'Trailer bank charges slowly on the road',
    fault: 'line.bad-lug',
    seed: 12,
  },
  {
    row: 'R11',
    job: 'a trailer’s dual-input charger without its negative',
    family: 'Truck and trailer',
    chosen: ['Dual-input charger, own cable'],
    complaint: 'Trailer bank does not charge on the road',
    fault: 'dcdc-ground.negative-missing',
  },
  {
    row: 'R12',
    job: 'a two-way module on clips, its coil’s ground off',
    family: 'Bench',
    chosen: ['Two-way module and solenoid'],
    complaint: 'Battery 2 should charge once battery 1 does',
    fault: 'coil-ground.ground-lost',
  },
];

type Snapshot = {
  job: {
    revisions: { kind: string; epoch: number; doc: Rig }[];
    signOffs?: unknown[];
    build?: { done: unknown[] };
  };
};
const snapshot = async (page: Page, number: string) =>
  ((await (await page.request.get(`/api/jobs/${number}/snapshot`)).json()) as Snapshot).job;

/** Presses what the slip says until it says something that is no step of a round. */
async function round(technician: Technician, until: RegExp): Promise<string> {
  let words = '';
  for (let k = 0; k < 30 && !until.test(words); k++) words = await technician.step();
  return words;
}

// The shop’s words are the whole shop’s: one after the other, whatever fails before.
if (ALL) test.describe.configure({ mode: 'default' });

/** Jobs opened here take numbers no other test writes: the next after this. */
const ABOVE_ALL = 8_000;

/** Sets how the shop says things. */
async function speak(page: Page, vocabulary: Vocabulary): Promise<void> {
  const said = async () => JSON.stringify(await (await page.request.get('/api/shop')).json());
  if ((await said()).includes(`"vocabulary":"${vocabulary}"`)) return;
  await page.goto('/shop');
  await page.getByText(VOCABULARY_LABELS.find((v) => v.id === vocabulary)!.label, { exact: true }).click();
  await expect.poll(said).toContain(`"vocabulary":"${vocabulary}"`);
}

/** What a check asks to be written down, by what stands on the field: figures of a rig in order. */
const FIGURES: readonly (readonly [label: RegExp, value: string])[] = [
  [/asleep/, '0.04'],
  [/Opened or dropped/, '0'],
  [/Alternator, highest, A/, '60'],
  [/Housing/, '160'],
];

/** Passes every check that is left, one after the other. */
async function passChecks(page: Page): Promise<void> {
  const pass = page.getByRole('button', { name: 'Pass', exact: true });
  await expect(pass.first()).toBeVisible();
  for (let left = await pass.count(); left > 0; left = await pass.count()) {
    const check = page.getByRole('region').filter({ has: pass.first() }).last();
    for (const [label, value] of FIGURES)
      for (const field of await check.getByLabel(label).all()) await field.fill(value);
    const on = check.getByRole('button', { name: 'Write down, go on' });
    if ((await on.count()) > 0) await on.click();
    await check.getByRole('button', { name: 'Pass', exact: true }).click();
    await expect(pass).toHaveCount(left - 1);
  }
}

for (const vocabulary of VOCABULARIES) {
  const say = (text: string) => inWords(vocabulary, text);
  test.describe(`jobs of the trade, ${vocabulary}`, () => {
    for (const [k, row] of JOBS.filter((j) => ALL || j.sampled).entries())
      test(`${row.row}: ${row.job}`, async ({ page }) => {
        test.setTimeout(300_000);
        const complaints = watchConsole(page);
        await freshJob(ABOVE_ALL + 10 * (20 * VOCABULARIES.indexOf(vocabulary) + k));
        await signIn(page);
        await speak(page, vocabulary);
        await page.goto('/jobs/new');
        await page.getByText(say(row.family), { exact: true }).click();
        for (const choice of row.chosen) await page.getByText(say(choice), { exact: true }).first().click();
        await page.getByLabel(/nickname|name for the bench/).fill('Stilt');
        if (row.family === 'Bench') await page.getByRole('textbox', { name: /want to see/ }).fill(row.complaint);
        else await page.getByText(say(row.complaint), { exact: true }).click();
        await page.getByRole('button', { name: 'Open the job' }).click();
        await expect(page).toHaveURL(/\/jobs\/\d+\/readings/);
        const number = /jobs\/(\d+)/.exec(page.url())![1]!;
        await expect(page.locator('.btn.next:not([aria-disabled])').first()).toBeVisible({ timeout: 30_000 });
        const found = (await snapshot(page, number)).revisions[0]!.doc;
        const technician = new Technician(page, row.fault, row.seed ?? 7, found, say);
        expect(await round(technician, /^Declare/)).toMatch(/^Declare/);
        // The word may stand while the core still answers: press until it is declared.
        await expect(async () => {
          if (!(await page.locator('.after').isVisible())) await page.locator('.btn.next').first().click();
          await expect(page.locator('.after')).toBeVisible({ timeout: 3_000 });
        }).toPass();
        await page.getByLabel(/What was done/).fill('Put right as declared; checked by hand.');
        await page.getByRole('button', { name: 'Repair done: prove it' }).click();
        await expect(page.getByText('Proof after the repair')).toBeVisible();
        technician.repairDone();
        expect(await round(technician, /^(Finish|Check)/)).toMatch(/^(Finish|Check)/);
        await page.goto(`/jobs/${number}/prove`);
        await expect(page.locator('.slip .btn.next')).toContainText(/Finish|Check/);
        await passChecks(page);
        await expect(page.locator('.slip .btn.next')).toContainText('Finish and sign');
        await page.locator('.slip .btn.next').click();
        await expect.poll(async () => (await snapshot(page, number)).signOffs?.length ?? 0).toBe(1);
        await page.goto(`/jobs/${number}/report`);
        await expect(page.getByRole('article')).toContainText('proven right by measurement');
        expect(complaints).toEqual([]);
      });
  });
}

test('B2: a part added by hand is one change, with Build and Prove', async ({ page }) => {
  test.setTimeout(240_000);
  await freshJob(2991);
  const complaints = watchConsole(page);
  await signIn(page);
  // After all rows the shop speaks the last vocabulary.
  await speak(page, 'north-america');
  await page.goto('/jobs/2991/rig');
  const add = page.getByRole('region', { name: 'Add to the rig' });
  await page.getByRole('button', { name: /^Add/ }).first().click();
  await add.getByText('Part', { exact: true }).click();
  await add.getByLabel('Kind').selectOption({ label: 'Diode and lamp' });
  await add.getByRole('button', { name: 'Plan it' }).click();
  await expect(add).toContainText('In the plan: Diode and lamp');
  // Its wires go to what is planned as well as to what is there; it is still one change.
  const wire = async (from: string, to: string) => {
    await add.getByText('Cable or wire', { exact: true }).click();
    await add.getByRole('combobox', { name: 'From' }).selectOption({ label: from });
    await add.getByRole('combobox', { name: 'To' }).selectOption({ label: to });
    await add.getByRole('button', { name: 'Plan it' }).click();
  };
  const planned = async () => {
    const { revisions } = await snapshot(page, '2991');
    return revisions.filter((r) => r.kind === 'proposed').map((r) => r.doc.conductors.length);
  };
  const before = (await snapshot(page, '2991')).revisions[0]!.doc.conductors.length;
  const options = await add.getByRole('combobox', { name: /^(Kind|From)$/ }).count();
  expect(options).toBeGreaterThan(0);
  await wire('Coach bank, +', 'Diode and lamp, from (planned)');
  await expect.poll(planned).toEqual([before + 1]);
  await wire('Diode and lamp, to (planned)', 'Chassis bank, +');
  await expect.poll(planned).toEqual([before + 2]);
  // What stands is as it was: nothing of it is measured anew.
  const { revisions } = await snapshot(page, '2991');
  expect(revisions[0]!.doc.conductors).toHaveLength(before);

  await page.goto('/jobs/2991/build');
  const steps = page.locator('.bdstep');
  await expect(steps.first()).toContainText('Measure each route', { timeout: 30_000 });
  await expect(steps.filter({ hasText: 'Diode and lamp' }).first()).toBeVisible();
  const count = await steps.count();
  for (let k = 0; k < count; k++) {
    await page.locator('.slip .btn.next').click();
    await expect(page.locator('.bdstep.done')).toHaveCount(k + 1);
  }
  await page.locator('.slip .btn.next').click();
  await expect
    .poll(async () => (await snapshot(page, '2991')).revisions.map((r) => `${r.kind} ${r.epoch}`))
    .toEqual(['as-found 0', 'proposed 0', 'as-built 1']);
  await page.locator('.slip .btn.next').click();
  await expect(page.getByText('Proof after the build')).toBeVisible();
  expect(complaints).toEqual([]);
});
