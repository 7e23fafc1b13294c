/** Reads a log as somebody who has read many would: what happened, what can be estimated from it, what that says. */
import { chemistryOf, restVolts } from '../parts/chemistry';
import { bisect } from '../units/stats';
import { level, line, ratio, stepResponse, type Estimated } from './estimate';
import { channel, duration, eventsOf, lowerIndex, type LogEvents, type Span } from './events';
import { valueInWords } from './words';
import type { LogProblem, LogRole, LogSeries } from './series';

export interface LogEstimate {
  id: 'link-ohms' | 'link-drop' | 'loop-ohms' | 'set-point' | 'parasitic' | 'capacity';
  name: string;
  unit: 'ohm' | 'V' | 'A' | 'Ah';
  value: number;
  /** 95 %; equal to the value where only a bound is known. */
  lo: number;
  hi: number;
  bound?: 'at least';
  from: string;
}

export interface LogReading {
  schemaVersion: 1;
  from: number;
  to: number;
  rows: number;
  dropped: number;
  interval: number;
  events: LogEvents['events'];
  estimates: LogEstimate[];
  /** Sentences, the weightiest first. */
  says: string[];
  cycles?: { every: number; closed: number };
  hunting?: { times: number; within: number };
}

/** A log read aside, without its samples: what a screen needs of it. */
export interface ReadLog {
  reading: LogReading;
  channels: { role: LogRole; name: string; unit: string; low: number; high: number }[];
  problems: LogProblem[];
  counts: Readonly<Partial<Record<LogProblem['kind'], number>>>;
  gaps: number;
}

export interface LogContext {
  nominal: 12 | 24 | 48;
  chemistry: string;
}

/** Amps that must flow for a contact to be judged: common practice. */
const JUDGED_ABOVE = 30;
const HUNTS = { times: 4, within: 600 };
/** Closed spells as alike as this are a timer's. */
const ALIKE = 0.04;
/** A of a step that says anything of the source. */
const LEAST_STEP = 2;
/** Volts a rested reading may be off, for a 12 V bank: assumed. */
const REST_ERROR = 0.04;

/** Samples inside any of the spans, `trim` seconds off each end. */
function inside(s: LogSeries, spans: readonly Span[], trim: number): Int32Array {
  const list: number[] = [];
  for (const span of spans)
    for (let i = lowerIndex(s.t, span.from + trim); i < s.t.length && s.t[i]! <= span.to - trim; i++) list.push(i);
  return Int32Array.from(list);
}

/** The reading of a log. */
export function analyseLog(s: LogSeries, context: LogContext): LogReading {
  const k = context.nominal / 12;
  const found = eventsOf(s, context.nominal);
  const estimates: LogEstimate[] = [];
  const add = (
    id: LogEstimate['id'],
    name: string,
    unit: LogEstimate['unit'],
    e: Estimated | undefined,
    from: string,
  ) => {
    if (e && Number.isFinite(e.lo) && Number.isFinite(e.hi))
      estimates.push({ id, name, unit, value: e.value, lo: e.lo, hi: e.hi, from });
  };
  const chassis = channel(s, 'chassis-volts');
  const coach = channel(s, 'coach-volts');
  const amps = channel(s, 'link-amps') ?? (found.linkSeen ? channel(s, 'coach-amps') : undefined);
  const trim = Math.max(2, 2 * s.interval);
  if (chassis && coach && amps) {
    const closed = inside(s, found.closed, trim);
    const drop = new Float64Array(s.t.length);
    for (let i = 0; i < drop.length; i++) drop[i] = chassis[i]! - coach[i]!;
    const fit = line(amps, drop, closed);
    const ohms = fit?.slope ?? ratio(amps, drop, closed);
    if (ohms) {
      const from = fit
        ? `line of the difference of both banks’ volts over the link’s amps, ${ohms.samples} samples while it is closed`
        : `mean drop over mean amps, ${ohms.samples} samples: the amps hardly change, so offsets of the sensors go into it`;
      add('link-ohms', 'Resistance between the two points', 'ohm', ohms, from);
      const working = Math.max(
        ...Array.from({ length: Math.min(2000, closed.length) }, (_, j) =>
          Math.abs(amps[closed[Math.floor((j * closed.length) / Math.min(2000, closed.length))]!]!),
        ),
      );
      add(
        'link-drop',
        `Drop at ${working.toFixed(0)} A`,
        'V',
        { value: ohms.value * working, lo: ohms.lo * working, hi: ohms.hi * working, samples: ohms.samples },
        'that resistance at the most amps seen',
      );
    }
    const running = inside(s, found.charging, Math.max(10, trim));
    const answer = stepResponse(amps, chassis, running, LEAST_STEP);
    if (answer) {
      const unloaded = chassis.map((v, i) => v - answer.value * amps[i]!);
      const set = level(unloaded, running);
      const mean = level(amps, running);
      // What the slope is not sure of, at the amps that flowed, widens the level.
      const slack = Math.abs(mean?.value ?? 0) * (answer.hi - answer.value);
      if (set)
        add(
          'set-point',
          'Charging volts with nothing through the link',
          'V',
          { ...set, lo: set.lo - slack, hi: set.hi + slack },
          `the level while charging, ${(-answer.value * 1000).toFixed(1)} mV added back for every amp through the link`,
        );
      if (ohms) {
        const half = Math.hypot(answer.hi - answer.value, ohms.hi - ohms.value);
        const value = ohms.value - answer.value;
        add(
          'loop-ohms',
          'Loop, source to coach bank’s point',
          'ohm',
          { value, lo: value - half, hi: value + half, samples: answer.samples },
          `how far the start battery’s volts step at ${answer.samples} steps of the link’s amps, and the resistance above`,
        );
      }
    }
  }
  if (chassis && !estimates.some((e) => e.id === 'set-point') && found.charging.length > 0)
    add(
      'set-point',
      'Charging volts',
      'V',
      level(chassis, inside(s, found.charging, 60)),
      'the level while charging, loads as they were',
    );
  const chassisAmps = channel(s, 'chassis-amps');
  const coachAmps = channel(s, 'coach-amps');
  if (chassisAmps && found.rests.length > 0) {
    const e = level(chassisAmps, inside(s, found.rests, trim));
    if (e)
      add(
        'parasitic',
        'Start battery’s drain at rest',
        'A',
        { ...e, value: -e.value, lo: -e.hi, hi: -e.lo },
        `${duration(found.rests.reduce((sum, r) => sum + r.to - r.from, 0))} of rest`,
      );
  }
  const used = coach && coachAmps ? capacityOf(s, coach, coachAmps, k, context.chemistry) : undefined;
  if (used) estimates.push(used);
  const cycles = cyclesOf(found, s);
  const hunting = huntingOf(found.closed);
  return {
    schemaVersion: 1,
    from: s.t[0] ?? 0,
    to: s.t.at(-1) ?? 0,
    rows: s.rows,
    dropped: s.dropped,
    interval: s.interval,
    events: found.events,
    estimates,
    says: wordsOf(s, found, estimates, cycles, hunting, amps),
    ...(cycles ? { cycles } : {}),
    ...(hunting ? { hunting } : {}),
  };
}

