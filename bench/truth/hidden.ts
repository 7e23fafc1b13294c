/**
 * What is wrong with a hidden rig: one row a kind, what it does to the true rig, and the ids of the product's faults
 * whose repair would cure it. Kinds outside the product's list cure by no row of it; sound rigs by none at all.
 */
import type { DocPart } from './document';
import { nominalOf, type TrueRig } from './trueRig';

export type Group = 'single' | 'outside' | 'pair' | 'sound';

export interface Hidden {
  kind: string;
  group: Group;
  /** Ids of the product's faults the verdict may name; of a pair, one list a half. */
  right: readonly (readonly string[])[];
  /** What the owner says, by the product's ids of complaints. */
  complaints: readonly string[];
  /** What questions about the rig are answered by: parts and wires that are bad, by id. */
  bad: readonly string[];
}

interface Kind {
  kind: string;
  says: readonly string[];
  /** Does it to the rig and names what cures it; undefined where the rig has no such thing. */
  make(v: TrueRig): { right: readonly string[]; bad: readonly string[] } | undefined;
}

const part = (v: TrueRig, kind: string, test: (p: DocPart) => boolean = () => true) =>
  v.rig.parts.find((p) => p.kind === kind && test(p));
const wire = (v: TrueRig, from: string | undefined, terminal: string) =>
  v.rig.conductors.find((c) => c.from.part === from && c.from.terminal === terminal);
const one = (...ids: string[]) => ({ right: ids, bad: ids.map((id) => id.split('.')[0]!) });

const MODULES = ['ignition-delay-module', 'voltage-link-module', 'bidirectional-module'];
const moduleOf = (v: TrueRig) => v.rig.parts.find((p) => MODULES.includes(p.kind));
const coach = (v: TrueRig) => part(v, 'battery-bank', (p) => p.id === 'coach-bank');
const chassis = (v: TrueRig) => part(v, 'battery-bank', (p) => p.id === 'chassis-bank');

const add = (v: TrueRig, id: string | undefined, ohms: number, fault: string) => {
  const r = id === undefined ? undefined : v.ohms.get(id);
  if (!r) return undefined;
  r.ohms += ohms;
  return one(`${id}.${fault}`);
};
const cut = (v: TrueRig, id: string | undefined, fault: string) => add(v, id, Infinity, fault);

const ROAD = ['coach-not-charging', 'slow-charging'] as const;

