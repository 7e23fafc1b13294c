/** What happened in a log: engine starts and stops, the link closing and opening, charge stages, long rests. */
import type { LogRole, LogSeries } from './series';

export type LogEventKind =
  'engine-start' | 'charging-begins' | 'charging-ends' | 'link-closes' | 'link-opens' | 'stage' | 'gap';

export interface LogEvent {
  /** s since 1970. */
  t: number;
  kind: LogEventKind;
  /** In words, without the time. */
  says: string;
}

export interface LogSpan {
  from: number;
  to: number;
}

export interface LogEvents {
  events: LogEvent[];
  /** Somebody charges the start battery. */
  charging: (LogSpan & { cranked: boolean })[];
  closed: LogSpan[];
  /** Whether the log can tell when the link is closed. */
  linkSeen: boolean;
  /** Nobody charges, for hours. */
  rests: LogSpan[];
}

/** V of a 12 V system; common practice, times two or four for the others. */
const CHARGED_ABOVE_VOLTS = 13.2;
const ENDED_BELOW_VOLTS = 13.0;
const FALL_VOLTS = 0.35;
const CRANK_DIP_VOLTS = 0.8;
/** s a level has to last. */
const MIN_LEVEL_SECONDS = 10;
const CLOSED_AMPS = 2;
const OPEN_AMPS = 1;
const CLOSED_VOLTS = 0.15;
const OPEN_VOLTS = 0.3;
/** A rest worth its name, and how long after charging volts mislead. */
export const REST_HOURS = 3;
const SETTLING_SECONDS = 1800;

export const channel = (s: LogSeries, role: LogRole): Float64Array | undefined =>
  s.channels.find((c) => c.role === role)?.values;

/** Reads a log's events. @param nominal 12, 24 or 48. */
export function eventsOf(s: LogSeries, nominal = 12): LogEvents {
  const k = nominal / 12;
  const chassis = channel(s, 'chassis-volts') ?? channel(s, 'coach-volts');
  const charging = chassis ? chargingOf(s, chassis, k) : [];
  const { closed, seen } = closedOf(s, k);
  const events: LogEvent[] = [];
  for (const c of charging) {
    events.push(
      c.cranked
        ? { t: c.from, kind: 'engine-start', says: 'the engine starts: a dip, then charging volts' }
        : {
            t: c.from,
            kind: 'charging-begins',
            says: 'charging begins; no crank in the log: shore power, a generator, or a start between two samples',
          },
    );
    if (c.to < s.t.at(-1)!) events.push({ t: c.to, kind: 'charging-ends', says: 'charging ends' });
  }
  for (const c of closed) {
    if (c.from > s.t[0]!) events.push({ t: c.from, kind: 'link-closes', says: 'the link closes' });
    if (c.to < s.t.at(-1)!) events.push({ t: c.to, kind: 'link-opens', says: 'the link opens' });
  }
  events.push(...stagesOf(s, k));
  for (const g of s.gaps)
    events.push({ t: g.from, kind: 'gap', says: `nothing was written for ${duration(g.to - g.from)}` });
  events.sort((a, b) => a.t - b.t);
  return { events, charging, closed, linkSeen: seen, rests: restsOf(s, charging) };
}

/** A duration in words. */
export const duration = (seconds: number): string =>
  seconds >= 5400
    ? `${(seconds / 3600).toFixed(1)} h`
    : seconds >= 90
      ? `${Math.round(seconds / 60)} min`
      : `${Math.round(seconds)} s`;

function chargingOf(s: LogSeries, volts: Float64Array, k: number): LogEvents['charging'] {
  const spans: LogEvents['charging'] = [];
  const link = channel(s, 'link-amps');
  const n = s.t.length;
  let since = NaN; // above the mark since
  let open: { from: number; cranked: boolean } | undefined;
  let below = NaN;
  let back = 0; // index about 20 s back
  for (let i = 0; i < n; i++) {
    const v = volts[i]!;
    if (v !== v) continue;
    const t = s.t[i]!;
    while (s.t[back]! < t - 20) back++;
    if (!open) {
      if (v > CHARGED_ABOVE_VOLTS * k) {
        if (since !== since) since = t;
        if (t - since >= MIN_LEVEL_SECONDS) {
          open = { from: since, cranked: dipBefore(s, volts, since, k) };
          below = NaN;
        }
      } else since = NaN;
      continue;
    }
    // A heavy link pulls the start battery down without anything having ended.
    const heavy = link !== undefined && Math.abs(link[i]!) > 5 * CLOSED_AMPS;
    const fell = volts[back]! - v > FALL_VOLTS * k && v < CHARGED_ABOVE_VOLTS * k + 0.2 * k;
    if (v < ENDED_BELOW_VOLTS * k || (fell && !heavy)) {
      if (below !== below) below = t;
    } else if (v > CHARGED_ABOVE_VOLTS * k) below = NaN;
    if (below === below && t - below >= (heavy ? 60 : 2 * MIN_LEVEL_SECONDS)) {
      spans.push({ from: open.from, to: below, cranked: open.cranked });
      open = undefined;
      since = NaN;
    }
  }
  if (open) spans.push({ from: open.from, to: s.t[n - 1]!, cranked: open.cranked });
  return spans;
}

/** Whether volts dipped as under a starter within the minute before. */
function dipBefore(s: LogSeries, volts: Float64Array, at: number, k: number): boolean {
  let lowest = Infinity;
  const before: number[] = [];
  for (let i = lowerIndex(s.t, at - 360); i < s.t.length && s.t[i]! <= at; i++) {
    const v = volts[i]!;
    if (v !== v) continue;
    if (s.t[i]! > at - 60) lowest = Math.min(lowest, v);
    else before.push(v);
  }
  if (before.length === 0) return false;
  before.sort((a, b) => a - b);
  return lowest < before[before.length >> 1]! - CRANK_DIP_VOLTS * k;
}

