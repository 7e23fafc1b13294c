/**
 * Who measures: puts the rig in a state and waits as people do, reads a meter that is off by its own amounts, puts
 * a lead on the wrong point now and then, and answers what is asked about the rig by looking at it.
 */
import type { Hidden } from './hidden';
import type { Chance } from './random';
import { PARKED, type Doing } from './doing';
import { FINDS } from './sights';
import type { TrueRig } from './trueRig';

/** What is done in each state, and how long it should be waited, seconds. */
const STATES: Readonly<Record<string, { doing: Partial<Doing>; wait: number }>> = {
  rested: { doing: {}, wait: 0 },
  'key-on': { doing: { key: true }, wait: 60 },
  'idle-before-delay': { doing: { key: true, rpm: 'idle', sun: true }, wait: 9 },
  idle: { doing: { key: true, rpm: 'idle', sun: true }, wait: 180 },
  'fast-idle': { doing: { key: true, rpm: 'fast-idle', sun: true }, wait: 180 },
  'boost-engine-off': { doing: { boost: true, sun: true }, wait: 6 },
  'boost-engine-on': { doing: { key: true, rpm: 'idle', boost: true, sun: true }, wait: 15 },
  shore: { doing: { mains: true, sun: true }, wait: 600 },
  generator: { doing: { mains: true, sun: true }, wait: 600 },
  uncoupled: { doing: { coupled: false }, wait: 300 },
  'disconnect-open': { doing: { disconnect: false }, wait: 60 },
};

export class Technician {
  state = 'rested';
  /** Seconds the rig is in its state. */
  seconds = 3600 * 8;
  private readonly gain: number;
  private readonly clampGain: number;
  private readonly clampZero: number;
  private readonly coarse: boolean;

  constructor(
    readonly bench: TrueRig,
    /** Points a lead can be put on. */
    private readonly points: readonly string[],
    readonly hidden: Hidden,
    private readonly chance: Chance,
  ) {
    const { hand } = bench;
    this.gain = 1 + hand.gain * chance.bell();
    this.clampGain = 1 + hand.clampGain * chance.bell();
    this.clampZero = hand.clampZero * chance.bell();
    this.coarse = chance.happens(0.25);
    // It was driven in yesterday and stood overnight.
    bench.now({ key: true, rpm: 'fast-idle' });
    bench.wait(1800);
    bench.now({});
    bench.wait(3600 * chance.oneOf([2, 8, 14]));
  }

  /** Changes what the rig is doing, and waits about as long as one should. */
  enter(state: string): void {
    const { chance, bench } = this;
    if (state === this.state) {
      this.again();
      return;
    }
    const { doing, wait } = STATES[state]!;
    const worked = { ...PARKED, ...STATES[this.state]!.doing };
    if (state === 'rested' && (worked.rpm !== 'off' || worked.mains || worked.boost)) {
      bench.now({});
      this.pass(bench.restSeconds());
    } else {
      // Walking there and turning keys takes its time; an engine that is to run on goes on running meanwhile.
      const goesOn = worked.rpm !== 'off' && (doing.rpm ?? 'off') !== 'off' && state !== 'idle-before-delay';
      bench.now(goesOn ? { key: true, rpm: worked.rpm, sun: true } : {});
      bench.wait(chance.between(20, 90));
      bench.now(doing);
      this.pass(wait * (chance.happens(bench.hand.early) ? chance.between(0.1, 0.6) : chance.between(0.95, 1.4)));
    }
    this.state = state;
  }

  private pass(seconds: number): void {
    this.bench.wait(seconds);
    this.seconds = seconds;
  }

  /** The next reading in the same state: what is short is begun anew. */
  private again(): void {
    const { chance, bench, state } = this;
    const { doing } = STATES[state]!;
    if (state === 'idle-before-delay') {
      bench.now({});
      bench.wait(chance.between(40, 90));
      bench.now(doing);
      bench.wait(chance.between(6, 11));
      this.seconds = 9;
    } else if (state === 'boost-engine-off') {
      bench.now({});
      bench.wait(chance.between(20, 60));
      bench.now(doing);
      bench.wait(chance.between(3, 8));
      this.seconds = 5;
    } else {
      const goes = chance.between(30, 100);
      bench.wait(goes);
      this.seconds += goes;
    }
  }

  /** A reading off the display. */
  read(probe: string, black?: string): number {
    const { chance, bench } = this;
    const amps = probe.endsWith('.clamp');
    let value = bench.reading(probe, black);
    if (chance.happens(bench.hand.slips)) value = this.slip(probe, black, value, amps);
    if (amps) return Number((value * this.clampGain + this.clampZero + 0.1 * chance.bell()).toFixed(1));
    const v = value * this.gain + 0.0015 * chance.bell();
    const digit = this.coarse || Math.abs(v) >= 6 ? 0.01 : Math.abs(v) >= 0.6 ? 0.001 : 0.0001;
    return Number((Math.round(v / digit + chance.oneOf([-1, 0, 0, 1])) * digit).toFixed(4));
  }

