/**
 * Fuses as anybody may buy them, by construction: ratings made, volts, what they interrupt, and how long they
 * last over their rating. Curves go straight, on logarithmic scales, through the middle of each gate of the
 * standard; gates of ISO 8820-3 (blade) and 8820-5 (bolt-in) and UL 248-15 (class T), all from memory.
 */
export interface Gate {
  /** Times the rating. */
  multiple: number;
  /** Shortest and longest time to open, s. */
  from: number;
  to: number;
}

export interface FuseKind {
  id: string;
  label: string;
  standard: string;
  volts: number;
  /** A it opens into, up to so many volts, the fewest volts first: the more volts, the fewer amps. */
  opensInto: readonly { volts: number; amps: number }[];
  ratings: readonly number[];
  gates: readonly Gate[];
  /** Ring stud, where it has studs. */
  stud?: string;
}

const gates = (...list: [multiple: number, from: number, to: number][]): Gate[] =>
  list.map(([multiple, from, to]) => ({ multiple, from, to }));
const BLADE = gates([1.35, 0.75, 600], [1.6, 0.25, 50], [2, 0.15, 5], [3.5, 0.04, 0.5], [6, 0.02, 0.1]);
/** Large blades are slower than small ones: 2 to 60 s at twice the rating (ISO 8820-3 type E, from memory). */
const LARGE_BLADE = gates([1.35, 60, 1800], [2, 2, 60], [3.5, 0.2, 7], [6, 0.04, 1]);
const BOLT_IN = gates([1.35, 120, 1800], [2, 1, 15], [3.5, 0.3, 5], [6, 0.1, 1]);

export const FUSE_KINDS: readonly FuseKind[] = [
  {
    id: 'blade',
    label: 'Blade',
    standard: 'ISO 8820-3',
    volts: 32,
    opensInto: [{ volts: 32, amps: 1000 }],
    ratings: [1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 35, 40],
    gates: BLADE,
  },
  {
    id: 'blade-mini',
    label: 'Mini blade',
    standard: 'ISO 8820-3',
    volts: 32,
    opensInto: [{ volts: 32, amps: 1000 }],
    ratings: [2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30],
    gates: BLADE,
  },
  {
    id: 'blade-micro',
    label: 'Micro blade, two legs',
    standard: 'ISO 8820-3',
    volts: 32,
    opensInto: [{ volts: 32, amps: 1000 }],
    ratings: [5, 7.5, 10, 15, 20, 25, 30],
    gates: BLADE,
  },
  {
    id: 'blade-large',
    label: 'Large blade',
    standard: 'ISO 8820-3',
    volts: 32,
    opensInto: [{ volts: 32, amps: 1000 }],
    ratings: [20, 25, 30, 35, 40, 50, 60, 70, 80, 100],
    gates: LARGE_BLADE,
  },
  {
    id: 'cartridge',
    label: 'Cartridge, push-in',
    standard: 'ISO 8820-4',
    volts: 32,
    opensInto: [{ volts: 32, amps: 1000 }],
    ratings: [20, 25, 30, 40, 50, 60],
    gates: LARGE_BLADE,
  },
  {
    id: 'bolt-small',
    label: 'Bolt-in, M5',
    standard: 'ISO 8820-5',
    volts: 32,
    opensInto: [{ volts: 32, amps: 2000 }],
    ratings: [30, 40, 50, 60, 70, 80, 100, 125, 150, 175, 200],
    gates: BOLT_IN,
    stud: 'M5',
  },
  {
    id: 'bolt-large',
    label: 'Bolt-in, M8',
    standard: 'ISO 8820-5',
    volts: 32,
    opensInto: [{ volts: 32, amps: 2000 }],
    ratings: [60, 80, 100, 125, 150, 175, 200, 225, 250, 300, 350, 400, 450, 500],
    gates: BOLT_IN,
    stud: 'M8',
  },
  {
    id: 'strip',
    label: 'Strip, bolt-down',
    standard: 'maker’s sheet',
    volts: 32,
    opensInto: [{ volts: 32, amps: 6000 }],
    ratings: [35, 40, 50, 60, 80, 100, 125, 150, 175, 200, 225, 250, 300, 350, 400, 500, 600, 750],
    gates: BOLT_IN,
    stud: 'M8',
  },
  {
    id: 'bolt-58',
    label: 'Bolt-in, M8, 58 V',
    standard: 'ISO 8820-5',
    volts: 58,
    opensInto: [{ volts: 58, amps: 2500 }],
    ratings: [30, 40, 50, 60, 80, 100, 125, 150, 200, 250, 300],
    gates: BOLT_IN,
    stud: 'M8',
  },
  {
    id: 'terminal',
    label: 'On the post',
    standard: 'maker’s sheet',
    volts: 58,
    // Listed at 14, 32 and 58 V: 16 V is the whole of a 12 V system. From memory of makers' sheets.
    opensInto: [
      { volts: 16, amps: 10_000 },
      { volts: 32, amps: 5000 },
      { volts: 58, amps: 2000 },
    ],
    ratings: [30, 40, 50, 60, 75, 80, 90, 100, 125, 150, 175, 200, 225, 250, 300],
    gates: BOLT_IN,
    stud: 'M8',
  },
  {
    id: 'class-t',
    label: 'Class T, fast',
    standard: 'UL 248-15',
    volts: 125,
    opensInto: [{ volts: 125, amps: 20_000 }],
    ratings: [15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225, 250, 300, 350, 400],
    gates: gates([1.35, 20, 3600], [2, 4, 480], [5, 0.03, 0.4], [10, 0.004, 0.02]),
    stud: 'M8',
  },
];

