/**
 * From a rig document to one electrical model.
 *
 * Every terminal of every part is a node (so a lead can go there), every ground is one node, every conductor
 * and bond a resistance between two. The document's uncertain parameters become one vector z of independent
 * standard normals; each element's value is a rule over the parameters, so that a sensitivity to z is the
 * network's sensitivity to the value times the rule's slope.
 */
import type { Topology } from '../circuit/network';
import type { OperatingInputs } from '../control/inputs';
import type { ControllerKind } from '../control/controller';
import { nominalOf, partKind, partOptions } from '../parts/kinds';
import type { Choice, ClosedBy, PartContext, Value } from '../parts/part';
import type { Endpoint, Rig } from '../rig/schema';
import { parameterAt, type Parameter, type Scale } from '../units/parameter';
import { wireResistance } from '../units/wire';

/** A meter in volts: 10 MΩ from each point to the reference (common practice for handheld meters). */
export const METER_OHMS = 10e6;

export interface ModelParameter {
  /** `part.name`, `conductor.joints` or `bond.resistance`. */
  key: string;
  label: string;
  unit: string;
  scale: Scale;
  parameter: Parameter;
}

/** Where a value lives in `Values`. */
export type Slot =
  | { array: 'resistorOhms'; index: number }
  | { array: 'emfVolts'; index: number }
  | { array: 'emfOhms'; index: number }
  | { array: 'port'; index: number };

export interface ModelRule {
  /** Element id plus which of its values, for the working shown to a user. */
  id: string;
  slot: Slot;
  /** Indices into the parameter vector. */
  params: readonly number[];
  value(p: readonly number[], inputs: OperatingInputs, chosen?: string): number;
  /** Present on contacts: open means Infinity. */
  closedBy?: ClosedBy & { part: string };
  /** `part/choice` whose present pick the value goes by. */
  choice?: string;
}

/** A rule that is no value of the network itself. */
export type BoundRule = Omit<ModelRule, 'slot' | 'closedBy'>;

/** A converter: two ports of the network and what ties them. */
export interface ModelConverter {
  part: string;
  /** Port of the input (kind `current`) and of the output (kind `source`). */
  inPort: number;
  outPort: number;
  efficiency: BoundRule;
  inLimit: BoundRule;
  idle: BoundRule;
}

export interface ModelController {
  part: string;
  kind: ControllerKind;
  senses: readonly { name: string; red: number; black: number }[];
  amps: readonly { name: string; port: number }[];
  settings: readonly { name: string; param: number }[];
  constants: Readonly<Record<string, number>>;
}

export interface CompiledRig {
  rig: Rig;
  topology: Topology;
  params: readonly ModelParameter[];
  rules: readonly ModelRule[];
  controllers: readonly ModelController[];
  converters: readonly ModelConverter[];
  /** Resistors that are copper, joints, bonds and main contacts: what is lost in them is loss. */
  metal: readonly number[];
  /** Index of a port by element id. */
  port: ReadonlyMap<string, number>;
  /** Node of `part.terminal` or `ground.point`. */
  node: ReadonlyMap<string, number>;
  /** Index of a resistor by element id. */
  resistor: ReadonlyMap<string, number>;
  /** Index of a rule by id. */
  rule: ReadonlyMap<string, number>;
  /** Index of a parameter by key. */
  param: ReadonlyMap<string, number>;
}

export const endpointKey = (e: Endpoint): string => `${e.part}.${e.terminal}`;