export const SINGLES: readonly Kind[] = [
  {
    kind: 'link fuse open',
    says: ['coach-not-charging'],
    make: (v) => {
      const p = part(v, 'link-fuse');
      return p && add(v, `${p.id}.element`, Infinity, 'open') && one(`${p.id}.open`);
    },
  },
  {
    kind: 'link fuse loose',
    says: ROAD,
    make: (v) => {
      const p = part(v, 'link-fuse');
      return p && add(v, `${p.id}.element`, v.chance.decades(0.012, 0.12), 'loose') && one(`${p.id}.loose`);
    },
  },
  {
    kind: 'contact burned open',
    says: ['coach-not-charging'],
    make: (v) => {
      const p = part(v, 'link-solenoid');
      if (!p) return undefined;
      v.contacts.get(`${p.id}.contact`)!.open = true;
      return one(`${p.id}.contact-open`);
    },
  },
  {
    kind: 'contact worn',
    says: ROAD,
    make: (v) => {
      const p = part(v, 'link-solenoid');
      if (!p) return undefined;
      v.contacts.get(`${p.id}.contact`)!.ohms += v.chance.decades(0.012, 0.12);
      return one(`${p.id}.contact-high`);
    },
  },
  {
    kind: 'contact welded',
    says: ['link-always-on', 'both-flat', 'chassis-flat'],
    make: (v) => {
      const p = part(v, 'link-solenoid');
      if (!p) return undefined;
      v.contacts.get(`${p.id}.contact`)!.welded = true;
      return one(`${p.id}.welded`);
    },
  },
  {
    kind: 'coil open',
    says: ['coach-not-charging'],
    make: (v) => {
      const p = part(v, 'link-solenoid');
      return p && add(v, `${p.id}.coil`, Infinity, '') && one(`${p.id}.coil-open`);
    },
  },
  {
    kind: 'coil ground lost',
    says: ['coach-not-charging'],
    make: (v) => cut(v, wire(v, part(v, 'link-solenoid')?.id, 'coil-minus')?.id, 'ground-lost'),
  },
  {
    kind: 'coil feed broken',
    says: ['coach-not-charging'],
    make: (v) => cut(v, wire(v, moduleOf(v)?.id, 'output')?.id, 'broken'),
  },
  {
    kind: 'module dead',
    says: ['coach-not-charging'],
    make: (v) => {
      const m = moduleOf(v);
      if (!m) return undefined;
      v.marks.add(`${m.id}.dead`);
      return one(`${m.id}.dead`);
    },
  },
  {
    kind: 'module ground lost',
    says: ['coach-not-charging'],
    make: (v) => cut(v, wire(v, moduleOf(v)?.id, 'ground')?.id, 'module-ground'),
  },
  {
    kind: 'boost fuse blown',
    says: ['boost-dead'],
    make: (v) => {
      const p = part(v, 'boost-switch');
      return p && add(v, `${p.id}.fuse`, Infinity, '') && one(`${p.id}.fuse-blown`);
    },
  },
  {
    kind: 'boost switch open',
    says: ['boost-dead'],
    make: (v) => {
      const p = part(v, 'boost-switch');
      if (!p) return undefined;
      v.contacts.get(`${p.id}.contact`)!.open = true;
      return one(`${p.id}.switch-open`);
    },
  },
  {
    kind: 'ignition feed missing',
    says: ['coach-not-charging'],
    // A charger calls the same wire its enable: one wire, one repair, by either name.
    make: (v) => {
      const w = wire(v, part(v, 'ignition-switch')?.id, 'run');
      return w && cut(v, w.id, 'missing') && { right: [`${w.id}.missing`, `${w.id}.not-enabled`], bad: [w.id] };
    },
  },
  {
    kind: 'coach ground bad',
    says: [...ROAD, 'shore-not-charging', 'house-dead'],
    make: (v) => add(v, wire(v, coach(v)?.id, 'minus')?.id, v.chance.decades(0.03, 0.4), 'bad-joint'),
  },
  {
    kind: 'chassis ground bad',
    says: ['chassis-not-charging', 'chassis-flat'],
    make: (v) => add(v, wire(v, chassis(v)?.id, 'minus')?.id, v.chance.decades(0.03, 0.3), 'bad-joint'),
  },
  {
    kind: 'frame splice corroded',
    says: ROAD,
    make: (v) =>
      add(v, v.ohms.has('frame-splice') ? 'frame-splice' : undefined, v.chance.decades(0.025, 0.35), 'bad-splice'),
  },
  {
    kind: 'coach bank sulfated',
    says: ['coach-short-life', 'slow-charging'],
    make: (v) => {
      const p = coach(v);
      if (!p || p.options?.['chemistry'] === 'lfp') return undefined;
      const times = v.chance.decades(6, 30);
      for (const b of v.batteries.get(p.id)!) b.worn *= times * v.chance.between(0.8, 1.2);
      return one(`${p.id}.sulphated`);
    },
  },
  {
    kind: 'one block weak',
    says: ['coach-short-life', 'coach-not-charging'],
    make: (v) => {
      const p = coach(v);
      if (!p || !(p.options?.['layout'] ?? '').startsWith('series')) return undefined;
      const lower = v.batteries.get(p.id)![1]!;
      lower.filled = v.chance.between(0.03, 0.12);
      if (v.chance.happens(0.5)) lower.deadCells = v.chance.between(0.25, 0.7);
      lower.worn *= v.chance.between(1.5, 4);
      return one(`${p.id}.weak-block`, `${p.id}.shorted-cell`, `${p.id}.open-cell`);
    },
  },
  {
    kind: 'chassis battery worn',
    says: ['chassis-flat'],
    make: (v) => {
      const p = chassis(v);
      if (!p) return undefined;
      const times = v.chance.decades(6, 30);
      for (const b of v.batteries.get(p.id)!) b.worn *= times;
      return one(`${p.id}.sulphated`);
    },
  },
  {
    kind: 'alternator dead',
    says: ['chassis-not-charging', 'coach-not-charging', 'chassis-flat'],
    make: (v) => {
      const p = part(v, 'alternator')!;
      v.alternators.get(p.id)!.strength = 0;
      return one(`${p.id}.no-output`, `${p.id}.link-open`);
    },
  },
  {
    kind: 'alternator weak',
    says: ['chassis-not-charging', 'slow-charging', 'coach-not-charging'],
    make: (v) => {
      const p = part(v, 'alternator')!;
      v.alternators.get(p.id)!.strength = v.chance.between(0.08, 0.3);
      return one(`${p.id}.weak`, `${p.id}.diode-shorted`);
    },
  },
  {
    kind: 'regulator low',
    says: ['slow-charging', 'chassis-not-charging', 'coach-not-charging'],
    make: (v) => {
      const p = part(v, 'alternator')!;
      v.alternators.get(p.id)!.shift = -v.chance.between(0.7, 1.5);
      return one(`${p.id}.set-point-low`);
    },
  },
  {
    kind: 'shore charger dead',
    says: ['shore-not-charging'],
    make: (v) => {
      const p = part(v, 'shore-charger');
      if (!p) return undefined;
      v.marks.add(`${p.id}.dead`);
      return one(`${p.id}.no-output`);
    },
  },
  {
    kind: 'disconnect open',
    says: ['house-dead', 'shore-not-charging'],
    make: (v) => {
      const p = part(v, 'disconnect');
      if (!p) return undefined;
      v.contacts.get(`${p.id}.contact`)!.open = true;
      return one(`${p.id}.open`);
    },
  },
  {
    kind: 'lug on the coach cable bad',
    says: ROAD,
    make: (v) =>
      add(v, wire(v, part(v, 'link-solenoid')?.id, 'coach-stud')?.id, v.chance.decades(0.015, 0.18), 'bad-lug'),
  },
  {
    kind: 'lug on the alternator cable bad',
    says: ['chassis-not-charging', ...ROAD],
    make: (v) => add(v, wire(v, part(v, 'alternator')?.id, 'output')?.id, v.chance.decades(0.015, 0.18), 'bad-lug'),
  },
  {
    kind: 'parasitic load',
    says: ['chassis-flat'],
    make: (v) => {
      const p = part(v, 'chassis-loads');
      if (!p) return undefined;
      v.join('parasite', `${p.id}.plus`, `${p.id}.minus`, v.chance.decades(8, 45) * (nominalOf(v.rig, p) / 12));
      return one(`${p.id}.parasitic`);
    },
  },
  {
    kind: 'charge pin corroded',
    says: ROAD,
    make: (v) => {
      const p = part(v, 'tow-connector');
      if (!p) return undefined;
      v.contacts.get(`${p.id}.pin`)!.ohms += v.chance.decades(0.12, 0.9);
      return one(`${p.id}.pin-corroded`);
    },
  },
  {
    kind: 'ground pin corroded',
    says: ROAD,
    make: (v) => {
      const p = part(v, 'tow-connector');
      if (!p) return undefined;
      v.contacts.get(`${p.id}.ground-pin`)!.ohms += v.chance.decades(0.12, 0.9);
      return one(`${p.id}.ground-pin-corroded`);
    },
  },
  {
    kind: 'breaker open',
    says: ['coach-not-charging'],
    make: (v) => {
      const p = part(v, 'line-breaker', (x) => x.id.startsWith('link'));
      if (!p) return undefined;
      v.contacts.get(`${p.id}.element`)!.open = true;
      return one(`${p.id}.tripped`);
    },
  },
  {
    kind: 'junction behind the plug corroded',
    says: ROAD,
    make: (v) =>
      add(v, wire(v, part(v, 'tow-connector')?.id, 'rear')?.id, v.chance.decades(0.12, 0.7), 'junction-corroded'),
  },
  {
    kind: 'charger dead',
    says: ['coach-not-charging'],
    make: (v) => {
      const p = part(v, 'dcdc-charger');
      if (!p) return undefined;
      v.marks.add(`${p.id}.dead`);
      return one(`${p.id}.dead`);
    },
  },
  {
    kind: 'charger negative missing',
    says: ['coach-not-charging'],
    make: (v) => cut(v, wire(v, part(v, 'dcdc-charger')?.id, 'ground')?.id, 'negative-missing'),
  },
  {
    kind: 'enable wire dead',
    says: ['coach-not-charging'],
    make: (v) => {
      const p = part(v, 'dcdc-charger');
      const w = v.rig.conductors.find((c) => c.to.part === p?.id && c.to.terminal === 'enable');
      return w && cut(v, w.id, 'not-enabled') && { right: [`${w.id}.not-enabled`, `${w.id}.missing`], bad: [w.id] };
    },
  },
  {
    kind: 'lamp blown',
    says: ['coach-not-charging'],
    make: (v) => {
      const p = part(v, 'diode-lamp');
      if (!p) return undefined;
      v.marks.add(`${p.id}.blown`);
      return one(`${p.id}.lamp-blown`);
    },
  },
];