  private slip(probe: string, black: string | undefined, value: number, amps: boolean): number {
    const { chance, bench } = this;
    const what = chance.unit();
    if (what < 0.3) return 0;
    if (what < 0.5) return -value;
    const beside = this.points.filter((p) => p.endsWith('.clamp') === amps && p !== probe && p !== black);
    return beside.length > 0 ? bench.reading(chance.oneOf(beside), black) : 0;
  }

  /** Answers a question of the product's by id: an answer's id, or the figures it asks for. */
  answer(id: string): string | Readonly<Record<string, number>> {
    const at = id.indexOf('.');
    const what = at < 0 ? id : id.slice(0, at);
    const owner = at < 0 ? '' : id.slice(at + 1);
    const sight = SIGHTS[what];
    if (!sight) throw new RangeError(`the truth cannot answer ${id}`);
    return sight(this.bench, owner, this.chance, this.hidden);
  }
}

type Sight = (b: TrueRig, owner: string, chance: Chance, hidden: Hidden) => string | Readonly<Record<string, number>>;

const yesNo = (chance: Chance, share: number): string => (chance.happens(share) ? 'yes' : 'no');
/** Seen with this chance where it is so, imagined with that where not. */
const seen =
  (what: string, so: number, not: number): Sight =>
  (b, owner, chance, hidden) =>
    yesNo(chance, (FINDS[what]?.(b, owner, hidden) ?? 0) > 0 ? so : not);
const clicks: Sight = (b, _owner, chance) => yesNo(chance, b.contacts.get('link.contact')?.closed ? 0.94 : 0.03);
const lamp =
  (point: string): Sight =>
  (b, _owner, chance, hidden) => {
    const volts = FINDS['lamp']!(b, point, hidden);
    if (chance.happens(0.02)) return 'dim';
    return volts > 10.3 ? 'bright' : volts > 4 ? 'dim' : 'dark';
  };

/** How each question is answered. Chances are the truth's own, not the product's. */
const SIGHTS: Readonly<Record<string, Sight>> = {
  'click-boost': clicks,
  'click-running': clicks,
  'status-lamp': (b, owner, chance, hidden) => {
    if (FINDS['dead']!(b, owner, hidden) > 0) return chance.happens(0.85) ? 'dark' : 'waiting';
    return FINDS['asks']!(b, owner, hidden) > 0 ? 'closed' : chance.happens(0.85) ? 'waiting' : 'dark';
  },
  wedge: seen('wedged', 0.8, 0.03),
  'boost-fuse-seen-blown': seen('blown', 0.96, 0.01),
  'link-fuse-seen-blown': seen('blown', 0.96, 0.01),
  'bad-end': seen('bad-end', 0.7, 0.1),
  case: seen('swollen', 0.35, 0.09),
  'bms-says-off': seen('bms-off', 0.95, 0.02),
  'charger-dark': seen('dead', 0.75, 0.05),
  'profile-switches': seen('profile', 0.85, 0.04),
  'breaker-warm': seen('warm', 0.7, 0.08),
  'charge-lamp': (b, owner, chance, hidden) => yesNo(chance, FINDS['output']!(b, owner, hidden) < 0.05 ? 0.85 : 0.05),
  belt: (b, owner, chance, hidden) => yesNo(chance, FINDS['output']!(b, owner, hidden) < 0.4 ? 0.35 : 0.06),
  temperature: (b, owner, chance, hidden) => {
    const watts = FINDS['watts']!(b, owner, hidden);
    return { spot: 25 + watts * chance.between(2, 6) + 3 * chance.unit(), ambient: 25 };
  },
  'draws-at-rest': (_b, _owner, chance) => yesNo(chance, 0.12),
  continuity: (b, owner, chance, hidden) => ({
    ohms: Math.min(9e6, FINDS['ohms']!(b, owner, hidden)) + chance.between(0, 0.15),
  }),
  'coil-ohms': (b, owner, chance, hidden) => ({
    ohms: Math.min(9e6, FINDS['coil']!(b, owner, hidden)) * chance.between(0.98, 1.02),
  }),
  'module-swap': (b, owner, chance, hidden) => yesNo(chance, FINDS['helps']!(b, owner, hidden) > 0 ? 0.96 : 0.03),
  'bench-supply': (b, owner, chance, hidden) => {
    if (FINDS['dead']!(b, owner, hidden) > 0) return 'never';
    return chance.happens(0.95) ? 'label' : 'above';
  },
  'lamp-ignition': lamp('ignition.run'),
  'lamp-boost': lamp('boost.output'),
  'lamp-coil': lamp('link.coil-plus'),
  'load-test': (b, owner, chance, hidden) => ({
    volts: FINDS['load-test']!(b, owner, hidden) + 0.05 * chance.bell(),
    celsius: Math.round(b.celsius),
  }),
  gravity: (b, owner, chance, hidden) => {
    const low = FINDS['gravity-low']!(b, owner, hidden);
    const high = FINDS['gravity-high']!(b, owner, hidden);
    return { lowest: low - 0.006 * chance.unit(), highest: high + 0.006 * chance.unit() };
  },
};
