import fc from 'fast-check';
import Papa from 'papaparse';
import { faceOf } from './readLog';
import { describe, expect, it } from 'vitest';
import { analyseLog } from './analyse';
import { eventsOf } from './events';
import { Extremes } from './extremes';
import { CanLogReader, decodeFrame, encodeFrame, looksLikeCan } from './readCan';
import { CsvLogReader, guessDelimiter, guessMap, headerKey, readNumber } from './readCsv';
import { SeriesBuilder, type LogSeries } from './series';
import { daysFromCivil, readTime, toUtc, zoneOffsets } from './time';

const rowsOf = (text: string): string[][] =>
  Papa.parse<string[]>(text, { delimiter: guessDelimiter(text), skipEmptyLines: 'greedy' }).data;
const read = (text: string, zone = 'UTC', change: Partial<ReturnType<typeof guessMap>> = {}): LogSeries => {
  const rows = rowsOf(text);
  const reader = new CsvLogReader({ ...guessMap(rows.slice(0, 50), zone), ...change });
  reader.push(rows);
  return reader.finish();
};

describe('times', () => {
  it('agree with the calendar of the runtime, every day of two centuries', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 73_000 }), (day) => {
        const d = new Date(day * 86_400_000);
        expect(daysFromCivil(d.getUTCFullYear(), d.getUTCMonth() + 1, d.getUTCDate())).toBe(day);
        expect(readTime(d.toISOString(), 'iso').seconds).toBe(day * 86_400);
      }),
    );
  });
  it('are read as recorders write them', () => {
    const utc = (text: string) => Date.parse(text) / 1000;
    expect(readTime('2026-03-04T05:06:07.5+02:00', 'iso').seconds).toBe(utc('2026-03-04T03:06:07.500Z'));
    expect(readTime('04/03/2026 05:06', 'day-first').seconds).toBe(utc('2026-03-04T05:06:00Z'));
    expect(readTime('3/4/26 12:05:07 AM', 'month-first').seconds).toBe(utc('2026-03-04T00:05:07Z'));
    expect(readTime('1772600000123', 'milliseconds').seconds).toBe(1772600000.123);
    // Midnight may be written as the end of the day, and 2028 has a 29th of February.
    expect(readTime('2026-12-31 24:00', 'iso').seconds).toBe(utc('2027-01-01T00:00:00Z'));
    expect(readTime('2028-02-29', 'iso').seconds).toBe(utc('2028-02-29T00:00:00Z'));
    for (const bad of [
      '31/31/2026',
      'yesterday',
      '',
      '2026-13-01',
      '2026-02-01 10:61',
      '2026-02-29',
      '2026-04-31',
      '2026-02-01 24:01',
      '2026-02-01 25:00',
    ])
      expect(readTime(bad, 'day-first').seconds).toBeNaN();
  });
  it('of a zone follow its summer time, in both directions', () => {
    const offset = zoneOffsets('America/Denver');
    fc.assert(
      fc.property(fc.integer({ min: 1_600_000_000, max: 1_800_000_000 }), (utc) => {
        const local = utc + offset(utc) * 60;
        // Back again, but for the hour that comes twice.
        expect([0, 3600]).toContain(utc - toUtc(local, offset));
      }),
    );
    expect(offset(Date.parse('2026-07-01T00:00:00Z') / 1000)).toBe(-360);
    expect(offset(Date.parse('2026-01-01T00:00:00Z') / 1000)).toBe(-420);
    expect(() => zoneOffsets('Mars/Olympus')).toThrow();
  });
});

describe('a cell that is made to hold one up', () => {
  const blanks = ' '.repeat(100_000);

  it('is no time, and is told so at once', () => {
    // Looked for in every way there is, one of these would take longer than any test may.
    for (const cell of [`2026-11-20 17:07${blanks}x`, `${blanks}2026-11-20`, `2026-11-20${blanks}+`])
      expect(readTime(cell, 'iso').seconds).toBeNaN();
    expect(readTime('  2026-11-20 17:07:30.25 pm +01:00 ', 'iso').zoned).toBe(true);
  });

  it('is passed over in a table, whose other rows are read', () => {
    const rows = Array.from({ length: 60 }, (_, k) => `2026-11-20 17:${String(k).padStart(2, '0')},12.${k % 10}`);
    rows[30] = `2026-11-20 17:07${blanks}x,${blanks}12.4x`;
    expect(read(['time,chassis volts', ...rows].join('\n')).t).toHaveLength(59);
  });
});

