/** The workers' own work: what they keep between calls, what they refuse, what they hand over. */
import { beforeAll, describe, expect, it } from 'vitest';
import { exampleJob } from '../../tests/answers';
import { motorhomeOf } from '../../tests/motorhomes';
import { workerApi } from '../../tests/workerApi';
import { compileRig } from '../core/compile/compile';
import { currentRevision } from '../core/job/job';
import { statesOf } from '../core/operate/states';
import { BandTable } from '../core/probe/bands';
import { DEFAULT_SETTINGS } from '../core/shop/shop';
import { simulateCandidate } from '../core/plan/outcome';
import { jobCandidates, jobScenarios } from '../core/jobAnswers/options';
import type { CoreApi } from './core.worker';
import type { LogApi } from './log.worker';
import type { OptionsApi } from './options.worker';

const rig = motorhomeOf();
const { likelihoods, openMinutes, learnt } = DEFAULT_SETTINGS;
const ASSUMED = { likelihoods, openMinutes, learnt };

describe('the core’s worker', () => {
  let core: CoreApi;
  beforeAll(async () => {
    core = await workerApi('core');
  });

  it('has a band for every measurement in every state, the same the core has in whatever order it is asked', async () => {
    const black = `${rig.reference.part}.${rig.reference.terminal}`;
    const table = core.table({ key: 'a', doc: rig }, black);
    const bands = new BandTable(compileRig(rig));
    for (const { id: state } of [...statesOf(rig)].reverse()) {
      const row = await core.bands({ key: 'a', doc: rig }, black, state);
      expect(Object.keys(row).sort()).toEqual(table.measurements.map((m) => m.id).sort());
      for (const m of table.measurements) expect(row[m.id]).toEqual(bands.band(state, m.red, m.black));
    }
    for (const p of rig.probes.filter((x) => !x.retired)) expect(table.points[p.key]).toBeDefined();
    for (const g of rig.grounds) for (const p of g.points) expect(table.points[`${g.id}.${p.id}`]).toBeDefined();
  });

  it('finds a rig again by its name, and a changed one under another', async () => {
    const black = `${rig.reference.part}.${rig.reference.terminal}`;
    const first = await core.bands({ key: 'same', doc: rig }, black, 'idle');
    const changed = motorhomeOf({ coach: { chemistry: 'lfp', layout: 'parallel', capacity: 300 } });
    // The document is not asked where the name is known: a name changes with its document.
    expect(await core.bands({ key: 'same', doc: rig }, black, 'idle')).toEqual(first);
    expect(await core.bands({ key: 'other', doc: changed }, black, 'idle')).not.toEqual(first);
  });

  it('diagnoses from the evidence of this call alone, whatever was asked before', async () => {
    const ask = (value?: number) =>
      core.diagnose(
        { key: 'd', doc: rig },
        ['coach-not-charging'],
        ASSUMED,
        value === undefined ? [] : [{ id: 'r', state: 'idle', probe: 'coach-bank.plus', ref: 'frame.bay-2', value }],
        [],
        { state: 'idle', blackLead: 'frame.bay-2' },
      );
    const before = await ask();
    const told = await ask(12.5);
    expect(told.suspects.map((s) => s.probability)).not.toEqual(before.suspects.map((s) => s.probability));
    expect((await ask()).suspects).toEqual(before.suspects);
  });

  it('starts with the intake’s faults, likeliest first, summing to one', () => {
    const lines = core.priors({ key: 'p', doc: rig }, ['coach-not-charging'], ASSUMED);
    expect(lines.length).toBeGreaterThan(10);
    for (let i = 1; i < lines.length; i++) expect(lines[i]!.after).toBeLessThanOrEqual(lines[i - 1]!.after);
    for (const share of ['before', 'after'] as const) {
      const sum = lines.reduce((total, l) => total + l[share], 0);
      expect(sum).toBeCloseTo(1, 6);
    }
  });

  it('draws the wiring as one well-formed picture with a row for every wire', () => {
    const { svg, wires } = core.wiring(rig, DEFAULT_SETTINGS);
    expect(svg).toMatch(/^<\?xml[^>]*>\s*<svg /);
    expect(svg.trimEnd().endsWith('</svg>')).toBe(true);
    expect((svg.match(/<(?!\/)[a-z]+/g) ?? []).length).toBeGreaterThan(100);
    expect(wires.length).toBe(rig.conductors.length);
  });
});

