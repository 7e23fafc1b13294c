/** What a rig document becomes: nodes, branches, parameters, rules. Checked against the document, never the compiler. */
import { describe, expect, it } from 'vitest';
import { VARIETY, motorhomeInWords, motorhomeOf } from '../../../tests/motorhomes';
import { smallPart, smallRig } from '../../../tests/smallRigs';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { COUPLED_FAMILIES } from '../rig/archetypes/coupledChoices';
import { motorhome } from '../rig/archetypes/motorhome';
import { partKind } from '../parts/kinds';
import type { Rig } from '../rig/schema';
import { wireResistance } from '../units/wire';
import { compileRig, METER_OHMS, parameterValues } from './compile';

const rigs: [string, Rig][] = [
  ...VARIETY.map((c): [string, Rig] => [motorhomeInWords(c), motorhome('t', 'T', c)]),
  ...COUPLED_FAMILIES.map(({ id }): [string, Rig] => [id, coupledRig('t', 'T', USUAL_COUPLED[id])]),
];
const STANDING = { engine: 'off', key: false } as never;

describe.each(rigs)('%s', (_, rig) => {
  const compiled = compileRig(rig);
  const { topology } = compiled;
  const named = (key: string) => compiled.node.get(key)!;

  it('has one node for each metal body, whatever bolts are on it, the one of reference first', () => {
    for (const ground of rig.grounds)
      expect(new Set(ground.points.map((p) => named(`${ground.id}.${p.id}`))).size).toBe(1);
    expect(named(`${rig.reference.part}.${rig.reference.terminal}`)).toBe(0);
    expect(new Set(rig.grounds.map((g) => named(`${g.id}.${g.points[0]!.id}`))).size).toBe(rig.grounds.length);
  });

  it('has a node for each terminal, each its own until something joins them', () => {
    const terminals = rig.parts.flatMap((p) => partKind(p.kind).terminals.map((t) => `${p.id}.${t.id}`));
    const nodes = terminals.map(named);
    expect(nodes.every((n) => Number.isInteger(n) && n > 0)).toBe(true);
    expect(new Set(nodes).size).toBe(terminals.length);
  });

  it('joins what a conductor joins, by its copper there and its two ends', () => {
    const values = parameterValues(compiled);
    for (const c of rig.conductors) {
      const branch = topology.resistors[compiled.resistor.get(c.id)!]!;
      expect([branch.a, branch.b]).toEqual([
        named(`${c.from.part}.${c.from.terminal}`),
        named(`${c.to.part}.${c.to.terminal}`),
      ]);
      const rule = compiled.rules[compiled.rule.get(c.id)!]!;
      const ohms = rule.value(
        rule.params.map((i) => values[i]!),
        STANDING,
      );
      expect(ohms).toBeCloseTo(wireResistance(c.gauge, c.length) + c.joints.value, 12);
      expect(compiled.ohmicLosses).toContain(compiled.resistor.get(c.id));
    }
    for (const b of rig.bonds) {
      const rule = compiled.rules[compiled.rule.get(b.id)!]!;
      expect(rule.value([b.resistance.value], STANDING)).toBe(b.resistance.value);
    }
  });

  it('knows every parameter of every part once, with its unit and what the document says of it', () => {
    expect(new Set(compiled.params.map((p) => p.key)).size).toBe(compiled.params.length);
    for (const part of rig.parts)
      for (const [name, spec] of Object.entries(partKind(part.kind).params)) {
        // A limit on a label is no number of the network.
        if (spec.ratingOnly) {
          expect(compiled.param.has(`${part.id}.${name}`)).toBe(false);
          continue;
        }
        const p = compiled.params[compiled.param.get(`${part.id}.${name}`)!]!;
        expect(p).toMatchObject({ unit: spec.unit, scale: spec.scale });
        expect(p.parameter).toEqual(part.params[name] ?? spec.default);
        expect(p.label).toBe(`${part.name}: ${spec.label}`);
      }
  });

  it('writes every value of the network by exactly one rule', () => {
    const slots = compiled.rules.map((r) => `${r.slot.array} ${r.slot.index}`);
    expect(new Set(slots).size).toBe(slots.length);
    const of = (array: string) => slots.filter((s) => s.startsWith(`${array} `)).length;
    expect(of('resistorOhms')).toBe(topology.resistors.length);
    expect(of('emfVolts')).toBe(topology.emfs.length);
    expect(of('emfOhms')).toBe(topology.emfs.length);
    for (const r of compiled.rules) for (const p of r.params) expect(compiled.params[p]).toBeDefined();
  });

  it('has a controller for each part that has one, sensing between nodes that are there', () => {
    for (const c of compiled.controllers) {
      expect(rig.parts.some((p) => p.id === c.part)).toBe(true);
      for (const s of c.senses) {
        expect(topology.nodeNames[s.red]).toBeDefined();
        expect(topology.nodeNames[s.black]).toBeDefined();
        expect(s.red).not.toBe(s.black);
      }
      for (const a of c.amps) expect(topology.ports[a.port]).toBeDefined();
      for (const s of c.settings) expect(compiled.params[s.param]!.key).toBe(`${c.part}.${s.name}`);
    }
  });

  it('ties each converter’s input to a port that takes and its output to one that gives', () => {
    for (const c of compiled.converters) {
      expect(topology.ports[c.inPort]!.kind).toBe('current');
      expect(topology.ports[c.outPort]!.kind).toBe('source');
    }
  });
});