describe('a recorder’s CSV', () => {
  it('is understood with decimal commas, semicolons, a preamble and a clock of its own', () => {
    const s = read(
      'Recorder 7\r\nDatum;Zeit;Start battery (V);Coach battery (V);Coach ' +
        'current (A)\r\n04.03.2026;05:06:07;12,70;12,41;-3,5\r\n04.03.2026;05:06:17;14,02;12,44;22,25\r\n' +
        '14.03.2026;05:06:27;14,05;12,52;21,5\r\n',
      'Europe/Berlin',
    );
    expect(s.channels.map((c) => [c.role, [...c.values]])).toEqual([
      ['chassis-volts', [12.7, 14.02, 14.05]],
      ['coach-volts', [12.41, 12.44, 12.52]],
      ['coach-amps', [-3.5, 22.25, 21.5]],
    ]);
    expect(s.t[0]).toBe(Date.parse('2026-03-04T04:06:07Z') / 1000);
  });
  it('keeps what can be kept: text in a number, a broken time, time running backwards are each said with their line', () => {
    const s = read(
      'time,voltage (V)\n2026-03-04 00:00:00,12.5\n2026-03-04 ' +
        '00:00:10,OL\nnever,12.4\n2026-03-04 00:00:05,12.3\n2026-03-04 00:00:20,12.2\n',
    );
    expect([...s.channels[0]!.values]).toEqual([12.5, NaN, 12.2]);
    expect(s.problems.map((p) => [p.kind, p.line])).toEqual([
      ['not-a-number', 3],
      ['not-a-time', 4],
      ['backwards', 5],
    ]);
    expect(s.dropped).toBe(2);
    expect(s.rows).toBe(5);
    for (const p of s.problems) expect(p.wanted.length).toBeGreaterThan(10);
  });
  it('counts what goes wrong a thousand times without filling memory with it', () => {
    const s = read(
      `time,voltage (V)\n${Array.from({ length: 2000 }, (_, i) => `${1_700_000_000 + i},${i % 2 ? 'bad' : '12.5'}`).join('\n')}\n`,
    );
    expect(s.counts['not-a-number']).toBe(1000);
    expect(s.problems.length).toBeLessThan(10);
  });
  it('reads numbers as they are meant and takes nothing else for one', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (x) => {
        expect(readNumber(x.toFixed(3), '.')).toBe(Number(x.toFixed(3)));
        expect(readNumber(x.toFixed(3).replace('.', ','), ',')).toBe(Number(x.toFixed(3)));
      }),
    );
    for (const bad of ['', ' ', '12.5V', '1.2.3', '--1', 'NaN', 'Infinity', '0x10', '=1+1'])
      expect(readNumber(bad, '.')).toBeNaN();
  });
  it('tells the day from the month where a number gives it away, and takes the day first where none does', () => {
    const order = (...times: string[]) =>
      faceOf(['time,Start battery (V)', ...times.map((t) => `${t},12.6`)].join('\n'), 'UTC').map!.format;
    expect(order('13/02/2026 10:00', '14/02/2026 10:00')).toBe('day-first');
    expect(order('02/13/2026 10:00', '02/14/2026 10:00')).toBe('month-first');
    expect(order('02/03/2026 10:00', '02/04/2026 10:00')).toBe('day-first');
    expect(order('02/03/2026 10:00', '02/14/2026 10:00')).toBe('month-first');
    expect(order('2026-02-03 10:00')).toBe('iso');
    expect(order('1760000000')).toBe('seconds');
    expect(order('1760000000000')).toBe('milliseconds');
    expect(order('12.5')).toBe('elapsed');
  });

  it('finds a mapping again by its header', () => {
    expect(headerKey([' Time ', 'VOLTS'])).toBe(headerKey(['time', 'volts']));
  });
  it('sees gaps, and breaks nothing on an empty or foreign file', () => {
    const s = read(
      `time,voltage (V)\n${[0, 10, 20, 30, 4000, 4010].map((t) => `${1_700_000_000 + t},12.5`).join('\n')}\n`,
    );
    expect(s.gaps).toEqual([{ from: 1_700_000_030, to: 1_700_004_000 }]);
    for (const text of ['', 'a', '\u0000\u0001', 'x,y\n', '{"json":true}']) {
      const empty = read(text);
      expect(empty.t.length).toBe(0);
      expect(analyseLog(empty, { nominal: 12, chemistry: 'flooded' }).estimates).toEqual([]);
    }
  });
});

