/** The headless verbs as a script would use them: the built command line on the example job. */
import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { afterAll, describe, expect, it } from 'vitest';

const run = promisify(execFile);
const JOB = 'examples/heron.surrik.json';
const folder = mkdtempSync(join(tmpdir(), 'surrik-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function surrik(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  try {
    const { stdout, stderr } = await run('node', ['.build/cli.mjs', ...args], { maxBuffer: 1 << 26 });
    return { code: 0, out: stdout, err: stderr };
  } catch (e) {
    const x = e as { code: number; stdout: string; stderr: string };
    return { code: x.code, out: x.stdout, err: x.stderr };
  }
}
const json = async (...args: string[]) => JSON.parse((await surrik(...args)).out) as Record<string, never>;

describe('verbs', () => {
  it('solve, predict, diagnose, measure, validate answer in JSON with a schema version', async () => {
    const solved = (await json('solve', JOB, '--state', 'idle')) as unknown as {
      schemaVersion: number;
      probes: Record<string, { volts?: number; amps?: number }>;
      modes: Record<string, { mode: string }>;
      branches: Record<string, { amps: number }>;
    };
    expect(solved.schemaVersion).toBe(1);
    expect(solved.modes['link']!.mode).toBe('closed');
    expect(solved.probes['P17']!.amps).toBeCloseTo(solved.branches['link-cable']!.amps, 9);
    const predicted = (await json('predict', JOB)) as unknown as {
      states: { state: string; bands: Record<string, { lo: number; hi: number }> }[];
    };
    const idle = predicted.states.find((s) => s.state === 'idle')!;
    expect(solved.probes['P9']!.volts!).toBeGreaterThan(idle.bands['P9']!.lo);
    expect(solved.probes['P9']!.volts!).toBeLessThan(idle.bands['P9']!.hi);
    const diagnosed = (await json('diagnose', JOB)) as unknown as {
      suspects: { probability: number }[];
      next: { state: string }[];
      stop: { reached: boolean };
    };
    expect(diagnosed.suspects.reduce((s, x) => s + x.probability, 0)).toBeCloseTo(1, 6);
    expect(diagnosed.next.length).toBeGreaterThan(0);
    expect(
      await json('measure', JOB, '--truth', 'link.contact-open', '--seed', '3', '--state', 'idle', '--probe', 'P9'),
    ).toMatchObject({ probe: 'link.coach-stud', unit: 'V' });
    expect(await json('validate', JOB)).toMatchObject({ valid: true, rig: 'Heron' });
  });

  it('simulate and compare let time pass, in JSON and as a table', async () => {
    const run = (await json('simulate', JOB, '--scenario', 'trip')) as unknown as {
      events: { t: number; what: string; why: string }[];
      summary: { balance: { charge: number; energy: number }; batteries: { endSoc: number }[] };
    };
    expect(run.events.some((e) => e.what === 'Isolator closes' && e.why.includes('coil has'))).toBe(true);
    expect(Math.max(run.summary.balance.charge, run.summary.balance.energy)).toBeLessThan(1e-3);
    expect(await json('simulate', JOB, '--scenario', '1')).toEqual(run);
    const table = (await surrik('simulate', JOB, '--csv')).out.trim().split('\r\n');
    const width = table[0]!.split(/,(?=(?:[^"]*"[^"]*")*[^"]*$)/).length;
    expect(table.length).toBeGreaterThan(20);
    for (const row of table.slice(1)) expect(row.split(',')).toHaveLength(width);
    const compared = (await json('compare', JOB, '--candidates', 'leave,dcdc-60', '--samples', '8')) as unknown as {
      candidates: {
        id: string;
        outcome: { arrives: number };
        spread: { arrives: { lo: number; hi: number } };
        points: { got: number }[];
        total: number;
      }[];
      notCompared: string[];
    };
    expect(compared.candidates.map((c) => c.id)).toEqual(['leave', 'dcdc-60']);
    for (const c of compared.candidates) {
      expect(c.points.reduce((s, p) => s + p.got, 0)).toBeCloseTo(c.total, 9);
      expect(c.spread.arrives.lo).toBeLessThanOrEqual(c.spread.arrives.hi);
    }
    expect(compared.notCompared).toContain('bidirectional');
    expect(await surrik('compare', JOB, '--candidates', 'hamster')).toMatchObject({ code: 2 });
    expect((await surrik('simulate', JOB, '--scenario', '9')).err).toMatch(
      /--scenario: found 9, wanted one of 1 \(trip\), 2 \(storage\)/,
    );
  });

  it('analyse-log says what a recorder wrote, with intervals, and names what is wrong with its options or its file', async () => {
    type Read = {
      events: { kind: string }[];
      estimates: { id: string; value: number; lo: number; hi: number }[];
      says: string[];
      counts: Record<string, number>;
      dropped: number;
      columns: { role: string }[];
    };
    const read = (await json('analyse-log', 'examples/heron-trip.csv')) as unknown as Read;
    expect(read.events.filter((e) => e.kind !== 'stage').map((e) => e.kind)).toEqual([
      'gap',
      'engine-start',
      'link-closes',
      'charging-ends',
      'link-opens',
    ]);
    for (const e of read.estimates) expect(e.lo <= e.value && e.value <= e.hi, e.id).toBe(true);
    expect(read.says.join()).toContain('1 engine start');
    // Columns may be named by hand; a link that is not in the log is not spoken of.
    const two = (await json(
      'analyse-log',
      'examples/heron-trip.csv',
      '--map',
      'chassis-volts=Start battery (V),coach-volts=3',
    )) as unknown as Read;
    expect(two.columns.map((c) => c.role)).toEqual(['chassis-volts', 'coach-volts']);
    expect(await surrik('analyse-log', 'examples/heron-trip.csv', '--map', 'coach-volts=Nowhere')).toMatchObject({
      code: 2,
      err: expect.stringContaining('ROLE=COLUMN with a column of Time'),
    });
    expect(await surrik('analyse-log', 'examples/heron-trip.csv', '--zone', 'Mars/Olympus')).toMatchObject({
      code: 2,
      err: expect.stringContaining('America/Denver'),
    });
    expect(await surrik('analyse-log', 'nowhere.csv')).toMatchObject({ code: 2 });
    const file = join(folder, 'bad.csv');
    writeFileSync(
      file,
      'time,voltage (V)\n2026-03-04 00:00:10,12.5\n2026-03-04 00:00:00,12.4\n2026-03-04 00:00:20,OL\n',
    );
    expect((await json('analyse-log', file)) as unknown as Read).toMatchObject({
      dropped: 1,
      counts: { backwards: 1, 'not-a-number': 1 },
    });
    writeFileSync(file, 'no log at all');
    expect(await surrik('analyse-log', file)).toMatchObject({
      code: 2,
      err: expect.stringContaining('wanted a CSV with a column of times'),
    });
  });

  it('convert turns a job into tables and drawings, and itself into itself', async () => {
    expect(JSON.parse((await surrik('convert', JOB, '--to', 'job')).out)).toEqual(
      JSON.parse(readFileSync(JOB, 'utf8')),
    );
    expect((await surrik('convert', JOB, '--to', 'readings-csv')).out.split('\r\n')[0]).toBe(
      'taken at (UTC),state,probe,key,black lead,value,unit,status,seconds in state,by,epoch',
    );
    expect((await surrik('convert', JOB, '--to', 'svg')).out).toMatch(/^<\?xml[\s\S]*Isolator[\s\S]*<\/svg>\n$/);
    expect(await surrik('convert', JOB, '--to', 'bom-csv')).toMatchObject({
      code: 2,
      err: expect.stringContaining('a job with a picked link'),
    });
    expect(await surrik('convert', JOB, '--to', 'painting')).toMatchObject({
      code: 2,
      err: expect.stringContaining('one of job, readings-csv'),
    });
  });

  it('demo rigs of other families simulate and compare on their own use', async () => {
    for (const name of ['pika', 'wren']) {
      const file = `examples/${name}.surrik.json`;
      expect(await json('validate', file)).toMatchObject({ valid: true });
      const { summary } = (await json('simulate', file)) as unknown as {
        summary: { balance: { charge: number; energy: number } };
      };
      expect(Math.max(summary.balance.charge, summary.balance.energy), name).toBeLessThan(1e-3);
      const { candidates } = (await json('compare', file)) as unknown as { candidates: { id: string }[] };
      expect(candidates.length, name).toBeGreaterThan(1);
    }
  });

  it('size and check judge the copper and the design, and name what is wrong with their own options', async () => {
    const sized = (await json('size', JOB, '--rig', 'as-found')) as unknown as {
      runs: { id: string; table: { rows: unknown[]; pick?: string } }[];
      fuses: { part: string; checks: { verdict: string }[] }[];
    };
    expect(sized.runs.map((r) => r.id)).toContain('link-cable');
    expect(sized.runs[0]!.table.rows).toHaveLength(14);
    expect(sized.fuses.map((f) => f.part)).toEqual(['link-fuse']);
    const one = (await json('size', JOB, '--run', 'alternator-cable')) as unknown as { runs: { id: string }[] };
    expect(one.runs.map((r) => r.id)).toEqual(['alternator-cable']);
    const found = (await json('check', 'examples/wren.surrik.json', '--severity', 'danger')) as unknown as {
      rules: number;
      findings: { rule: string; severity: string }[];
    };
    expect(found.rules).toBeGreaterThanOrEqual(40);
    expect(found.findings.map((f) => f.rule)).toContain('lithium-load-dump');
    expect(new Set(found.findings.map((f) => f.severity))).toEqual(new Set(['danger']));
    expect((await surrik('size', JOB, '--drop', '0')).err).toMatch(/--drop: found 0, wanted a percentage/);
    expect((await surrik('size', JOB, '--run', 'hamster')).err).toMatch(/--run: found hamster, wanted one of/);
    expect((await surrik('check', JOB, '--severity', 'mild')).code).toBe(2);
    expect((await surrik('check', JOB, '--jurisdiction', 'mars')).err).toMatch(
      /--jurisdiction: found mars, wanted one of us/,
    );
    expect((await surrik('size', JOB, '--upfit', '-5')).err).toMatch(/--upfit: found -5, wanted amps above 0/);
  });

  it('check audits the tow interface, size the charger: with what stands in the way, and what puts it right', async () => {
    type Tow = {
      described: boolean;
      before: { troubles: { id: string }[]; hoursToNoStart: number | null };
      situations: { situation: string; amps: Record<string, number> }[];
      changes: { says: string }[];
      smallest: boolean;
      left: unknown[];
      after: { troubles: unknown[] };
    };
    const { tow } = (await json('check', 'examples/marmot.surrik.json')) as unknown as { tow: Tow };
    expect(tow.described).toBe(false);
    expect(tow.before.troubles.map((t) => t.id)).toEqual(expect.arrayContaining(['tow-chained', 'tow-fridge-parked']));
    expect(tow.situations.map((s) => s.situation)).toEqual(['road', 'braking', 'stopped', 'overnight']);
    expect(tow.changes.length).toBeGreaterThan(0);
    expect([tow.smallest, tow.left, tow.after.troubles]).toEqual([true, [], []]);
    expect((await json('check', JOB)) as unknown as { tow?: Tow }).not.toHaveProperty('tow');
    const limit = async (...more: string[]) =>
      (
        (await json('size', 'examples/osprey.surrik.json', ...more)) as unknown as {
          chargers: { part: string; bounds: { id: string; amps: number }[]; pick: number }[];
        }
      ).chargers[0]!;
    expect((await limit()).bounds.map((b) => b.id)).not.toContain('upfit');
    const limited = await limit('--upfit', '40');
    expect(limited.pick).toBeLessThanOrEqual(limited.bounds.find((b) => b.id === 'upfit')!.amps);
  });

  it('netlist is a deck that ngspice runs as it is and that agrees with solve', async () => {
    const deck = (await surrik('netlist', JOB, '--state', 'boost-engine-off')).out;
    const file = join(folder, 'boost.cir');
    writeFileSync(file, deck);
    const { stdout } = await run('ngspice', ['-b', file]).catch((e: { stdout: string }) => e);
    const solved = (await json('solve', JOB, '--state', 'boost-engine-off')) as unknown as {
      probes: Record<string, { volts: number }>;
    };
    for (const label of ['P5', 'P9', 'P10', 'P12', 'P14']) {
      const printed = Number(new RegExp(`^${label.toLowerCase()} = (\\S+)`, 'm').exec(stdout)![1]);
      expect(Math.abs(printed - solved.probes[label]!.volts)).toBeLessThan(1e-3);
    }
  });

  it('the example job is what the demo makes today', async () => {
    expect(JSON.parse(readFileSync(JOB, 'utf8'))).toMatchObject({ number: 1042 });
    const { demoJobs } = await import('../../db/demo/jobs');
    expect(JSON.parse(readFileSync(JOB, 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(demoJobs(new Date('2026-11-24T16:00:00Z'))[1])),
    );
  });

  it('an option given twice is refused, and two faults at once go by one', async () => {
    const where = ['--seed', '3', '--state', 'idle', '--probe', 'P9'];
    const twice = await surrik('measure', JOB, '--truth', 'link.contact-open', '--truth', 'boost.fuse-blown', ...where);
    expect(twice).toMatchObject({ code: 2, out: '' });
    expect(twice.err).toMatch(/--truth: found .*contact-open.*fuse-blown.*, wanted it once/);
    expect(await json('measure', JOB, '--truth', 'link.contact-open+boost.fuse-blown', ...where)).toMatchObject({
      unit: 'V',
    });
  });

  it('bad input is a line for each place, with what is found and wanted, and exit code 2', async () => {
    const good = JSON.parse(readFileSync(JOB, 'utf8')) as {
      revisions: { doc: { conductors: { length: number }[]; parts: object[] } }[];
    };
    const file = join(folder, 'bad.surrik.json');
    const check = async (change: (j: typeof good) => void, expected: RegExp) => {
      const j = structuredClone(good);
      change(j);
      writeFileSync(file, JSON.stringify(j));
      const r = await surrik('validate', file);
      expect(r.code).toBe(2);
      for (const line of r.err.trim().split('\n')) expect(line).toMatch(/^\/\S*: found .*, wanted .+$/);
      expect(r.err).toMatch(expected);
    };
    await check(
      (j) => (j.revisions[0]!.doc.conductors[0]!.length = -3),
      /^\/revisions\/0\/doc\/conductors\/0\/length: found -3, wanted/,
    );
    await check((j) => j.revisions[0]!.doc.parts.pop(), /conductors\/\d+\/from\/part: found "alternator", wanted/);
    // Two things wrong are two lines.
    const two = structuredClone(good);
    two.revisions[0]!.doc.conductors[0]!.length = -3;
    two.revisions[0]!.doc.conductors[1]!.length = -4;
    writeFileSync(file, JSON.stringify(two));
    expect((await surrik('validate', file)).err.trim().split('\n')).toHaveLength(2);
    writeFileSync(file, 'not json');
    expect(await surrik('validate', file)).toMatchObject({
      code: 2,
      err: expect.stringContaining('wanted a JSON document'),
    });
    expect(await surrik('solve', JOB, '--state', 'driving')).toMatchObject({
      code: 2,
      err: expect.stringContaining('--state: found driving'),
    });
    expect(
      await surrik('measure', JOB, '--truth', 'x', '--seed', '1', '--state', 'idle', '--probe', 'P9'),
    ).toMatchObject({ code: 2 });
    expect(
      await surrik('measure', JOB, '--truth', 'delay.dead', '--seed', '1', '--state', 'idle', '--probe', 'P99'),
    ).toMatchObject({ code: 2, err: expect.stringContaining('--probe') });
    expect(await surrik('solve', 'nowhere.json', '--state', 'idle')).toMatchObject({
      code: 2,
      err: expect.stringContaining('ENOENT'),
    });
    expect(await surrik('fly')).toMatchObject({ code: 2 });
    expect(await surrik('solve', '--help')).toMatchObject({
      code: 0,
      out: expect.stringContaining('./surrik solve examples/heron.surrik.json'),
    });
  });
});