describe('a compiled rig', () => {
  it('loads every terminal with a meter of 10 MΩ and nothing else of its own', () => {
    const compiled = compileRig(motorhomeOf());
    const meters = compiled.topology.resistors.filter((r) => r.id.startsWith('meter.'));
    const terminals = compiled.rig.parts.reduce((n, p) => n + partKind(p.kind).terminals.length, 0);
    expect(meters.length).toBe(terminals);
    for (const m of meters) {
      expect(m.b).toBe(0);
      expect(compiled.rules[compiled.rule.get(m.id)!]!.value([], STANDING)).toBe(10e6);
    }
    expect(METER_OHMS).toBe(10e6);
  });

  it('does not change with the order its document lists things in', () => {
    const rig = motorhomeOf({ link: 'dcdc', solar: true });
    const turned = {
      ...rig,
      parts: [...rig.parts].reverse(),
      conductors: [...rig.conductors].reverse(),
      grounds: [...rig.grounds].reverse(),
    };
    const [a, b] = [compileRig(rig), compileRig(turned)];
    const names = (c: typeof a) => c.topology.nodeNames.slice().sort();
    expect(names(b)).toEqual(names(a));
    expect(b.params.map((p) => p.key).sort()).toEqual(a.params.map((p) => p.key).sort());
    expect([...b.node.values()].filter((n) => n === 0).length).toBe([...a.node.values()].filter((n) => n === 0).length);
  });

  it('takes a kind’s usual figure where the document says nothing, and the document’s where it does', () => {
    const rig = smallRig(
      [smallPart('bank', 'battery-bank', 'coach', { capacity: 77 }, { chemistry: 'agm' })],
      [['bank.minus', 'frame.bolt', 0.001]],
    );
    const bare = { ...rig, parts: rig.parts.map((p) => ({ ...p, params: { capacity: p.params['capacity']! } })) };
    const compiled = compileRig(bare);
    const value = (name: string) => compiled.params[compiled.param.get(`bank.${name}`)!]!.parameter;
    expect(value('capacity').value).toBe(77);
    expect(value('soc')).toEqual(partKind('battery-bank').params['soc']!.default);
  });

  it('at a point of its assumptions moves a ratio by a factor, an offset by a step, and what is sure not at all', () => {
    const compiled = compileRig(motorhomeOf());
    const [at0, up, down] = [0, 1, -1].map((z) =>
      parameterValues(
        compiled,
        Float64Array.from(compiled.params, () => z),
      ),
    ) as [Float64Array, Float64Array, Float64Array];
    expect(parameterValues(compiled)).toEqual(at0);
    compiled.params.forEach(({ scale, parameter }, i) => {
      expect(at0[i]).toBe(parameter.value);
      if (parameter.spread === 0) expect([up[i], down[i]]).toEqual([parameter.value, parameter.value]);
      else if (scale === 'offset') {
        expect(up[i]! - at0[i]!).toBeCloseTo(parameter.spread, 12);
        expect(at0[i]! - down[i]!).toBeCloseTo(parameter.spread, 12);
      } else if (parameter.value !== 0) {
        // The same factor up as down: a resistance is never negative.
        expect(up[i]! / at0[i]!).toBeCloseTo(at0[i]! / down[i]!, 9);
        expect(up[i]!).toBeGreaterThan(at0[i]!);
      }
    });
  });
});