/** Closed spells of one length, again and again: a timer. Spells the log or the end of the charging cuts off do not count. */
function cyclesOf(found: LogEvents, s: LogSeries): LogReading['cycles'] {
  const whole = found.closed.filter(
    (c) =>
      c.from > s.t[0]! &&
      c.to < s.t.at(-1)! &&
      c.to - c.from > 300 &&
      found.charging.every((x) => Math.abs(x.to - c.to) > 120),
  );
  if (whole.length < 2) return undefined;
  const lengths = whole.map((c) => c.to - c.from).sort((a, b) => a - b);
  const middle = lengths[lengths.length >> 1]!;
  if (lengths.some((x) => Math.abs(x - middle) > Math.max(ALIKE * middle, 2 * s.interval))) return undefined;
  const starts = whole.map((c) => c.from);
  return { closed: middle, every: (starts.at(-1)! - starts[0]!) / (starts.length - 1) };
}

function huntingOf(closed: readonly Span[]): LogReading['hunting'] {
  let most: LogReading['hunting'];
  for (let a = 0, b = 0; b < closed.length; b++) {
    while (closed[b]!.from - closed[a]!.from > HUNTS.within) a++;
    if (b - a + 1 >= HUNTS.times && b - a + 1 > (most?.times ?? 0))
      most = { times: b - a + 1, within: closed[b]!.from - closed[a]!.from };
  }
  return most;
}