/** Compiles a rig that has passed schema and checkRig. */
export function compileRig(rig: Rig): CompiledRig {
  const nodeNames: string[] = [];
  const node = new Map<string, number>();
  const addNode = (name: string) => nodeNames.push(name) - 1;

  // The ground that holds the reference point is node 0.
  const grounds = [...rig.grounds].sort(
    (a, b) => Number(b.id === rig.reference.part) - Number(a.id === rig.reference.part),
  );
  for (const ground of grounds) {
    const n = addNode(ground.id);
    for (const point of ground.points) node.set(`${ground.id}.${point.id}`, n);
  }

  const topology: Topology = { nodeNames, resistors: [], emfs: [], ports: [] };
  const params: ModelParameter[] = [];
  const param = new Map<string, number>();
  const rules: ModelRule[] = [];
  const resistor = new Map<string, number>();
  const controllers: ModelController[] = [];
  const converters: ModelConverter[] = [];
  const port = new Map<string, number>();
  const metal: number[] = [];

  const addParam = (p: ModelParameter) => {
    param.set(p.key, params.length);
    params.push(p);
    return params.length - 1;
  };
  const addResistor = (id: string, a: number, b: number) => {
    resistor.set(id, topology.resistors.length);
    return topology.resistors.push({ id, a, b }) - 1;
  };

  const addPort = (id: string, kind: Topology['ports'][number]['kind'], plus: number, minus: number) => {
    port.set(id, topology.ports.length);
    return topology.ports.push({ id, kind, plus, minus }) - 1;
  };

  for (const part of rig.parts) {
    const kind = partKind(part.kind);
    const local = new Map<string, number>();
    for (const terminal of kind.terminals) {
      const key = `${part.id}.${terminal.id}`;
      const n = addNode(key);
      node.set(key, n);
      local.set(terminal.id, n);
      const index = addResistor(`meter.${key}`, n, 0);
      rules.push({ id: `meter.${key}`, slot: { array: 'resistorOhms', index }, params: [], value: () => METER_OHMS });
    }
    for (const inner of kind.inner ?? []) local.set(inner, addNode(`${part.id}:${inner}`));
    for (const [name, spec] of Object.entries(kind.params)) {
      addParam({
        key: `${part.id}.${name}`,
        label: `${part.name}: ${spec.label}`,
        unit: spec.unit,
        scale: spec.scale,
        // What the document does not state is the kind's usual figure, assumed.
        parameter: part.params[name] ?? spec.default,
      });
    }
    const at = (terminal: string) => local.get(terminal)!;
    const context: PartContext = {
      options: partOptions(kind, part),
      nominal: nominalOf(
        part,
        rig.vehicles.find((v) => v.id === part.vehicle)!,
      ),
    };
    const paramIndex = (name: string) => param.get(`${part.id}.${name}`)!;
    const bind = (value: Value): Omit<BoundRule, 'id'> =>
      'by' in value
        ? bindChoice(value, part.id, paramIndex, context)
        : {
            params: value.params.map(paramIndex),
            value: (p, inputs) => value.value(p, inputs, context),
          };
    for (const e of kind.elements) {
      const id = `${part.id}.${e.id}`;
      if (e.kind === 'resistor' || e.kind === 'contact') {
        const index = addResistor(id, at(e.a), at(e.b));
        if (kind.role === 'inline' || (kind.role === 'link' && e.kind === 'contact')) metal.push(index);
        rules.push({
          id,
          slot: { array: 'resistorOhms', index },
          ...bind(e.ohms),
          ...(e.kind === 'contact' ? { closedBy: { ...e.closedBy, part: part.id } } : {}),
        });
      } else if (e.kind === 'emf') {
        const index = topology.emfs.push({ id, plus: at(e.plus), minus: at(e.minus) }) - 1;
        rules.push({ id: `${id}.volts`, slot: { array: 'emfVolts', index }, ...bind(e.volts) });
        rules.push({ id: `${id}.ohms`, slot: { array: 'emfOhms', index }, ...bind(e.ohms) });
      } else if (e.kind === 'converter') {
        const inPort = addPort(`${id}.input`, 'current', at(e.inPlus), at(e.inMinus));
        // The round in operate/converters.ts writes what it takes; until then nothing.
        rules.push({ id: `${id}.input`, slot: { array: 'port', index: inPort * 3 }, params: [], value: () => 0 });
        const outPort = addPort(id, 'source', at(e.outPlus), at(e.outMinus));
        (
          [
            ['volts', e.volts],
            ['ohms', e.ohms],
            ['limit', e.limit],
          ] as const
        ).forEach(([name, rule], k) =>
          rules.push({ id: `${id}.${name}`, slot: { array: 'port', index: outPort * 3 + k }, ...bind(rule) }),
        );
        const tied = (name: 'efficiency' | 'inLimit' | 'idle') => ({ id: `${id}.${name}`, ...bind(e[name]) });
        converters.push({
          part: part.id,
          inPort,
          outPort,
          efficiency: tied('efficiency'),
          inLimit: tied('inLimit'),
          idle: tied('idle'),
        });
      } else {
        const [plus, minus] = e.kind === 'diode' ? [e.cathode, e.anode] : [e.plus, e.minus];
        const index = addPort(id, e.kind, at(plus), at(minus));
        const three: [string, Value][] =
          e.kind === 'diode'
            ? [
                ['saturation', e.saturation],
                ['emission', e.emission],
              ]
            : e.kind === 'lamp'
              ? [
                  ['volts', e.volts],
                  ['watts', e.watts],
                ]
              : e.kind === 'source'
                ? [
                    ['volts', e.volts],
                    ['ohms', e.ohms],
                    ['limit', e.limit],
                  ]
                : [
                    ['i0', e.i0],
                    ['charging', e.charging],
                    ['discharging', e.discharging],
                  ];
        three.forEach(([name, rule], k) =>
          rules.push({ id: `${id}.${name}`, slot: { array: 'port', index: index * 3 + k }, ...bind(rule) }),
        );
      }
    }
    const wiring = kind.controller?.(context);
    if (wiring) {
      const { kind: controller, senses, amps, settings, constants } = wiring;
      controllers.push({
        part: part.id,
        kind: controller,
        constants: constants ?? {},
        amps: Object.entries(amps ?? {}).map(([name, element]) => ({ name, port: port.get(`${part.id}.${element}`)! })),
        senses: Object.entries(senses).map(([name, [red, black]]) => ({ name, red: at(red), black: at(black) })),
        settings: settings.map((name) => ({ name, param: param.get(`${part.id}.${name}`)! })),
      });
    }
  }

  for (const c of rig.conductors) {
    const joints = addParam({
      key: `${c.id}.joints`,
      label: `${c.name}: end joints`,
      unit: 'ohm',
      scale: 'ratio',
      parameter: c.joints,
    });
    const copper = wireResistance(c.gauge, c.length);
    const index = addResistor(c.id, node.get(endpointKey(c.from))!, node.get(endpointKey(c.to))!);
    metal.push(index);
    rules.push({
      id: c.id,
      slot: { array: 'resistorOhms', index },
      params: [joints],
      value: ([ohms]) => copper + ohms!,
    });
  }
  for (const b of rig.bonds) {
    const p = addParam({
      key: `${b.id}.resistance`,
      label: b.name,
      unit: 'ohm',
      scale: 'ratio',
      parameter: b.resistance,
    });
    const index = addResistor(b.id, node.get(endpointKey(b.from))!, node.get(endpointKey(b.to))!);
    metal.push(index);
    rules.push({ id: b.id, slot: { array: 'resistorOhms', index }, params: [p], value: ([ohms]) => ohms! });
  }

  return {
    rig,
    topology,
    params,
    rules,
    controllers,
    metal,
    converters,
    port,
    node,
    resistor,
    rule: new Map(rules.map((r, i) => [r.id, i])),
    param,
  };
}

/** A choice takes the parameters of all its rules, each once: its slope by one must not be counted twice. */
function bindChoice(
  choice: Choice,
  part: string,
  paramIndex: (name: string) => number,
  context: PartContext,
): Omit<BoundRule, 'id'> {
  const names = Object.keys(choice.of);
  const used = [...new Set(names.flatMap((name) => choice.of[name]!.params))];
  const from = new Map(
    names.map((name) => [name, { rule: choice.of[name]!, at: choice.of[name]!.params.map((p) => used.indexOf(p)) }]),
  );
  return {
    params: used.map(paramIndex),
    choice: `${part}/${choice.by}`,
    value: (p, inputs, chosen) => {
      // Before its controller has spoken a part goes by the first.
      const { rule, at } = from.get(chosen ?? names[0]!)!;
      return rule.value(
        at.map((i) => p[i]!),
        inputs,
        context,
      );
    },
  };
}

/** Parameter values at a point z of the assumptions (0 everywhere: as stated). */
export function parameterValues(compiled: CompiledRig, z?: ArrayLike<number>): Float64Array {
  return Float64Array.from(compiled.params, (p, i) => parameterAt(p.parameter, p.scale, z ? z[i]! : 0));
}
