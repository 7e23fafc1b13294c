/**
 * The second form of truth: transient decks written for ngspice by hand, a paragraph a kind of part. Batteries are a
 * tank of charge with a Butler–Volmer pair of diodes and the double layer over it; alternators and chargers bend
 * into their limit by a logistic; contacts are switches with hysteresis. The circuit is solved by ngspice.
 */
import { key, written, type DocPart } from './document';
import type { SpiceRig } from './spiceRig';

type Lines = (s: SpiceRig, part: DocPart) => string[];

/** A node's name in a deck. */
export const node = (point: string): string => point.replaceAll(/[^a-z0-9]/gi, '_');

const at = (part: DocPart, terminal: string): string => node(`${part.id}.${terminal}`);

/** Something switched by hand: carries by the share its control node has. */
const handled = (id: string, a: string, b: string, control: string, ohms: number): string =>
  `B_${node(id)} ${a} ${b} I = V(${a},${b})*V(${control})/${ohms}`;

/** Half a bank, between two nodes. Volts of "12 V" by charge: a straight line, flat for iron phosphate. */
function half(s: SpiceRig, part: DocPart, n: number, a: string, b: string): string[] {
  const t = s.batteries.get(part.id)![n]!;
  const id = node(`${part.id}_${n}`);
  const share = t.rated / 12;
  const lfp = part.options?.['chemistry'] === 'lfp';
  const [empty, slope] = lfp ? [13.0, 0.35] : part.options?.['chemistry'] === 'flooded' ? [11.68, 1.04] : [11.82, 1.06];
  const base = t.cca > 0 ? 3.6 / t.cca : (lfp ? 0.55 : 0.9) / t.ah;
  const exchange = 0.0045 * t.ah;
  const kinetics = share * (lfp ? 0.15 : 1) * (1 + 0.1 * (t.worn - 1));
  return [
    `R_${id} ${a} x_${id} ${base * share * t.worn}`,
    `D_c${id} x_${id} y_${id} DC${id}`,
    `D_d${id} y_${id} x_${id} DD${id}`,
    `.model DC${id} D(IS=${exchange} N=${(0.17 * kinetics) / 0.025865} RS=0 CJO=0)`,
    `.model DD${id} D(IS=${exchange * 2} N=${(0.05 * kinetics) / 0.025865} RS=0 CJO=0)`,
    `C_${id} x_${id} y_${id} ${(4200 * exchange) / (0.17 * kinetics)} IC=0`,
    `B_${id} y_${id} z_${id} V = ${share}*(${empty}+${slope}*V(q_${id})) - ${2.05 * t.deadCells}`,
    `V_${id} z_${id} ${b} 0`,
    `F_${id} 0 q_${id} V_${id} 1`,
    `C_q${id} q_${id} 0 ${3600 * t.ah} IC=${t.filled}`,
  ];
}

const bank: Lines = (s, part) => {
  const strings = part.options?.['layout'] === 'series-parallel' ? 2 : 1;
  const lines: string[] = [];
  for (let k = 0; k < strings; k++) {
    const middle = k === 0 ? at(part, 'middle') : `${at(part, 'middle')}_${k}`;
    const top = k === 0 ? at(part, 'plus') : `${at(part, 'plus')}_${k}`;
    if (k > 0) lines.push(s.r(`${part.id}.jumper1`, at(part, 'plus'), top));
    lines.push(...half(s, part, 2 * k, top, middle), ...half(s, part, 2 * k + 1, middle, at(part, 'minus')));
  }
  for (const post of ['plus', 'minus'])
    lines.push(s.r(`${part.id}.post-${post}`, at(part, post), node(s.clampOf(`${part.id}.${post}`))));
  return lines;
};

/** Pushes amps into `plus` until its volts stand at its set-point. */
const source = (id: string, plus: string, minus: string, amps: string, set: number, soft: number): string =>
  `B_${id} ${minus} ${plus} I = (${amps})/(1+exp(min(60,max(-60,(V(${plus},${minus})-${set})/${soft}))))`;

const load =
  (control: string): Lines =>
  (_, part) => [
    `B_${node(part.id)} ${at(part, 'plus')} ${at(part, 'minus')} I = V(${at(part, 'plus')},${at(part, 'minus')})/12.6*V(${control})`,
  ];

