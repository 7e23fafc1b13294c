import AxeBuilder from '@axe-core/playwright';
import { readFileSync } from 'node:fs';
import ICAL from 'ical.js';
import { expect, freshJob, markers, openJob, signIn, test, watchConsole } from './world';

type Snapshot = {
  job: {
    logs?: { name: string; says: string[]; file?: { bytes: number } }[];
    followUps?: { what: string; done?: string }[];
    hunt?: { circuits: unknown[] };
    readings: { probe: string; value?: number; takenAt: string }[];
  };
};

test('the logbook: years of a rig, follow-ups with a calendar file, a drain, tables out and in', async ({ page }) => {
  const complaints = watchConsole(page);
  await freshJob(2901);
  await signIn(page);
  const snapshot = async () => (await (await page.request.get('/api/jobs/2901/snapshot')).json()) as Snapshot;
  await openJob(page, 2901, 'logbook');
  const book = page.locator('.logbook');
  await expect(book.getByRole('link', { name: 'Job 2901, this one' })).toBeVisible();
  await expect(book.getByRole('link', { name: 'Job 1009' })).toBeVisible();
  await expect(book).toContainText('Verdict: Coach ground joint bad');

  // One measurement through the jobs, with its band.
  await book.getByText('Trends', { exact: true }).click();
  await book.getByRole('button', { name: /^P5 Coach \+ Engine idle/ }).click();
  await expect(book.locator('.trends tbody tr').filter({ hasText: '1009' })).toHaveCount(1);
  await expect(book.locator('.trends tbody tr').filter({ hasText: '2901' })).toContainText(/12\.\d\d V/);

  // Follow-ups: a usual one, one of one's own, done, and the file a calendar takes.
  await book.getByText('Follow-ups', { exact: true }).click();
  await book.getByRole('button', { name: /^Yearly drop across the contact/ }).click();
  await book.getByLabel('Look at').fill('Ask how the fridge did');
  await book.getByLabel('On', { exact: true }).fill('2027-01-15');
  await book.getByRole('button', { name: 'Add' }).click();
  await expect(book.locator('.fu')).toHaveCount(2);
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    book.getByRole('button', { name: 'Calendar file' }).click(),
  ]);
  const events = new ICAL.Component(ICAL.parse(readFileSync(await file.path(), 'utf8')))
    .getAllSubcomponents('vevent')
    .map((c) => new ICAL.Event(c));
  expect(events.map((e) => e.startDate.toString())).toContain('2027-01-15');
  await book.locator('.fu').filter({ hasText: 'fridge' }).getByRole('button', { name: 'Done' }).click();
  await expect
    .poll(async () => (await snapshot()).job.followUps!.filter((f) => f.done).map((f) => f.what))
    .toEqual(['Ask how the fridge did']);

  // The drain: millivolts become amps and a suspect.
  await book.getByText('Drain', { exact: true }).click();
  await book.getByLabel('Asleep for, min').fill('40 min');
  await book.getByLabel('Asleep for, min').press('Enter');
  await book.getByLabel('All of it, by clamp, A').fill('360 mA');
  await book.getByLabel('All of it, by clamp, A').press('Enter');
  await book.getByLabel('Circuit, as its lid says').fill('Step motor');
  await book.getByLabel('Across it, mV').fill('2.2');
  await book.getByRole('button', { name: 'Add' }).click();
  await expect(book).toContainText('Look at Step motor (0.29 A)');
  await expect(book).toContainText(/it starts for \d+ days/);
  await expect.poll(async () => (await snapshot()).job.hunt?.circuits.length).toBe(1);

  // Readings leave as a table and come in as one; a bad one takes nothing.
  await book.getByText('Files', { exact: true }).click();
  const [table] = await Promise.all([
    page.waitForEvent('download'),
    book.getByRole('button', { name: 'Readings (CSV)' }).click(),
  ]);
  const csv = readFileSync(await table.path(), 'utf8');
  const before = (await snapshot()).job.readings.length;
  expect(csv.trim().split('\r\n')).toHaveLength(before + 1);
  await book
    .getByLabel('Table of readings')
    .setInputFiles({ name: 'bad.csv', mimeType: 'text/csv', buffer: Buffer.from('state,probe,value\nidle,P9,high\n') });
  await expect(book.getByRole('alert')).toContainText('line 2, value: found high');
  await book.getByLabel('Table of readings').setInputFiles({
    name: 'good.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('state,probe,value\nidle,P9,12.4\nidle,P17,31.5\n'),
  });
  await book.getByRole('button', { name: 'Keep them' }).click();
  await expect.poll(async () => (await snapshot()).job.readings.length).toBe(before + 2);
  // Its own table brings nothing twice; a reading of yesterday keeps its time and does not stand over today's.
  await book
    .getByLabel('Table of readings')
    .setInputFiles({ name: 'same.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(book.locator('.files')).toContainText(`${before} readings of the table are here already.`);
  await book.getByRole('button', { name: 'Leave them' }).click();
  await book.getByLabel('Table of readings').setInputFiles({
    name: 'earlier.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('taken at,state,probe,value\n2026-05-04T09:30:00Z,idle,P17,28.25\n'),
  });
  await book.getByRole('button', { name: 'Keep them' }).click();
  await expect
    .poll(async () => (await snapshot()).job.readings.find((r) => r.value === 28.25)?.takenAt)
    .toBe('2026-05-04T09:30:00.000Z');
  const [packed] = await Promise.all([
    page.waitForEvent('download'),
    book.getByRole('button', { name: /^Job with its photos/ }).click(),
  ]);
  expect(
    readFileSync(await packed.path())
      .subarray(0, 2)
      .toString(),
  ).toBe('PK');
  expect(await markers(page)).toBeLessThanOrEqual(1);
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).include('.logbook').analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  expect(complaints).toEqual([]);
});

