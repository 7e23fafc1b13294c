/** The phone: one probe at a time, its leads, its band, and the way to every other. And the sheets both screens share. */
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { exampleJob } from '../../../tests/answers';
import { changed, jobPageOf, readable, rendered } from '../../../tests/jobPage';
import { currentRevision } from '../../core/job/job';
import { operatingState } from '../../core/operate/states';
import { BandDialog, KeysDialog, LeadDialog } from './dialogs';
import type { JobPage } from './jobPage';
import { cautionsOf, established } from './NextSlip';
import { Cautions } from './Slip';
import { PhoneReadings, PhoneTop } from './Phone';

vi.mock('chartjs-plugin-zoom', () => ({ default: { id: 'zoom' } }));

const SLIPS = /undefined|NaN|\[object|Infinity|null\b/;

describe.each(['heron', 'pika', 'marmot', 'wren'] as const)('the phone on %s', (name) => {
  const job = exampleJob(name);
  let page: JobPage;
  beforeAll(async () => {
    page = await jobPageOf(job, 'readings');
  });
  const text = (piece: React.ReactNode, of = page) => readable(rendered(of, piece));

  it('says whose job it is, what the rig is doing, and where one can go', () => {
    const top = text(<PhoneTop />);
    expect(top).toContain(String(job.number));
    expect(top).toContain(page.file.rig.name);
    for (const station of ['Readings', 'Fault', 'Prove', 'Logbook']) expect(top).toContain(station);
    expect(top).not.toMatch(SLIPS);
  });

  it('shows each probe in turn with where the leads go and what a healthy one reads', () => {
    for (const m of page.measuring.measurements) {
      const shown = text(<PhoneReadings />, changed(page, { selected: m }));
      expect(shown, m.id).not.toMatch(SLIPS);
      expect(shown, m.id).toContain(m.name);
      if (m.kind === 'volts') expect(shown, m.id).toMatch(/\d V|mV/);
      if (m.kind === 'clamp') expect(shown, m.id).toMatch(/ A\b|amps/);
    }
  });

  it('shows the cautions of the state the rig is in', () => {
    // Of the state that comes next, where the rig must be doing something else first.
    const { cautions } = operatingState(
      page.place.next.kind === 'change-state' ? page.place.next.state : job.rigState.id,
    );
    expect(cautionsOf(page.file, page.answers, page.place).length).toBeGreaterThanOrEqual(cautions.length);
    const shown = text(<Cautions list={cautionsOf(page.file, page.answers, page.place)} />);
    for (const c of cautions) expect(shown).toContain(c);
  });

  it('repeats as established what was read out of its band', () => {
    const list = established(page.file, page.measuring);
    const shown = text(<ul>{list}</ul>);
    expect(shown).not.toMatch(SLIPS);
    const out = page.measuring.readings.filter((r) => {
      const m = page.measuring.measurements.find((x) => x.red === r.probe && x.black === r.ref);
      const band = m && page.measuring.band(r.state, m.id);
      return band && r.value !== undefined && (r.value < band.lo || r.value > band.hi);
    });
    if (out.length === 0) return;
    expect(list.length).toBeGreaterThan(0);
  });
});

describe('the sheets', () => {
  const job = exampleJob('heron');
  let page: JobPage;
  beforeAll(async () => {
    page = await jobPageOf(job, 'readings');
  });

  it('of keys has one line a key, each with what it does', () => {
    const shown = rendered(page, <KeysDialog onClose={() => undefined} />);
    const keys = [...shown.matchAll(/<kbd[^>]*>([^<]+)<\/kbd>/g)].map((m) => m[1]);
    expect(keys.length).toBeGreaterThan(8);
    expect(new Set(keys).size).toBe(keys.length);
    expect(shown).not.toMatch(/<dd[^>]*><\/dd>/);
  });

  it('of the black lead offers every bolt of the rig', () => {
    const shown = readable(rendered(page, <LeadDialog onClose={() => undefined} />));
    for (const ground of currentRevision(job).doc.grounds)
      for (const point of ground.points) expect(shown.toLowerCase()).toContain(point.label.toLowerCase());
  });

  it('of a band’s working opens before the working is there', () => {
    const m = page.measuring.measurements[0]!;
    const shown = readable(rendered(page, <BandDialog state="idle" measurement={m} onClose={() => undefined} />));
    expect(shown).not.toMatch(SLIPS);
  });
});