describe('a CAN log', () => {
  it('says of a frame what was put into it, to the step of its encoding', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1200 }),
        fc.integer({ min: -500_000, max: 500_000 }),
        fc.integer({ min: 1, max: 4 }),
        (v, ma, instance) => {
          const { id, data } = encodeFrame({ instance, volts: v * 0.05, amps: ma / 1000 });
          const back = decodeFrame(id, data)!;
          expect(back.instance).toBe(instance);
          expect(back.volts).toBeCloseTo(v * 0.05, 9);
          expect(back.amps).toBeCloseTo(ma / 1000, 6);
        },
      ),
    );
    expect(decodeFrame(0x19fffd44, Uint8Array.from([1, 100, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff]))).toEqual({
      instance: 1,
    });
    expect(decodeFrame(0x18feca00, new Uint8Array(8))).toBeUndefined();
  });
  it('is read in both ways loggers write it, other frames passed over', () => {
    const text = [
      '(1772600000.100000) can0 19FFFD44#0164F50000943577',
      '1772600001.2 can0 19FFFD44 [8] 02 64 18 01 00 94 35 77',
      '(1772600001.500000) can0 18FECA00#0000000000000000',
      'garbage',
      '',
    ];
    expect(looksLikeCan(text.concat(text).join('\n'))).toBe(true);
    const reader = new CanLogReader();
    reader.push(text);
    const s = reader.finish();
    expect(s.channels.find((c) => c.role === 'coach-volts')!.values[0]).toBeCloseTo(12.25, 9);
    expect(s.channels.find((c) => c.role === 'coach-amps')!.values[0]).toBeCloseTo(0, 3);
    expect(s.channels.find((c) => c.role === 'chassis-volts')!.values[1]).toBeCloseTo(14, 9);
    expect(s.counts.frame).toBe(1);
  });
});

describe('thinning for the screen', () => {
  it('takes each point from its own part of the window: lowest and highest of every part, as a plain loop finds them', () => {
    const n = 6400;
    // Coprime steps: no two values alike, no order in them.
    const values = Float64Array.from({ length: n }, (_, i) => (i * 2741) % 6397);
    const t = Float64Array.from({ length: n }, (_, i) => i);
    for (const [from, to, buckets] of [
      [0, n, 9],
      [130, 5000, 7],
      [1, 6398, 31],
    ] as const) {
      const w = new Extremes(t, values).window(from, to, buckets);
      const [a, b] = [Math.max(0, from - 1), Math.min(n, to + 1)];
      const wanted = Array.from({ length: buckets }, (_, k) => {
        const part = values.slice(
          a + Math.floor((k * (b - a)) / buckets),
          a + Math.floor(((k + 1) * (b - a)) / buckets),
        );
        return [Math.min(...part), Math.max(...part)];
      });
      const found = Array.from({ length: buckets }, (_, k) =>
        [...w.values.slice(2 * k, 2 * k + 2)].sort((x, y) => x - y),
      );
      expect(found).toEqual(wanted);
    }
  });

  it('keeps every extreme of every window, and never more points than asked', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            { weight: 9, arbitrary: fc.integer({ min: -1000, max: 1000 }) },
            { weight: 1, arbitrary: fc.constant(NaN) },
          ),
          { minLength: 1, maxLength: 3000 },
        ),
        fc.integer({ min: 2, max: 60 }),
        fc.nat(),
        fc.nat(),
        (values, buckets, p, q) => {
          const t = Float64Array.from(values, (_, i) => i);
          const e = new Extremes(t, Float64Array.from(values));
          const [a, b] = [p % values.length, q % values.length].sort((x, y) => x - y) as [number, number];
          const w = e.window(a, b, buckets);
          expect(w.t.length).toBeLessThanOrEqual(Math.max(2 * buckets, 0) + 0);
          const seen = values.slice(a, b + 1).filter((v) => !Number.isNaN(v));
          if (seen.length === 0) return;
          const kept = [...w.values].filter((v) => !Number.isNaN(v));
          expect(Math.max(...kept)).toBeGreaterThanOrEqual(Math.max(...seen));
          expect(Math.min(...kept)).toBeLessThanOrEqual(Math.min(...seen));
          for (let i = 1; i < w.t.length; i++) expect(w.t[i]!).toBeGreaterThanOrEqual(w.t[i - 1]!);
        },
      ),
    );
  });
});

/** A log made by hand: what the start battery and the coach bank do, second by second. */
function made(
  seconds: number,
  at: (t: number) => { chassis: number; coach: number; link: number },
  every = 1,
): LogSeries {
  const b = new SeriesBuilder([
    { role: 'chassis-volts', name: 'c' },
    { role: 'coach-volts', name: 'h' },
    { role: 'link-amps', name: 'l' },
  ]);
  for (let t = 0; t <= seconds; t += every) {
    const x = at(t);
    b.add(t + 1, 1_700_000_000 + t, [x.chassis, x.coach, x.link]);
  }
  return b.finish();
}