export const SPICE_PARTS: Readonly<Record<string, Lines>> = {
  'battery-bank': bank,
  alternator: (s, part) => {
    const { strength, shift } = s.alternators.get(part.id)!;
    const most = 1.08 * written(part, 'fastLimit', 120) * strength;
    return [
      source(
        node(part.id),
        at(part, 'output'),
        at(part, 'case'),
        `${most}*V(c_rpm)`,
        s.figures.regulator + shift,
        s.figures.droop,
      ),
    ];
  },
  'shore-charger': (s, part) => {
    const most = s.marks.has(`${part.id}.dead`) ? 0 : written(part, 'limit', 45) * s.figures.charger;
    return [source(node(part.id), at(part, 'plus'), at(part, 'minus'), `${most}*V(c_mains)`, s.figures.shore, 0.05)];
  },
  'solar-charger': (s, part) => [
    source(node(part.id), at(part, 'plus'), at(part, 'minus'), `${s.figures.sun}*V(c_sun)`, 14.3, 0.05),
  ],
  'chassis-loads': load('c_chassis'),
  'house-loads': load('c_house'),
  'towed-car-loads': load('c_towed'),
  'link-fuse': (s, part) => [s.r(`${part.id}.element`, at(part, 'source'), at(part, 'load'))],
  'line-breaker': (s, part) => {
    const c = s.contacts.get(`${part.id}.element`)!;
    return [`R_${node(part.id)} ${at(part, 'source')} ${at(part, 'load')} ${c.open ? 1e9 : c.ohms}`];
  },
  disconnect: (s, part) => {
    const c = s.contacts.get(`${part.id}.contact`)!;
    return c.open ? [] : [handled(part.id, at(part, 'battery'), at(part, 'house'), 'c_disconnect', c.ohms)];
  },
  'tow-connector': (s, part) => [
    handled(`${part.id}p`, at(part, 'front'), at(part, 'rear'), 'c_coupled', s.contacts.get(`${part.id}.pin`)!.ohms),
    handled(
      `${part.id}g`,
      at(part, 'rear-ground'),
      at(part, 'front-ground'),
      'c_coupled',
      s.contacts.get(`${part.id}.ground-pin`)!.ohms,
    ),
  ],
  'ignition-switch': (s, part) => {
    const metal = s.rig.grounds[0]!;
    const ground = node(`${metal.id}.${metal.points[0]!.id}`);
    return [
      handled(part.id, at(part, 'feed'), at(part, 'run'), 'c_key', s.figures.ignitionOhms),
      `B_other ${at(part, 'run')} ${ground} I = V(${at(part, 'run')},${ground})*V(c_key)*${s.figures.others / 12}`,
    ];
  },
  'boost-switch': (s, part) => {
    const c = s.contacts.get(`${part.id}.contact`)!;
    const lines = [s.r(`${part.id}.fuse`, at(part, 'feed'), at(part, 'fused'))];
    return c.open ? lines : [...lines, handled(part.id, at(part, 'fused'), at(part, 'output'), 'c_boost', c.ohms)];
  },
  'link-solenoid': (s, part) => {
    const c = s.contacts.get(`${part.id}.contact`)!;
    const id = node(part.id);
    // It is the current that pulls: an open coil has volts and pulls nothing.
    const alive = Number.isFinite(s.ohms.get(`${part.id}.coil`)!.ohms) && !s.marks.has(`${part.id}.stiff`);
    const pulls = alive ? s.figures.pulls : 99;
    const off = c.welded ? c.ohms * 1.01 : 1e8;
    return [
      s.r(`${part.id}.coil`, at(part, 'coil-plus'), at(part, 'coil-minus')),
      `S_${id} ${at(part, 'chassis-stud')} ${at(part, 'coach-stud')} ${at(part, 'coil-plus')} ${at(part, 'coil-minus')} SW${id}`,
      `.model SW${id} SW(VT=${(pulls + 3.4) / 2} VH=${(pulls - 3.4) / 2} RON=${c.open && !c.welded ? 1e8 : c.ohms} ROFF=${off})`,
    ];
  },
  'ignition-delay-module': (s, part) => {
    const [ign, out, ground] = [at(part, 'ignition'), at(part, 'output'), at(part, 'ground')];
    const c = s.contacts.get(`${part.id}.from-ignition`)!;
    const dead = s.marks.has(`${part.id}.dead`);
    return [
      `R_sup ${ign} ${ground} 700`,
      `R_leak ${ign} ${out} ${s.figures.leak}`,
      `B_timer pre_t 0 V = ${dead ? 0 : `0.5*(1+tanh(4*(V(${ign},${ground})-7)))`}`,
      `R_timer pre_t tm 1000`,
      `C_timer tm 0 ${s.figures.delay / 693} IC=0`,
      // It forgets at once when the key goes off.
      `B_forget tm 0 I = V(tm)*0.5*(1-V(pre_t))`,
      `S_mod ${ign} ${out} tm 0 SWM`,
      `.model SWM SW(VT=0.48 VH=0.02 RON=${c.ohms} ROFF=1e9)`,
    ];
  },
};

/** The deck of a rig up to a time, with what was done to it as step functions; written out from a time on. */
export function deck(s: SpiceRig, from: number, until: number, lamp?: string): string {
  const lines = [
    '* a hidden rig',
    '.options rshunt=5e6 reltol=1e-4 abstol=1e-6 vntol=1e-5 method=gear trtol=60 cshunt=1e-6',
  ];
  for (const part of s.rig.parts) lines.push(...SPICE_PARTS[part.kind]!(s, part));
  for (const w of s.rig.conductors) lines.push(s.r(w.id, node(s.clampOf(key(w.from))), node(s.clampOf(key(w.to)))));
  for (const g of s.rig.grounds)
    g.points
      .slice(1)
      .forEach((p, i) =>
        lines.push(s.r(`${g.id}/${p.id}`, node(`${g.id}.${g.points[i]!.id}`), node(`${g.id}.${p.id}`))),
      );
  for (const b of s.rig.bonds) lines.push(s.r(b.id, node(key(b.from)), node(key(b.to))));
  for (const j of s.joined) lines.push(s.r(j.id, node(j.a), node(j.b)));
  lines.push(`V_reference ${node(key(s.rig.reference))} 0 0`);
  for (const [name, list] of s.controls()) lines.push(`V_${name} ${name} 0 PWL(${list})`);
  if (lamp !== undefined) lines.push(`R_lamp ${node(lamp)} 0 2.7`);
  lines.push(`.tran 20 ${until} ${from} 40 uic`, '.control', 'set filetype=ascii', 'run', 'write OUT', '.endc', '.end');
  return lines.join('\n');
}