/** V of a 12 V block while it is charged hard: what its fuse has to break at; 58 V of a 48 V bank (common practice). */
export const CHARGED_HARD_VOLTS = 14.5;

/** Whether a part opens on too much current. */
export const isFuseOrBreaker = (part: { kind: string } | undefined): boolean =>
  part?.kind === 'link-fuse' || part?.kind === 'line-breaker';

const KINDS = new Map(FUSE_KINDS.map((k) => [k.id, k]));

/** The kind with this id; undefined for one nobody makes. */
export const fuseKind = (id: string): FuseKind | undefined => KINDS.get(id);

/** A a fuse opens into at so many volts; 0 where its arc may hold. */
export const interruptsAt = (kind: FuseKind, volts: number): number =>
  kind.opensInto.find((row) => row.volts >= volts)?.amps ?? 0;

/** Beyond the last gate the element melts adiabatically: I²t stays what it was there. */
const beyond = (seconds: number, last: number, multiple: number): number =>
  multiple > last ? seconds * (last / multiple) ** 2 : seconds;

/** Seconds until a fuse opens at so many times its rating; Infinity where it may never. */
export function opensSeconds(kind: FuseKind, multiple: number): number {
  const { gates: g } = kind;
  const middle = (i: number) => Math.sqrt(g[i]!.from * g[i]!.to);
  if (multiple < g[0]!.multiple) return Infinity;
  const last = g[g.length - 1]!;
  if (multiple > last.multiple) return beyond(middle(g.length - 1), last.multiple, multiple);
  let i = 0;
  while (i < g.length - 2 && multiple > g[i + 1]!.multiple) i++;
  const [a, b] = [g[i]!, g[i + 1]!];
  const share = Math.log(multiple / a.multiple) / Math.log(b.multiple / a.multiple);
  return middle(i) * (middle(i + 1) / middle(i)) ** share;
}

/** The slowest the standard allows it to be: what a wire must bear. */
export function opensAtLatest(kind: FuseKind, multiple: number): number {
  const { gates: g } = kind;
  if (multiple < g[0]!.multiple) return Infinity;
  let i = g.length - 1;
  while (g[i]!.multiple > multiple) i--;
  return beyond(g[i]!.to, g[g.length - 1]!.multiple, multiple);
}

/** Up to this many times its rating a fuse holds for a hundred hours (ISO 8820, from memory). */
const HOLDS_TIMES_RATING = 1.1;

/** The quickest the standard allows it to be: what a brief load must not outlast. */
export function opensAtEarliest(kind: FuseKind, multiple: number): number {
  const { gates: g } = kind;
  if (multiple <= HOLDS_TIMES_RATING) return Infinity;
  if (multiple <= g[0]!.multiple) return g[0]!.from;
  const last = g[g.length - 1]!;
  if (multiple > last.multiple) return beyond(last.from, last.multiple, multiple);
  let i = 0;
  while (multiple > g[i + 1]!.multiple) i++;
  const [a, b] = [g[i]!, g[i + 1]!];
  const share = Math.log(multiple / a.multiple) / Math.log(b.multiple / a.multiple);
  return a.from * (b.from / a.from) ** share;
}