/** First index whose time is at least `at`. */
export function lowerIndex(t: Float64Array, at: number): number {
  let lo = 0;
  let hi = t.length;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (t[mid]! < at) lo = mid + 1;
    else hi = mid;
  }
  return lo;
}

/** When the link is closed: by its amps where they are written, else by both banks going together. */
function closedOf(s: LogSeries, k: number): { closed: LogSpan[]; seen: boolean } {
  const amps = channel(s, 'link-amps');
  const a = channel(s, 'chassis-volts');
  const b = channel(s, 'coach-volts');
  if (!amps && !(a && b)) return { closed: [], seen: false };
  const says = (i: number): boolean | undefined => {
    if (amps) {
      const x = Math.abs(amps[i]!);
      return x > CLOSED_AMPS ? true : x < OPEN_AMPS ? false : undefined;
    }
    const d = Math.abs(a![i]! - b![i]!);
    return d < CLOSED_VOLTS * k ? true : d > OPEN_VOLTS * k ? false : undefined;
  };
  const closed: LogSpan[] = [];
  let now: boolean | undefined;
  let candidate: boolean | undefined;
  let from = 0;
  let seen = 0;
  let since = s.t[0] ?? 0;
  for (let i = 0; i < s.t.length; i++) {
    const word = says(i);
    if (word === undefined || word === now) {
      candidate = undefined;
      continue;
    }
    if (candidate !== word) {
      candidate = word;
      from = s.t[i]!;
      seen = 1;
    } else seen++;
    // One stray sample is noise.
    if (seen < 2 && i > 0) continue;
    if (now === true) closed.push({ from: since, to: from });
    now = word;
    since = from;
    candidate = undefined;
  }
  if (now === true) closed.push({ from: since, to: s.t.at(-1)! });
  // Without amps, two resting banks look joined: only what goes together while something charges counts.
  if (amps) return { closed, seen: true };
  const volts = a!;
  const charged = closed.filter((c) => {
    const i = lowerIndex(s.t, (c.from + c.to) / 2);
    return volts[Math.min(i, volts.length - 1)]! > ENDED_BELOW_VOLTS * k;
  });
  return { closed: charged, seen: charged.length > 0 };
}

interface Minute {
  t: number;
  v: number;
  i: number;
}

/** Stages of the coach bank's charge, minute by minute: only where both its volts and amps are written. */
function stagesOf(s: LogSeries, k: number): LogEvent[] {
  const volts = channel(s, 'coach-volts');
  const amps = channel(s, 'coach-amps') ?? channel(s, 'link-amps');
  if (!volts || !amps) return [];
  const minutes: Minute[] = [];
  let [at, n, v, i] = [Math.floor((s.t[0] ?? 0) / 60), 0, 0, 0];
  const close = () => {
    if (n > 0) minutes.push({ t: at * 60, v: v / n, i: i / n });
    [n, v, i] = [0, 0, 0];
  };
  for (let j = 0; j < s.t.length; j++) {
    const minute = Math.floor(s.t[j]! / 60);
    if (minute !== at) {
      close();
      at = minute;
    }
    if (Number.isNaN(volts[j]!) || Number.isNaN(amps[j]!)) continue;
    n++;
    v += volts[j]!;
    i += amps[j]!;
  }
  close();
  const out: LogEvent[] = [];
  let run: Minute[] = [];
  const finish = () => {
    if (run.length >= 15) {
      const most = Math.max(...run.map((m) => m.i));
      const sorted = run.map((m) => m.v).sort((a, b) => a - b);
      const topV = sorted[Math.floor(sorted.length * 0.95)]!;
      let stage = '';
      let reached = false;
      for (let q = 0; q < run.length; q++) {
        const m = run[q]!;
        const atTop = topV > 13.9 * k && m.v > topV - 0.08 * k;
        reached ||= atTop;
        const next = atTop
          ? 'absorption'
          : reached && m.v < topV - 0.3 * k && m.i < 0.35 * most
            ? 'float'
            : reached
              ? stage
              : 'bulk';
        if (next !== stage && next !== '') {
          // A stage lasts: five minutes of it in a row.
          const lasts =
            run
              .slice(q, q + 5)
              .filter((x) =>
                next === 'absorption' ? x.v > topV - 0.1 * k : next === 'float' ? x.v < topV - 0.25 * k : true,
              ).length >= Math.min(4, run.length - q);
          if (!lasts) continue;
          stage = next;
          out.push({
            t: m.t + 60,
            kind: 'stage',
            says: `coach bank: ${stage} at ${m.v.toFixed(2)} V, ${m.i.toFixed(0)} A`,
          });
        }
      }
    }
    run = [];
  };
  for (const m of minutes) {
    if (m.i > 0.5 && m.v > 12.5 * k && (run.length === 0 || m.t - run.at(-1)!.t <= 300)) run.push(m);
    else if (run.length > 0 && (m.i <= 0 || m.t - run.at(-1)!.t > 300)) finish();
  }
  finish();
  return out;
}

/** Hours in which nobody charges, the first half hour after charging left out; a gap ends one. */
function restsOf(s: LogSeries, charging: readonly LogSpan[]): LogSpan[] {
  if (s.t.length === 0) return [];
  const busy = [...charging, ...s.gaps].sort((a, b) => a.from - b.from);
  const rests: LogSpan[] = [];
  let from = s.t[0]!;
  for (const b of [...busy, { from: s.t.at(-1)!, to: Infinity }]) {
    if (b.from - from >= REST_HOURS * 3600) rests.push({ from, to: b.from });
    from = Math.max(from, b.to + SETTLING_SECONDS);
  }
  return rests;
}