describe('the options’ worker', () => {
  const job = exampleJob('heron');
  let options: OptionsApi;
  beforeAll(async () => {
    options = await workerApi('options');
  });

  it('lists what can be compared and picks some of it to begin with', () => {
    const list = options.list(job);
    expect(list.candidates.map((c) => c.id)).toEqual(jobCandidates(job).map((c) => c.id));
    for (const id of list.usual) expect(list.candidates.some((c) => c.id === id)).toBe(true);
    expect(list.house!.name).toBe('Coach bank');
    expect(list.batteries.map((b) => b.id)).toContain(list.house!.id);
  });

  it('compares only what is asked for, and says how far it is', () => {
    const said: number[] = [];
    const ids = jobCandidates(job)
      .slice(0, 2)
      .map((c) => c.id);
    const scenarios = jobScenarios(job).slice(0, 1);
    const found = options.compare(job, ids, scenarios, { labourPerHour: 130, partsTimes: 1.3 }, (s) => said.push(s));
    expect(found.rows.map((r) => r.candidate.id).sort()).toEqual([...ids].sort());
    expect(said.at(-1)).toBe(1);
    for (let i = 1; i < said.length; i++) expect(said[i]!).toBeGreaterThanOrEqual(said[i - 1]!);
  });

  it('draws the same rigs for the same seed, in any order of the draws', () => {
    const [c] = jobCandidates(job);
    const scenarios = jobScenarios(job).slice(0, 1);
    const together = options.sample(job, c!.id, scenarios, 4, 7, [0, 1, 2]);
    const apart = [2, 0, 1].flatMap((k) => options.sample(job, c!.id, scenarios, 4, 7, [k]));
    expect([...apart].sort((a, b) => a.sample - b.sample)).toEqual(together);
    expect(options.sample(job, c!.id, scenarios, 4, 8, [0])[0]!.arrives).not.toBe(together[0]!.arrives);
  });

  it('draws rigs that can be simulated, a charger at its input limit too', () => {
    // The twenty-first of sixty: once it had no operating point, and the page waited for ever.
    expect(options.sample(job, 'dcdc-60', jobScenarios(job), 60, 1, [20])).toHaveLength(1);
  });

  it('answers how long a drive takes as a simulation of that drive does', () => {
    const candidate = jobCandidates(job).find((c) => c.id !== 'leave')!;
    const answer = options.ask(job, {
      candidate: candidate.id,
      question: { ask: 'how-long', kind: 'drive', from: 0.5, to: 0.8 },
      celsius: 20,
      loads: [],
    } as never);
    const hours = answer.hours!;
    expect(hours).toBeGreaterThan(0);
    const scenario = {
      id: 'd',
      name: 'Drive',
      startHour: 8,
      startSoc: { [options.list(job).house!.id]: 0.5 },
      legs: [{ id: 'd', name: 'Drive', kind: 'drive' as const, hours, celsius: 20, sunHours: 0, loads: [] }],
    };
    const r = simulateCandidate(candidate, compileRig(candidate.rig), scenario, undefined, { series: false });
    const bank = r.summary.batteries.find((b) => b.part === options.list(job).house!.id)!;
    expect(bank.endSoc).toBeCloseTo(0.8, 1);
  });

  it('has nothing to build before something is picked', () => {
    expect(options.build(exampleJob('heron'))).toBeUndefined();
    expect(currentRevision(job).doc.made).toBeDefined();
  });
});

describe('the log’s worker', () => {
  let log: LogApi;
  beforeAll(async () => {
    log = await workerApi('log');
  });
  const file = (text: string) => new Blob([text]);
  const CSV = ['time,Start battery (V),Coach battery (V)']
    .concat(
      Array.from({ length: 600 }, (_, i) => `${1_760_000_000 + i},${i > 300 ? 14.1 : 12.7},${12.5 + (i % 7) / 100}`),
    )
    .join('\n');

  it('refuses an empty file, a picture, and what holds no sample, each with what to do', async () => {
    await expect(log.face(file(''), 'UTC')).rejects.toThrow('empty');
    await expect(log.face(file('\u0000\u0001PNG'), 'UTC')).rejects.toThrow('Export the log as CSV');
    const text = 'time,volts\nnever,much\nlater,more\n';
    const face = await log.face(file(text), 'UTC');
    await expect(log.read(file(text), face, face.map, { nominal: 12, chemistry: 'flooded' }, () => {})).rejects.toThrow(
      /None of \d+ lines is a sample/,
    );
  });

  it('reads a file, says its lowest and highest, and draws any stretch of it in few points', async () => {
    const face = await log.face(file(CSV), 'UTC');
    const said: number[] = [];
    const read = await log.read(file(CSV), face, face.map, { nominal: 12, chemistry: 'flooded' }, (s) => said.push(s));
    const start = read.channels.find((c) => c.role === 'chassis-volts')!;
    expect(start).toMatchObject({ unit: 'V', low: 12.7, high: 14.1 });
    const [channel] = log.window(1_760_000_100, 1_760_000_500, 20);
    expect(channel!.points.t.length).toBeLessThanOrEqual(40);
    expect(Math.max(...channel!.points.values)).toBe(14.1);
    expect(Math.min(...channel!.points.values)).toBe(12.7);
  });
});
