/** Every station on every demo job: it draws, it says what it has to, and it says nothing that only a program would. */
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { exampleJob } from '../../tests/answers';
import { jobPageOf, readable, rendered, texts } from '../../tests/jobPage';
import { partKind } from '../core/parts/kinds';
import { currentRevision, intakeClues, type Job } from '../core/job/job';
import { clueSays, isComplaint } from '../core/diagnose/intake';
import { complaintSays } from '../core/rig/complaintsOf';
import { namesGiven } from '../core/rig/inWords';
import { DEFAULT_SETTINGS } from '../core/shop/shop';
import { inWords } from '../core/units/vocabulary';
import { BuildStation } from './build/BuildStation';
import { FaultStation } from './fault/FaultStation';
import { IntakeStation } from './intake/IntakeStation';
import { LogbookStation } from './logbook/LogbookStation';
import { OptionsStation } from './options/OptionsStation';
import { ProveStation } from './prove/ProveStation';
import { ReadingSheet } from './readings/ReadingSheet';
import { StateChooser } from './readings/StateChooser';
import { StatePlate } from './readings/StatePlate';
import { RigStation } from './rig/RigStation';
import type { JobPage, Station } from './shell/jobPage';
import { BenchSlip, cautionsOf } from './shell/NextSlip';
import { NextBar, PhoneReadings, PhoneTop } from './shell/Phone';
import { Rail } from './shell/Rail';
import { SizingStation } from './sizing/SizingStation';
import { LoomStrip } from './strip/LoomStrip';

// It asks for a window while it is read; nothing is drawn on a canvas here.
vi.mock('chartjs-plugin-zoom', () => ({ default: { id: 'zoom' } }));

const STATIONS: Readonly<Record<Station, () => React.ReactNode>> = {
  intake: () => <IntakeStation />,
  rig: () => <RigStation />,
  readings: () => <ReadingSheet />,
  fault: () => <FaultStation />,
  options: () => <OptionsStation />,
  sizing: () => <SizingStation />,
  build: () => <BuildStation />,
  prove: () => <ProveStation />,
  logbook: () => <LogbookStation />,
};
const JOBS = ['heron', 'heron-1009', 'pika', 'dipper', 'marmot', 'osprey', 'wren'] as const;

describe.each(JOBS)('%s', (name) => {
  const job = exampleJob(name);
  const { doc } = currentRevision(job);
  const pages = {} as Record<Station, JobPage>;
  beforeAll(async () => {
    for (const station of Object.keys(STATIONS) as Station[]) pages[station] = await jobPageOf(job, station);
  });
  const html = (station: Station) => rendered(pages[station], STATIONS[station]());

  it.each(Object.keys(STATIONS) as Station[])('%s says nothing only a program would', (station) => {
    for (const drawn of [html(station), rendered(pages[station], <BenchSlip />), rendered(pages[station], <Rail />)]) {
      const text = readable(drawn);
      expect(text).not.toMatch(/undefined|NaN|\[object|Infinity|null\b/);
      // No id of a part's terminal, no name of a fault's row.
      for (const part of doc.parts)
        for (const t of partKind(part.kind).terminals) expect(text).not.toContain(`${part.id}.${t.id}`);
    }
  });

  it('intake repeats everything that was told', () => {
    const text = readable(html('intake'));
    for (const clue of intakeClues(job))
      expect(text).toContain(isComplaint(clue) ? complaintSays(clue, doc) : clueSays(clue));
  });

  it('readings have a row for every probe, with its label, and what was read', () => {
    const text = readable(html('readings'));
    for (const p of doc.probes.filter((x) => !x.retired)) expect(text).toContain(p.label);
    const drops = pages.readings.measuring.measurements.filter((m) => m.kind === 'drop');
    for (const m of drops) expect(text).toContain(m.name);
  });

  it('fault lists its first suspects, likeliest first, and a next step unless it is settled or repaired', () => {
    const { diagnosis } = pages.fault.answers;
    const text = readable(html('fault'));
    if (!diagnosis) return;
    const [first, second] = diagnosis.suspects;
    expect(text).toContain(first!.name);
    expect(first!.probability).toBeGreaterThanOrEqual(second!.probability);
    expect(text.indexOf(first!.name)).toBeLessThan(text.lastIndexOf(second!.name));
  });

  it('the slip names the next action, and every caution there is', () => {
    for (const station of ['readings', 'fault'] as const) {
      const text = readable(rendered(pages[station], <BenchSlip />));
      expect(text).toContain(pages[station].place.next.words);
      for (const caution of cautionsOf(pages[station].file, pages[station].answers, pages[station].place))
        expect(text).toContain(caution);
    }
  });

  it('the strip shows every part of the rig with its name', () => {
    const text = readable(rendered(pages.readings, <LoomStrip rig={doc} faces={{}} onPick={() => undefined} />));
    for (const part of doc.parts.filter((p) => partKind(p.kind).role !== 'control'))
      expect(text.toLowerCase(), part.name).toContain(part.name.toLowerCase().split(',')[0]!);
  });

  it('every control can be named: no button, field or link without words', () => {
    for (const station of Object.keys(STATIONS) as Station[]) {
      const drawn = html(station);
      for (const [, attributes, inner] of drawn.matchAll(/<button([^>]*)>([\s\S]*?)<\/button>/g)) {
        const says = /aria-label="[^"]+"|title="[^"]+"/.test(attributes!) || readable(inner!).trim() !== '';
        expect(says, `${station}: ${inner!.slice(0, 120)}`).toBe(true);
      }
    }
  });
});

const close = () => undefined;
/** What stands beside a station, or opens over it. */
const AROUND = [
  <BenchSlip key="slip" />,
  <Rail key="rail" />,
  <StatePlate key="plate" />,
  <StateChooser key="chooser" suggested="shore" onClose={close} />,
  <PhoneTop key="top" />,
  <PhoneReadings key="phone" />,
  <NextBar key="bar" cautions />,
];

/** What people wrote in a job stays as they wrote it. */
const written = (job: Job): string[] => [
  ...namesGiven(currentRevision(job).doc),
  ...[job.complaint.words, ...job.repairs.map((r) => r.did)].filter((t) => t !== ''),
];

describe.each(['europe', 'oceania'] as const)('the words of %s', (vocabulary) => {
  const say = (text: string, job: Job) => inWords(vocabulary, text, written(job));
  it.each(JOBS)('stand on every station of %s, and no others', async (name) => {
    const job = exampleJob(name);
    const leaks: string[] = [];
    for (const station of Object.keys(STATIONS) as Station[]) {
      const page = await jobPageOf(job, station, { settings: { ...DEFAULT_SETTINGS, vocabulary } });
      for (const piece of [STATIONS[station](), ...AROUND]) {
        // A sentence that is said already changes no more.
        for (const text of texts(rendered(page, piece))) if (text !== say(text, job)) leaks.push(`${station}: ${text}`);
      }
    }
    expect([...new Set(leaks)]).toEqual([]);
  });
});
