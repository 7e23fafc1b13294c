/** Reads a log as somebody who has read many would: what happened, what can be estimated from it, what that says. */
import { chemistryOf, restVolts } from '../parts/chemistry';
import { counted } from '../units/counted';
import { bisect } from '../units/stats';
import { level, line, ratio, stepResponse, type Estimated } from './estimate';
import { channel, duration, eventsOf, lowerIndex, type LogEvents, type LogSpan } from './events';
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
const JUDGED_ABOVE_AMPS = 30;
const HUNTS = { times: 4, within: 600 };
/** Closed spells as alike as this are a timer's. */
const ALIKE_SHARE = 0.04;
/** A of a step that says anything of the source. */
const MIN_STEP_AMPS = 2;
/** A of drain that alarm and tracker explain: common practice. */
const MAX_EXPLAINED_AMPS = 0.25;
/** Volts a rested reading may be off, for a 12 V bank: assumed. */
const REST_ERROR_VOLTS = 0.04;

/** Samples inside any of the spans, `trim` seconds off each end. */
function inside(s: LogSeries, spans: readonly LogSpan[], trim: number): Int32Array {
  const list: number[] = [];
  for (const span of spans)
    for (let i = lowerIndex(s.t, span.from + trim); i < s.t.length && s.t[i]! <= span.to - trim; i++) list.push(i);
  return Int32Array.from(list);
}

/** What the estimates of one log are made from. */
interface Heard {
  s: LogSeries;
  found: LogEvents;
  /** Nominal volts over 12. */
  k: number;
  chemistry: string;
  /** Seconds left off both ends of a spell: what switches there is no steady state. */
  trim: number;
  volts: { chassis?: Float64Array; coach?: Float64Array };
  /** Through the link. */
  amps?: Float64Array;
}

/** One estimate; none where there is too little to say. */
const told = (of: Pick<LogEstimate, 'id' | 'name' | 'unit'>, e: Estimated | undefined, from: string): LogEstimate[] =>
  e && Number.isFinite(e.lo) && Number.isFinite(e.hi) ? [{ ...of, value: e.value, lo: e.lo, hi: e.hi, from }] : [];

/** The most amps of some samples, two thousand of them at the most. */
function mostAmps(amps: Float64Array, picked: Int32Array): number {
  const n = Math.min(2000, picked.length);
  return Math.max(
    ...Array.from({ length: n }, (_, j) => Math.abs(amps[picked[Math.floor((j * picked.length) / n)]!]!)),
  );
}

const LINK_OHMS = { id: 'link-ohms', name: 'Resistance between the two points', unit: 'ohm' } as const;
const LOOP_OHMS = { id: 'loop-ohms', name: 'Loop, source to coach bank’s point', unit: 'ohm' } as const;

/** Both banks’ volts and the link’s amps: what lies between, and what lies behind. */
function linkEstimates({ s, found, trim, volts: { chassis, coach }, amps }: Heard): LogEstimate[] {
  if (!chassis || !coach || !amps) return [];
  const closed = inside(s, found.closed, trim);
  const drop = chassis.map((v, i) => v - coach[i]!);
  const fit = line(amps, drop, closed);
  const ohms = fit?.slope ?? ratio(amps, drop, closed);
  const list: LogEstimate[] = [];
  if (ohms) {
    const working = mostAmps(amps, closed);
    const at = { value: ohms.value * working, lo: ohms.lo * working, hi: ohms.hi * working, samples: ohms.samples };
    list.push(
      ...told(
        LINK_OHMS,
        ohms,
        fit
          ? `line of the difference of both banks’ volts over the link’s amps, ${ohms.samples} samples while it is closed`
          : `mean drop over mean amps, ${ohms.samples} samples: the amps hardly change, so offsets of the sensors go into it`,
      ),
      ...told(
        { id: 'link-drop', name: `Drop at ${working.toFixed(0)} A`, unit: 'V' },
        at,
        'that resistance at the most amps seen',
      ),
    );
  }
  const running = inside(s, found.charging, Math.max(10, trim));
  const answer = stepResponse(amps, chassis, running, MIN_STEP_AMPS);
  if (!answer) return list;
  list.push(...unloadedLevel(chassis, amps, running, answer));
  if (ohms) {
    const half = Math.hypot(answer.hi - answer.value, ohms.hi - ohms.value);
    const value = ohms.value - answer.value;
    list.push(
      ...told(
        LOOP_OHMS,
        { value, lo: value - half, hi: value + half, samples: answer.samples },
        `how far the start battery’s volts step at ${answer.samples} steps of the link’s amps, and the resistance above`,
      ),
    );
  }
  return list;
}