/** Faults of no row of the product's; `right` are rows whose repair would cure it by chance all the same. */
export const OUTSIDE: readonly Kind[] = [
  {
    kind: 'module gives too little',
    says: ['coach-not-charging'],
    make: (v) => {
      const m = moduleOf(v);
      const c = m && [...v.contacts].find(([id]) => id.startsWith(`${m.id}.from-`))?.[1];
      if (!m || !c) return undefined;
      c.ohms += v.chance.between(14, 40);
      return { right: [`${m.id}.dead`, `${m.id}.weak-output`], bad: [m.id] };
    },
  },
  {
    kind: 'cable far too thin',
    says: ['slow-charging'],
    make: (v) => {
      const w = wire(v, part(v, 'link-solenoid')?.id, 'coach-stud');
      if (!w) return undefined;
      v.ohms.get(w.id)!.ohms *= v.chance.between(8, 16);
      return { right: [`${w.id}.too-thin`], bad: [] };
    },
  },
  {
    kind: 'plunger that will not pull',
    says: ['coach-not-charging', 'boost-dead'],
    make: (v) => {
      const p = part(v, 'link-solenoid');
      if (!p) return undefined;
      v.marks.add(`${p.id}.stiff`);
      return { right: [`${p.id}.pull-in-high`, `${p.id}.contact-open`], bad: [p.id] };
    },
  },
  {
    kind: 'clamp on the coach positive corroded',
    says: ROAD,
    make: (v) => {
      const p = coach(v)!;
      v.ohms.get(`${p.id}.post-plus`)!.ohms += v.chance.decades(0.03, 0.3);
      return { right: [`${p.id}.bad-clamp`], bad: [p.id] };
    },
  },
  {
    kind: 'clamp on the start battery corroded',
    says: ['chassis-flat', 'chassis-not-charging'],
    make: (v) => {
      const p = chassis(v)!;
      v.ohms.get(`${p.id}.post-plus`)!.ohms += v.chance.decades(0.03, 0.3);
      return { right: [`${p.id}.bad-clamp`], bad: [p.id] };
    },
  },
  {
    kind: 'jumper between strings corroded',
    says: ['coach-short-life'],
    make: (v) => {
      const r = v.ohms.get('coach-bank.jumper1');
      if (!r) return undefined;
      r.ohms += v.chance.decades(0.05, 0.6);
      return { right: ['coach-bank.sulphated', 'coach-bank.weak-block'], bad: ['coach-bank'] };
    },
  },
  {
    kind: 'a forgotten cable joins the banks',
    says: ['both-flat', 'link-always-on'],
    make: (v) => {
      if (!coach(v) || !chassis(v) || nominalOf(v.rig, coach(v)!) !== nominalOf(v.rig, chassis(v)!)) return undefined;
      v.join('forgotten', v.clampOf('chassis-bank.plus'), v.clampOf('coach-bank.plus'), v.chance.decades(0.02, 0.15));
      return { right: [], bad: [] };
    },
  },
];