test('a recorder’s log: its columns looked over, drawn, said in words, kept; a file that is none is said so', async ({
  page,
}) => {
  const complaints = watchConsole(page);
  await freshJob(2902);
  await signIn(page);
  const snapshot = async () => (await (await page.request.get('/api/jobs/2902/snapshot')).json()) as Snapshot;
  await openJob(page, 2902, 'logbook');
  const book = page.locator('.logbook');
  await book.getByText('Read a log', { exact: true }).click();
  const pick = book.getByLabel('Log file');
  await pick.setInputFiles({
    name: 'photo.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3]),
  });
  await expect(book.getByRole('alert')).toContainText('not a text file');
  await pick.setInputFiles({ name: 'words.csv', mimeType: 'text/csv', buffer: Buffer.from('hello\nworld\n') });
  await expect(book.getByText('Say of at least one column what it is.')).toBeVisible();

  await pick.setInputFiles('examples/heron-trip.csv');
  await expect(book.getByLabel('Column Coach battery (V) is')).toHaveValue('coach-volts');
  await expect(book.getByLabel('Column Isolator current (A) is')).toHaveValue('link-amps');
  await book.getByLabel('Clock of the recorder').fill('utc');
  await book.getByRole('button', { name: 'Read it' }).click();
  await expect(book.locator('.logsays')).toContainText('1 engine start; charged for 5.0 h of 22.0 h.', {
    timeout: 30_000,
  });
  await expect(book.locator('.logtable').last()).toContainText(/7\.\d mΩ/);
  const drawn = book.locator('.logchart figcaption');
  await expect(drawn).toContainText('from 20 Nov');
  // Keys move along it: closer, later, all.
  await book.locator('.logchart .chart-box').focus();
  const whole = await drawn.innerText();
  await page.keyboard.press('+');
  await expect(drawn).not.toHaveText(whole);
  await page.keyboard.press('0');
  await expect.poll(async () => (await drawn.innerText()) === whole).toBe(true);
  await book.getByRole('button', { name: 'Keep as note' }).first().click();
  // What it measured becomes the rig's own figure, and can be taken back.
  const row = book.getByRole('row', { name: /Charging volts/ });
  await expect(row).toContainText('assumed');
  await row.getByRole('button', { name: 'Make it the rig’s figure' }).click();
  await expect(row.getByRole('button', { name: 'Is the rig’s figure' })).toBeDisabled();
  type Doc = {
    job: {
      revisions: {
        doc: {
          parts: { id: string; params: Record<string, { value: number; provenance: string; source?: string }> }[];
        };
      }[];
    };
  };
  const setPoint = async () =>
    ((await (await page.request.get(`/api/jobs/2902/snapshot`)).json()) as Doc).job.revisions
      .at(-1)!
      .doc.parts.find((p) => p.id === 'alternator')!.params['setPoint']!;
  await expect.poll(setPoint).toMatchObject({ provenance: 'measured', source: 'log heron-trip.csv' });
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(setPoint).toMatchObject({ provenance: 'assumed' });
  await book.getByRole('button', { name: 'Keep what it says with the job' }).click();
  await expect(book.locator('.keptlog')).toContainText('heron-trip.csv');
  // The log itself is there too: read again from the record it says the same.
  await expect
    .poll(async () => (await snapshot()).job.logs?.[0]?.file?.bytes)
    .toBe(readFileSync('examples/heron-trip.csv').length);
  const [copy] = await Promise.all([
    page.waitForEvent('download'),
    book.getByRole('link', { name: /^The log, / }).click(),
  ]);
  expect(readFileSync(await copy.path(), 'utf8')).toBe(readFileSync('examples/heron-trip.csv', 'utf8'));
  await page.reload();
  await book.getByText('Read a log', { exact: true }).click();
  await book.getByRole('button', { name: 'Read again' }).click();
  await expect(book.getByLabel('Clock of the recorder')).toHaveValue('UTC');
  await book.getByRole('button', { name: 'Read it' }).click();
  await expect(book.locator('.logsays')).toContainText('1 engine start; charged for 5.0 h of 22.0 h.', {
    timeout: 30_000,
  });
  await expect(book.getByRole('button', { name: 'Kept with the job' })).toBeDisabled();
  // The shop remembers how such a recorder's columns were mapped.
  await page.reload();
  await book.getByText('Read a log', { exact: true }).click();
  await pick.setInputFiles('examples/heron-trip.csv');
  await expect(book.getByLabel('Clock of the recorder')).toHaveValue('UTC');
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).include('.logbook').analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  expect(complaints).toEqual([]);
});