/** The set point: what the link's amps take off the volts added back. @param answer V per A at the start battery. */
function unloadedLevel(
  chassis: Float64Array,
  amps: Float64Array,
  running: Int32Array,
  answer: Estimated,
): LogEstimate[] {
  const set = level(
    chassis.map((v, i) => v - answer.value * amps[i]!),
    running,
  );
  // What the slope is not sure of, at the amps that flowed, widens the level.
  const slack = Math.abs(level(amps, running)?.value ?? 0) * (answer.hi - answer.value);
  return told(
    { id: 'set-point', name: 'Charging volts with nothing through the link', unit: 'V' },
    set && { ...set, lo: set.lo - slack, hi: set.hi + slack },
    `the level while charging, ${(-answer.value * 1000).toFixed(1)} mV added back for every amp through the link`,
  );
}

/** Where the link's amps cannot be taken off: the level as it was. */
const loadedLevel = ({ s, found, volts: { chassis } }: Heard): LogEstimate[] =>
  chassis && found.charging.length > 0
    ? told(
        { id: 'set-point', name: 'Charging volts', unit: 'V' },
        level(chassis, inside(s, found.charging, 60)),
        'the level while charging, loads as they were',
      )
    : [];

function drainEstimate({ s, found, trim }: Heard): LogEstimate[] {
  const amps = channel(s, 'chassis-amps');
  const e = amps && found.rests.length > 0 ? level(amps, inside(s, found.rests, trim)) : undefined;
  return told(
    { id: 'parasitic', name: 'Start battery’s drain at rest', unit: 'A' },
    e && { ...e, value: -e.value, lo: -e.hi, hi: -e.lo },
    `${duration(total(found.rests))} of rest`,
  );
}

function capacityEstimate({ s, volts: { coach }, k, chemistry }: Heard): LogEstimate[] {
  const amps = channel(s, 'coach-amps');
  const used = coach && amps ? capacityOf(s, coach, amps, k, chemistry) : undefined;
  return used ? [used] : [];
}

/** s of some spans together. */
const total = (spans: readonly LogSpan[]): number => spans.reduce((sum, r) => sum + r.to - r.from, 0);

/** The reading of a log. */
export function analyseLog(s: LogSeries, context: LogContext): LogReading {
  const found = eventsOf(s, context.nominal);
  const [chassis, coach] = [channel(s, 'chassis-volts'), channel(s, 'coach-volts')];
  const amps = channel(s, 'link-amps') ?? (found.linkSeen ? channel(s, 'coach-amps') : undefined);
  const heard: Heard = {
    s,
    found,
    k: context.nominal / 12,
    chemistry: context.chemistry,
    trim: Math.max(2, 2 * s.interval),
    volts: { ...(chassis ? { chassis } : {}), ...(coach ? { coach } : {}) },
    ...(amps ? { amps } : {}),
  };
  const link = linkEstimates(heard);
  const estimates = [
    ...link,
    ...(link.some((e) => e.id === 'set-point') ? [] : loadedLevel(heard)),
    ...drainEstimate(heard),
    ...capacityEstimate(heard),
  ];
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
    says: [
      ...patternWords(cycles, hunting),
      ...chargingWords(s, found),
      ...linkWords(found),
      ...estimateWords(estimates, amps),
      ...lossWords(s),
    ],
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
  if (lengths.some((x) => Math.abs(x - middle) > Math.max(ALIKE_SHARE * middle, 2 * s.interval))) return undefined;
  const starts = whole.map((c) => c.from);
  return { closed: middle, every: (starts.at(-1)! - starts[0]!) / (starts.length - 1) };
}