/** Sound rigs whose owner complains. */
export const SOUND: readonly Kind[] = [
  {
    kind: 'used-up bank',
    says: ['coach-short-life', 'coach-not-charging'],
    make: (v) => fill(v, 'coach-bank', v.chance.between(0.12, 0.4)),
  },
  { kind: 'misunderstood delay', says: ['coach-not-charging', 'slow-charging'], make: () => ({ right: [], bad: [] }) },
  {
    kind: 'old within limits',
    says: ['slow-charging', 'coach-short-life', 'chassis-flat'],
    make: (v) => {
      for (const list of v.batteries.values()) for (const b of list) b.worn *= v.chance.between(1.3, 1.9);
      for (const [id, c] of v.contacts) if (id.startsWith('link.')) c.ohms = Math.max(c.ohms, 0.0018);
      return { right: [], bad: [] };
    },
  },
  {
    kind: 'stored without charge',
    says: ['chassis-flat', 'both-flat'],
    make: (v) => {
      fill(v, 'chassis-bank', v.chance.between(0.3, 0.55));
      return fill(v, 'coach-bank', v.chance.between(0.2, 0.5));
    },
  },
  {
    kind: 'charger idles on a full bank',
    says: ['shore-not-charging', 'slow-charging'],
    make: (v) => (part(v, 'shore-charger') ? fill(v, 'coach-bank', v.chance.between(0.96, 0.995)) : undefined),
  },
];