test('wiring and owner’s card are pages to print, and files', async ({ page }) => {
  const complaints = watchConsole(page);
  await freshJob(2903, 1045);
  await signIn(page);
  await page.goto('/jobs/2903/wiring');
  await expect(page.getByRole('img', { name: /^Wiring of Marmot/ })).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('article tbody tr').first()).toContainText('W1');
  const [svg] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'SVG' }).click()]);
  expect(readFileSync(await svg.path(), 'utf8')).toContain('Power plug');
  await page.goto('/jobs/2903/card');
  await expect(page.getByRole('article')).toContainText('There is no boost', { timeout: 60_000 });
  expect(await markers(page)).toBe(1);
  const axe = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze();
  expect(axe.violations.map((v) => `${v.id} ${v.nodes[0]?.html.slice(0, 120)}`)).toEqual([]);
  const snapshot = (await (await page.request.get('/api/jobs/2903/snapshot')).json()) as {
    job: { revisions: { id: string }[] };
  };
  for (const file of ['report.pdf', 'card.pdf', `wiring.pdf?revision=${snapshot.job.revisions[0]!.id}`]) {
    const response = await page.request.get(`/api/jobs/2903/${file}`);
    expect(response.status(), file).toBe(200);
    expect((await response.body()).subarray(0, 5).toString()).toBe('%PDF-');
  }
  expect(complaints).toEqual([]);
});