describe('events', () => {
  it('finds the start by its dip, the link a delay later, and both ends', () => {
    const s = made(4000, (t) => {
      const crank = t >= 600 && t < 602;
      const on = t >= 602 && t < 3000;
      const linked = t >= 630 && t < 3005;
      return { chassis: crank ? 10.4 : on ? 14.1 : 12.7, coach: linked ? 13.6 : 12.3, link: linked ? 40 : 0 };
    });
    const { events, charging, closed } = eventsOf(s);
    expect(charging).toHaveLength(1);
    expect(charging[0]).toMatchObject({ cranked: true });
    expect(charging[0]!.from - 1_700_000_000).toBe(602);
    expect(Math.abs(charging[0]!.to - 1_700_003_000)).toBeLessThan(25);
    expect(closed.map((c) => [c.from - 1_700_000_000, c.to - 1_700_000_000])).toEqual([[630, 3005]]);
    expect(events.map((e) => e.kind).filter((k) => k !== 'stage')).toEqual([
      'engine-start',
      'link-closes',
      'charging-ends',
      'link-opens',
    ]);
  });
  it('does not call a mains charger an engine', () => {
    expect(
      eventsOf(
        made(7200, (t) => ({
          chassis: t > 1000 ? 13.6 : 12.5,
          coach: t > 1000 ? 13.65 : 12.2,
          link: t > 1000 ? -8 : 0,
        })),
      ).charging,
    ).toMatchObject([{ cranked: false }]);
  });
  it('calls an hour at a time a timer, and four closings in ten minutes hunting', () => {
    const timer = analyseLog(
      made(
        8 * 3600,
        (t) =>
          t % 10_800 > 3600 && t % 10_800 <= 7200
            ? { chassis: 13.9, coach: 13.4, link: 30 }
            : { chassis: 14.1, coach: 12.7, link: 0 },
        10,
      ),
      { nominal: 12, chemistry: 'flooded' },
    );
    expect(timer.cycles!.closed).toBeCloseTo(3600, -2);
    expect(timer.says.join()).toContain('no fault');
    expect(timer.hunting).toBeUndefined();
    const hunts = analyseLog(
      made(1800, (t) =>
        t % 60 < 25 ? { chassis: 12.9, coach: 12.6, link: 40 } : { chassis: 13.4, coach: 12.3, link: 0 },
      ),
      { nominal: 12, chemistry: 'flooded' },
    );
    expect(hunts.hunting!.times).toBeGreaterThanOrEqual(10);
    expect(hunts.says[0]).toContain('hunts');
  });
  it('says that the link never closed though somebody charged', () => {
    const s = analyseLog(
      made(3600, (t) => ({ chassis: t > 300 ? 14.1 : 12.6, coach: 12.3, link: 0.1 })),
      { nominal: 12, chemistry: 'flooded' },
    );
    expect(s.says.join()).toContain('never closed');
  });
  it('reads the drain at rest with its interval, and what it means a day', () => {
    const b = new SeriesBuilder([
      { role: 'chassis-volts', name: 'c' },
      { role: 'chassis-amps', name: 'a' },
    ]);
    for (let t = 0; t <= 10 * 3600; t += 10) b.add(t, 1_700_000_000 + t, [12.6 - t * 1e-6, -0.31 + 0.02 * Math.sin(t)]);
    const r = analyseLog(b.finish(), { nominal: 12, chemistry: 'flooded' });
    const e = r.estimates.find((x) => x.id === 'parasitic')!;
    expect(e.lo).toBeLessThan(0.31);
    expect(e.hi).toBeGreaterThan(0.31 - 0.002);
    expect(e.value).toBeCloseTo(0.31, 2);
    expect(r.says.join()).toContain('7.4 Ah a day');
  });
  it('finds capacity between two rests, and only a bound where there are none', () => {
    const ah = 100;
    const run = (rests: boolean) => {
      const b = new SeriesBuilder([
        { role: 'coach-volts', name: 'c' },
        { role: 'coach-amps', name: 'a' },
      ]);
      let soc = 1;
      for (let t = 0; t <= 12 * 3600; t += 10) {
        const loaded = rests ? t > 2 * 3600 && t < 10 * 3600 : true;
        const amps = loaded ? -5 : 0;
        soc += (amps * 10) / 3600 / ah;
        // Straight between the rested volts of the flooded table: 12.72 full, 12.45 at three quarters, 12.22 at half.
        const rest =
          soc > 0.9
            ? 12.6 + (soc - 0.9) * 1.2
            : soc > 0.75
              ? 12.45 + (soc - 0.75)
              : soc > 0.5
                ? 12.22 + (soc - 0.5) * 0.92
                : 12.02 + (soc - 0.25) * 0.8;
        b.add(t, 1_700_000_000 + t, [rest - (loaded ? 0.1 : 0), amps]);
      }
      return analyseLog(b.finish(), { nominal: 12, chemistry: 'flooded' }).estimates.find((e) => e.id === 'capacity')!;
    };
    const whole = run(true);
    expect(whole.bound).toBeUndefined();
    expect(whole.lo).toBeLessThan(ah);
    expect(whole.hi).toBeGreaterThan(ah);
    expect(run(false)).toMatchObject({ bound: 'at least' });
  });
});
