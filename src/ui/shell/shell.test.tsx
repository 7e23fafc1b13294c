/** The stations as a table: marks, keys, the slim strip. */
import { describe, expect, it, vi } from 'vitest';
import { exampleJob } from '../../../tests/answers';
import { jobPageOf, readable, rendered } from '../../../tests/jobPage';
import { currentRevision } from '../../core/job/job';
import { repaired } from '../../../tests/afternoon';
import { KeysDialog } from './dialogs';
import { HOTKEYS, hotkeyFor, type KeyContext } from './hotkeys';
import { STATION_MARKS, type MarkInput } from './stationMarks';
import { STATION_REGISTRY } from './stationRegistry';
import { isStation, STATIONS } from './stations';

vi.mock('chartjs-plugin-zoom', () => ({ default: { id: 'zoom' } }));

describe('the registry of stations', () => {
  it('gives every station a name and a key of its own', () => {
    const entries = STATIONS.map((s) => STATION_REGISTRY[s]);
    expect(new Set(entries.map((e) => e.name)).size).toBe(STATIONS.length);
    expect(new Set(entries.map((e) => e.hotkey)).size).toBe(STATIONS.length);
  });

  it('lets no key do two things at one place', () => {
    const keys = HOTKEYS.flatMap((h) => h.keys);
    expect(new Set(keys).size).toBe(keys.length);
  });

  it('knows a station from any other word', () => {
    for (const s of STATIONS) expect(isStation(s)).toBe(true);
    for (const s of ['', 'Readings', 'report', undefined, null]) expect(isStation(s)).toBe(false);
  });

  it('shows the whole strip exactly where one measures or places things', () => {
    expect(STATIONS.filter((s) => STATION_REGISTRY[s].strip === 'full')).toEqual(['rig', 'readings', 'prove']);
  });
});

describe('keys', () => {
  const context = (typed: string, keepable = false) => {
    const calls: string[] = [];
    const measuring = { setTyped: (text: string) => calls.push(`typed ${text}`) };
    const place = { act: () => calls.push('act'), go: (to: string) => calls.push(`go ${to}`) };
    return {
      calls,
      at: {
        measuring,
        place,
        typed,
        millis: false,
        keepable,
        keep: () => calls.push('keep'),
        step: (by: number) => calls.push(`step ${by}`),
      } as unknown as KeyContext,
    };
  };
  const press = (key: string, typed = '', keepable = false, charts = false) => {
    const { calls, at } = context(typed, keepable);
    hotkeyFor(key, charts)?.run(at, key);
    return calls;
  };

  it('type a reading, with a point or a comma once', () => {
    expect(press('7', '12.')).toEqual(['typed 12.7']);
    expect(press(',', '12')).toEqual(['typed 12,']);
    expect(press('.', '12,4')).toEqual([]);
    expect(press('-', '0.2')).toEqual(['typed -0.2']);
    expect(press('-', '-0.2')).toEqual(['typed 0.2']);
    expect(press('Backspace', '12.7')).toEqual(['typed 12.']);
  });

  it('Enter keeps what is typed if it is a value, else does what is next', () => {
    expect(press('Enter')).toEqual(['act']);
    expect(press('Enter', '12.7', true)).toEqual(['keep']);
    expect(press('Enter', '-', false)).toEqual([]);
  });

  it('leave charts their own', () => {
    expect(press('7', '', false, true)).toEqual([]);
    expect(press('ArrowDown', '', false, true)).toEqual([]);
    expect(press('ArrowDown')).toEqual(['step 1']);
    expect(press('ArrowUp')).toEqual(['step -1']);
    expect(press('Enter', '', false, true)).toEqual([]);
    expect(press('o', '', false, true)).toEqual(['go options']);
  });

  it('open every station', () => {
    for (const s of STATIONS) expect(press(STATION_REGISTRY[s].hotkey)).toEqual([`go ${s}`]);
  });

  it('are all on the sheet', async () => {
    const page = await jobPageOf(exampleJob('heron'), 'readings');
    const text = readable(rendered(page, <KeysDialog onClose={() => undefined} />));
    for (const s of STATIONS) expect(text).toContain(STATION_REGISTRY[s].name);
    for (const h of HOTKEYS) expect(text).toContain(h.does);
  });
});

describe('what a station still lacks', () => {
  const input = (more: Partial<MarkInput> = {}): MarkInput => {
    const job = exampleJob('heron');
    return {
      job: { ...job, verdicts: [], choices: [], signOffs: [], build: undefined as never },
      rig: currentRevision(job).doc,
      epoch: 0,
      readings: [],
      diagnosis: undefined,
      proofs: undefined,
      checks: undefined,
      visits: [],
      ...more,
    };
  };
  const stop = (reached: boolean) => ({ stop: { reached, why: '' } }) as unknown as MarkInput['diagnosis'];

  it('readings: how many are taken, until they are enough', () => {
    expect(STATION_MARKS.readings(input())).toEqual({ pip: 'wait', says: '0 taken' });
    const one = { status: 'measured' } as MarkInput['readings'][number];
    expect(STATION_MARKS.readings(input({ readings: [one, { ...one, status: 'overload' }] }))).toEqual({
      pip: 'part',
      says: '1 taken',
    });
    expect(STATION_MARKS.readings(input({ diagnosis: stop(true) })).says).toBe('enough');
  });

  it('fault: open until the diagnosis is settled', () => {
    expect(STATION_MARKS.fault(input({ diagnosis: stop(false) }))).toEqual({ pip: 'wait', says: 'open' });
    expect(STATION_MARKS.fault(input({ diagnosis: stop(true) }))).toEqual({ pip: 'part', says: 'settled' });
  });

  it('fault: repaired, or explained where nothing was wrong', () => {
    const sound = { ...repaired, verdicts: repaired.verdicts.map((v) => ({ ...v, fault: 'nothing-wrong' })) };
    expect(STATION_MARKS.fault(input({ job: repaired }))).toEqual({ pip: 'done', says: 'repaired' });
    expect(STATION_MARKS.fault(input({ job: sound }))).toEqual({ pip: 'done', says: 'explained' });
  });

  it('build and prove wait for a pick and for something made', () => {
    expect(STATION_MARKS.build(input())).toEqual({ pip: 'wait', says: 'nothing picked' });
    expect(STATION_MARKS.sizing(input())).toEqual({ pip: 'wait', says: 'as it is' });
    expect(STATION_MARKS.prove(input())).toEqual({ pip: 'wait', says: 'not yet' });
  });

  it('logbook: this visit counts', () => {
    expect(STATION_MARKS.logbook(input())).toEqual({ pip: 'part', says: 'first visit' });
    expect(STATION_MARKS.logbook(input({ visits: [1, 2] }))).toEqual({ pip: 'done', says: '3 visits' });
  });
});