/** Capacity from the deepest discharge between two rests; a lower bound where the rests are missing. */
function capacityOf(
  s: LogSeries,
  volts: Float64Array,
  amps: Float64Array,
  k: number,
  chemistry: string,
): LogEstimate | undefined {
  let ah = 0;
  let top = { ah: 0, i: 0 };
  let deepest = { drawn: 0, from: 0, to: 0 };
  for (let i = 1; i < s.t.length; i++) {
    const dt = s.t[i]! - s.t[i - 1]!;
    const a = amps[i]!;
    if (dt > Math.max(300, 20 * s.interval) || a !== a) {
      // What flowed in a gap is not known: the count begins again.
      if (dt > Math.max(300, 20 * s.interval)) top = { ah, i };
      continue;
    }
    ah += (a * dt) / 3600;
    if (ah >= top.ah) top = { ah, i };
    else if (top.ah - ah > deepest.drawn) deepest = { drawn: top.ah - ah, from: top.i, to: i };
  }
  if (deepest.drawn < 5) return undefined;
  const rest = (at: number, way: -1 | 1): number | undefined => {
    // Half an hour of nearly nothing on that side of the point.
    const v: number[] = [];
    for (let i = at; i >= 0 && i < s.t.length && Math.abs(s.t[i]! - s.t[at]!) < 5400; i += way) {
      if (Math.abs(amps[i]!) > 0.6) {
        if (v.length > 0 && Math.abs(s.t[i]! - s.t[at]!) > 60) break;
        v.length = 0;
        continue;
      }
      if (!Number.isNaN(volts[i]!)) v.push(volts[i]!);
    }
    if (v.length * Math.max(1, s.interval) < 1800) return undefined;
    v.sort((x, y) => x - y);
    return v[v.length >> 1]!;
  };
  const [before, after] = [rest(deepest.from, -1), rest(deepest.to, 1)];
  const curve = chemistryOf(chemistry);
  const socOf = (v: number): number =>
    v <= k * restVolts(0, curve)
      ? 0
      : v >= k * restVolts(1, curve)
        ? 1
        : bisect(0, 1, (soc) => k * restVolts(soc, curve) < v).low;
  if (before !== undefined && after !== undefined && curve.bms === undefined) {
    const share = socOf(before) - socOf(after);
    const widest = socOf(before + k * REST_ERROR) - socOf(after - k * REST_ERROR);
    const least = socOf(before - k * REST_ERROR) - socOf(after + k * REST_ERROR);
    if (least > 0.1)
      return {
        id: 'capacity',
        name: 'Capacity of the coach bank',
        unit: 'Ah',
        value: deepest.drawn / share,
        lo: deepest.drawn / widest,
        hi: deepest.drawn / least,
        from: `${deepest.drawn.toFixed(0)} Ah drawn between two rests, ${before.toFixed(2)} V and ${after.toFixed(2)} V`,
      };
  }
  return {
    id: 'capacity',
    name: 'Capacity of the coach bank',
    unit: 'Ah',
    value: deepest.drawn,
    lo: deepest.drawn,
    hi: deepest.drawn,
    bound: 'at least',
    from: `${deepest.drawn.toFixed(0)} Ah drawn in one go; no rests to tell what was left`,
  };
}

function wordsOf(
  s: LogSeries,
  found: LogEvents,
  estimates: readonly LogEstimate[],
  cycles: LogReading['cycles'],
  hunting: LogReading['hunting'],
  amps: Float64Array | undefined,
): string[] {
  const out: string[] = [];
  const get = (id: LogEstimate['id']) => estimates.find((e) => e.id === id);
  if (hunting)
    out.push(
      `The link hunts: it closed ${hunting.times} times within ${duration(hunting.within)}. Look at its thresholds, its sense wires, and what the line drops under load.`,
    );
  if (cycles)
    out.push(
      `The link comes on a timer: closed for ${duration(cycles.closed)}, again every ${duration(cycles.every)}. ${Math.abs(cycles.closed - 3600) < 200 ? 'An hour at a time is how a timed controller is made: no fault.' : ''}`.trim(),
    );
  const starts = found.charging.filter((c) => c.cranked).length;
  if (found.charging.length > 0)
    out.push(
      `${starts > 0 ? `${starts} engine ${starts === 1 ? 'start' : 'starts'}` : 'No engine start'}; charged for ${duration(found.charging.reduce((sum, c) => sum + c.to - c.from, 0))} of ${duration(s.t.at(-1)! - s.t[0]!)}.`,
    );
  else if (s.t.length > 0) out.push(`Nobody charged in the ${duration(s.t.at(-1)! - s.t[0]!)} of this log.`);
  if (found.linkSeen)
    out.push(
      found.closed.length > 0
        ? `The link was closed ${found.closed.length} ${found.closed.length === 1 ? 'time' : 'times'}, ${duration(found.closed.reduce((sum, c) => sum + c.to - c.from, 0))} in all.`
        : `The link never closed${found.charging.length > 0 ? ', though the start battery was being charged: look at its coil feed, its controller, its contact' : ''}.`,
    );
  const ohms = get('link-ohms');
  if (ohms) {
    const peak = amps ? amps.reduce((m, x) => (Math.abs(x) > m ? Math.abs(x) : m), 0) : 0;
    out.push(
      `Between the two points ${valueInWords(ohms)}${peak < JUDGED_ABOVE ? '; at most ' + peak.toFixed(0) + ' A flowed: not enough current to judge a contact' : ''}. It holds cables, joints and contact together.`,
    );
  }
  const set = get('set-point');
  if (set) out.push(`Charging volts ${valueInWords(set)}.`);
  const drain = get('parasitic');
  if (drain)
    out.push(
      `At rest the start battery loses ${valueInWords(drain)}: ${(drain.value * 24).toFixed(1)} Ah a day${drain.lo > 0.25 ? ', more than alarm and tracker explain' : ''}.`,
    );
  const capacity = get('capacity');
  if (capacity) out.push(`The coach bank holds ${valueInWords(capacity)}.`);
  if (s.gaps.length > 0)
    out.push(
      `${s.gaps.length} ${s.gaps.length === 1 ? 'gap' : 'gaps'} in the log, ${duration(s.gaps.reduce((sum, g) => sum + g.to - g.from, 0))} in all: nothing is known of them.`,
    );
  if (s.dropped > 0) out.push(`${s.dropped} of ${s.rows} lines could not be placed in time and were left out.`);
  return out;
}