function fill(v: TrueRig, id: string, filled: number): { right: string[]; bad: string[] } | undefined {
  const list = v.batteries.get(id);
  if (!list) return undefined;
  for (const b of list) b.filled = Math.min(0.998, filled * v.chance.between(0.97, 1.03));
  // An empty bank is put right by charging it: to say so sells no part.
  return { right: filled < 0.6 ? [`${id}.flat`] : [], bad: [] };
}

/** Two that come together: by the names of their kinds. */
const PAIRS: readonly (readonly [string, string])[] = [
  ['coil ground lost', 'boost fuse blown'],
  ['link fuse loose', 'coach ground bad'],
  ['parasitic load', 'chassis battery worn'],
  ['coach bank sulfated', 'shore charger dead'],
  ['contact worn', 'coach ground bad'],
  ['charge pin corroded', 'ground pin corroded'],
  ['lug on the coach cable bad', 'frame splice corroded'],
];

/** Hides something of a group in a rig; undefined where this rig can have none such. */
export function hide(v: TrueRig, group: Group, kind?: string): Hidden | undefined {
  const { chance } = v;
  if (group === 'pair') {
    const [a, b] = PAIRS.find((p) => p.join(' + ') === kind) ?? chance.oneOf(PAIRS);
    const first = SINGLES.find((k) => k.kind === a)!;
    const second = SINGLES.find((k) => k.kind === b)!;
    const one = first.make(v);
    const two = second.make(v);
    if (!one || !two) return undefined;
    return {
      kind: `${a} + ${b}`,
      group,
      right: [one.right, two.right],
      complaints: [...new Set([said(v, first), said(v, second)])],
      bad: [...one.bad, ...two.bad],
    };
  }
  const rows = { single: SINGLES, outside: OUTSIDE, sound: SOUND }[group];
  const row = rows.find((k) => k.kind === kind) ?? chance.oneOf(rows);
  const made = row.make(v);
  return made && { kind: row.kind, group, right: [made.right], complaints: [said(v, row)], bad: made.bad };
}

const said = (v: TrueRig, row: Kind): string => v.chance.oneOf(row.says);

/** Names of all kinds of a group. */
export const kindsOf = (group: Group): string[] =>
  group === 'pair'
    ? PAIRS.map((p) => p.join(' + '))
    : { single: SINGLES, outside: OUTSIDE, sound: SOUND }[group].map((k) => k.kind);