function huntingOf(closed: readonly LogSpan[]): LogReading['hunting'] {
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
    const widest = socOf(before + k * REST_ERROR_VOLTS) - socOf(after - k * REST_ERROR_VOLTS);
    const least = socOf(before - k * REST_ERROR_VOLTS) - socOf(after + k * REST_ERROR_VOLTS);
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

/** What comes again and again. */
function patternWords(cycles: LogReading['cycles'], hunting: LogReading['hunting']): string[] {
  const hour = cycles && Math.abs(cycles.closed - 3600) < 200;
  return [
    ...(hunting
      ? [
          `The link hunts: it closed ${hunting.times} times within ${duration(hunting.within)}. ` +
            `Look at its thresholds, its sense wires, and what the line drops under load.`,
        ]
      : []),
    ...(cycles
      ? [
          `The link comes on a timer: closed for ${duration(cycles.closed)}, again every ` +
            `${duration(cycles.every)}.${hour ? ' An hour at a time is how a timed controller is made: no fault.' : ''}`,
        ]
      : []),
  ];
}

function chargingWords(s: LogSeries, { charging }: LogEvents): string[] {
  if (s.t.length === 0) return [];
  const whole = duration(s.t.at(-1)! - s.t[0]!);
  if (charging.length === 0) return [`Nobody charged in the ${whole} of this log.`];
  const starts = charging.filter((c) => c.cranked).length;
  return [
    `${starts > 0 ? counted(starts, 'engine start') : 'No engine start'}; charged for ${duration(total(charging))} of ${whole}.`,
  ];
}

function linkWords({ linkSeen, closed, charging }: LogEvents): string[] {
  if (!linkSeen) return [];
  if (closed.length > 0)
    return [`The link was closed ${counted(closed.length, 'time')}, ${duration(total(closed))} in all.`];
  if (charging.length === 0) return ['The link never closed.'];
  return [
    'The link never closed, though the start battery was being charged: look at its coil feed, its controller, its contact.',
  ];
}

/** The weightier estimates, a sentence each. */
function estimateWords(estimates: readonly LogEstimate[], amps: Float64Array | undefined): string[] {
  const peak = amps ? amps.reduce((m, x) => (Math.abs(x) > m ? Math.abs(x) : m), 0) : 0;
  const little = `; at most ${peak.toFixed(0)} A flowed: not enough current to judge a contact`;
  const says: Partial<Record<LogEstimate['id'], (e: LogEstimate) => string>> = {
    'link-ohms': (e) =>
      `Between the two points ${valueInWords(e)}${peak < JUDGED_ABOVE_AMPS ? little : ''}. It holds cables, joints and contact together.`,
    'set-point': (e) => `Charging volts ${valueInWords(e)}.`,
    parasitic: (e) =>
      `At rest the start battery loses ${valueInWords(e)}: ${(e.value * 24).toFixed(1)} ` +
      `Ah a day${e.lo > MAX_EXPLAINED_AMPS ? ', more than alarm and tracker explain' : ''}.`,
    capacity: (e) => `The coach bank holds ${valueInWords(e)}.`,
  };
  return estimates.flatMap((e) => says[e.id]?.(e) ?? []);
}

/** What the log does not hold. */
const lossWords = ({ gaps, dropped, rows }: LogSeries): string[] => [
  ...(gaps.length > 0
    ? [`${counted(gaps.length, 'gap')} in the log, ${duration(total(gaps))} in all: nothing is known of them.`]
    : []),
  ...(dropped > 0 ? [`${dropped} of ${rows} lines could not be placed in time and were left out.`] : []),
];
