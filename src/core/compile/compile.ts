/**
 * From a rig document to one electrical model.
 *
 * Every terminal of every part is a node (so a lead can go there), every ground is one node, every conductor
 * and bond a resistance between two. The document's uncertain parameters become one vector z of independent
 * standard normals; each element's value is a rule over the parameters, so that a sensitivity to z is the
 * network's sensitivity to the value times the rule's slope.
 */
import { DEVICE_PARAMS, deviceIndex, type DeviceKind, type DeviceParamName } from '../circuit/devices';
import type { ValueSlot } from '../circuit/injections';
import type { Topology } from '../circuit/network';
import type { InputSwitch, OperatingInputs } from '../control/inputs';
import type { ControllerKind } from '../control/controller';
import { nominalOf, partKind, partOptions } from '../parts/kinds';
import type {
  ParameterChoice,
  ClosedBy,
  ControllerWiring,
  ElementSpec,
  PartContext,
  PartKind,
  ElementValue,
} from '../parts/part';
import type { Endpoint, Rig } from '../rig/schema';
import { parameterAt, type Parameter, type Scale } from '../units/parameter';
import { wireResistance } from '../units/wire';

/** A meter in volts: 10 MΩ from each point to the reference (common practice for handheld meters). */
export const METER_OHMS = 10e6;

/** Lengths are paced and gauges read off a jacket: copper strays by this share, one standard deviation. From memory. */
const COPPER_SPREAD = 0.2;

export interface ModelParameter {
  /** `part.name`, `conductor.joints` or `bond.resistance`. */
  key: string;
  label: string;
  unit: string;
  scale: Scale;
  parameter: Parameter;
}

export interface ModelExpression {
  /** Element id plus which of its values, for the working shown to a user. */
  id: string;
  slot: ValueSlot;
  /** Indices into the parameter vector. */
  params: readonly number[];
  value(p: readonly number[], inputs: OperatingInputs, chosen?: string): number;
  /** Present on contacts (open means Infinity): `contact` is `part/contact` of the controller that closes it. */
  closedBy?: { input: InputSwitch } | { contact: string };
  /** `part/choice` whose present pick the value goes by. */
  choice?: string;
}

/** A rule that is no value of the network itself. */
export type BoundExpression = Omit<ModelExpression, 'slot' | 'closedBy'>;

/** A converter: two ports of the network and what ties them. */
export interface ModelConverter {
  part: string;
  /** Port of the input (kind `current`) and of the output (kind `source`). */
  inPort: number;
  outPort: number;
  efficiency: BoundExpression;
  inLimit: BoundExpression;
  idle: BoundExpression;
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
  rules: readonly ModelExpression[];
  controllers: readonly ModelController[];
  converters: readonly ModelConverter[];
  /** Resistors that are copper, joints, bonds and main contacts: what is lost in them is loss. */
  ohmicLosses: readonly number[];
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

const closerOf = (part: string, by: ClosedBy): NonNullable<ModelExpression['closedBy']> =>
  'input' in by ? by : { contact: `${part}/${by.controller}` };

export const endpointKey = (e: Endpoint): string => `${e.part}.${e.terminal}`;

/** The model of a rig while it is put together. */
class Assembly {
  readonly topology: Topology = { nodeNames: [], resistors: [], emfs: [], ports: [] };
  readonly params: ModelParameter[] = [];
  readonly param = new Map<string, number>();
  readonly rules: ModelExpression[] = [];
  readonly resistor = new Map<string, number>();
  readonly port = new Map<string, number>();
  readonly node = new Map<string, number>();
  readonly controllers: ModelController[] = [];
  readonly converters: ModelConverter[] = [];
  readonly ohmicLosses: number[] = [];

  addNode(name: string): number {
    return this.topology.nodeNames.push(name) - 1;
  }
  addParam(p: ModelParameter): number {
    this.param.set(p.key, this.params.length);
    return this.params.push(p) - 1;
  }
  addResistor(id: string, a: number, b: number): number {
    this.resistor.set(id, this.topology.resistors.length);
    return this.topology.resistors.push({ id, a, b }) - 1;
  }
  addPort(id: string, kind: DeviceKind, plus: number, minus: number): number {
    this.port.set(id, this.topology.ports.length);
    return this.topology.ports.push({ id, kind, plus, minus }) - 1;
  }
  /** A resistance in the copper, joints and bonds: a wire or a strap. */
  addMetal(id: string, a: number, b: number, param: number, ohms: (p: number) => number): void {
    const index = this.addResistor(id, a, b);
    this.ohmicLosses.push(index);
    this.rules.push({
      id,
      slot: { array: 'resistorOhms', index },
      params: [param],
      value: ([p]) => ohms(p!),
    });
  }
  /** A number of a nonlinear element. */
  addDeviceRule<K extends DeviceKind>(
    id: string,
    kind: K,
    port: number,
    name: DeviceParamName<K>,
    rule: Omit<BoundExpression, 'id'>,
  ): void {
    const index = deviceIndex(kind, port, name);
    this.rules.push({ id: `${id}.${name}`, slot: { array: 'deviceParams', index }, ...rule });
  }
}

/** A part being compiled: its nodes, and its rules bound to its own parameters. */
interface PartAssembly {
  id: string;
  kind: PartKind;
  at(terminal: string): number;
  bind(value: ElementValue): Omit<BoundExpression, 'id'>;
}

/** Compiles a rig that has passed schema and checkRig. */
export function compileRig(rig: Rig): CompiledRig {
  const model = new Assembly();
  // The ground that holds the reference point is node 0.
  const grounds = [...rig.grounds].sort(
    (a, b) => Number(b.id === rig.reference.part) - Number(a.id === rig.reference.part),
  );
  for (const ground of grounds) {
    const n = model.addNode(ground.id);
    for (const point of ground.points) model.node.set(`${ground.id}.${point.id}`, n);
  }
  for (const part of rig.parts) compilePart(model, rig, part);
  compileMetal(model, rig);
  const { topology, params, rules, controllers, ohmicLosses, converters, port, node, resistor, param } = model;
  return {
    rig,
    topology,
    params,
    rules,
    controllers,
    ohmicLosses,
    converters,
    port,
    node,
    resistor,
    rule: new Map(rules.map((r, i) => [r.id, i])),
    param,
  };
}

/** A part's terminals, parameters, elements and controller. */
function compilePart(model: Assembly, rig: Rig, part: Rig['parts'][number]): void {
  const kind = partKind(part.kind);
  const local = new Map<string, number>();
  for (const terminal of kind.terminals) {
    const key = `${part.id}.${terminal.id}`;
    const n = model.addNode(key);
    model.node.set(key, n);
    local.set(terminal.id, n);
    const index = model.addResistor(`meter.${key}`, n, 0);
    model.rules.push({
      id: `meter.${key}`,
      slot: { array: 'resistorOhms', index },
      params: [],
      value: () => METER_OHMS,
    });
  }
  for (const inner of kind.inner ?? []) local.set(inner, model.addNode(`${part.id}:${inner}`));
  for (const [name, spec] of Object.entries(kind.params)) {
    if (spec.ratingOnly) continue;
    model.addParam({
      key: `${part.id}.${name}`,
      label: `${part.name}: ${spec.label}`,
      unit: spec.unit,
      scale: spec.scale,
      // What the document does not state is the kind's usual figure, assumed.
      parameter: part.params[name] ?? spec.default,
    });
  }
  const context: PartContext = {
    options: partOptions(kind, part),
    nominal: nominalOf(
      part,
      rig.vehicles.find((v) => v.id === part.vehicle)!,
    ),
  };
  const paramIndex = (name: string) => model.param.get(`${part.id}.${name}`)!;
  // What a part is bolted to or returns by without a wire of its own: the first ground of its vehicle.
  const ground = rig.grounds.find((g) => g.vehicle === part.vehicle) ?? rig.grounds[0];
  const metal = ground ? model.node.get(`${ground.id}.${ground.points[0]!.id}`)! : 0;
  const assembly: PartAssembly = {
    id: part.id,
    kind,
    at: (terminal) => local.get(terminal) ?? metal,
    bind: (value) =>
      'by' in value
        ? bindChoice(value, part.id, paramIndex, context)
        : { params: value.params.map(paramIndex), value: (p, inputs) => value.value(p, inputs, context) },
  };
  for (const element of kind.elements) compileElement(model, assembly, element);
  const wiring = kind.controller?.(context);
  if (wiring) model.controllers.push(compileController(model, assembly, wiring));
}

/** One element between a part's terminals. */
function compileElement(model: Assembly, part: PartAssembly, e: ElementSpec): void {
  const { at, bind, kind } = part;
  const id = `${part.id}.${e.id}`;
  switch (e.kind) {
    case 'resistor':
    case 'contact': {
      const index = model.addResistor(id, at(e.a), at(e.b));
      if (kind.role === 'inline' || (kind.role === 'link' && e.kind === 'contact')) model.ohmicLosses.push(index);
      model.rules.push({
        id,
        slot: { array: 'resistorOhms', index },
        ...bind(e.ohms),
        ...(e.kind === 'contact' ? { closedBy: closerOf(part.id, e.closedBy) } : {}),
      });
      return;
    }
    case 'emf': {
      const index = model.topology.emfs.push({ id, plus: at(e.plus), minus: at(e.minus) }) - 1;
      model.rules.push({ id: `${id}.volts`, slot: { array: 'emfVolts', index }, ...bind(e.volts) });
      model.rules.push({ id: `${id}.ohms`, slot: { array: 'emfOhms', index }, ...bind(e.ohms) });
      return;
    }
    case 'converter': {
      const inPort = model.addPort(`${id}.input`, 'current', at(e.inPlus), at(e.inMinus));
      // The round in operate/converters.ts writes what it takes; until then nothing.
      model.rules.push({
        id: `${id}.input`,
        slot: { array: 'deviceParams', index: deviceIndex('current', inPort, 'amps') },
        params: [],
        value: () => 0,
      });
      const outPort = model.addPort(id, 'source', at(e.outPlus), at(e.outMinus));
      for (const name of DEVICE_PARAMS.source) model.addDeviceRule(id, 'source', outPort, name, bind(e[name]));
      const tied = (name: 'efficiency' | 'inLimit' | 'idle') => ({ id: `${id}.${name}`, ...bind(e[name]) });
      model.converters.push({
        part: part.id,
        inPort,
        outPort,
        efficiency: tied('efficiency'),
        inLimit: tied('inLimit'),
        idle: tied('idle'),
      });
      return;
    }
    case 'source': {
      const port = model.addPort(id, 'source', at(e.plus), at(e.minus));
      for (const name of DEVICE_PARAMS.source) model.addDeviceRule(id, 'source', port, name, bind(e[name]));
      return;
    }
    case 'overvoltage': {
      const port = model.addPort(id, 'overvoltage', at(e.plus), at(e.minus));
      for (const name of DEVICE_PARAMS.overvoltage) model.addDeviceRule(id, 'overvoltage', port, name, bind(e[name]));
      return;
    }
    case 'lamp': {
      const port = model.addPort(id, 'lamp', at(e.plus), at(e.minus));
      for (const name of DEVICE_PARAMS.lamp) model.addDeviceRule(id, 'lamp', port, name, bind(e[name]));
      return;
    }
    case 'diode': {
      const port = model.addPort(id, 'diode', at(e.cathode), at(e.anode));
      for (const name of DEVICE_PARAMS.diode) model.addDeviceRule(id, 'diode', port, name, bind(e[name]));
      return;
    }
  }
}

function compileController(model: Assembly, { id, at }: PartAssembly, wiring: ControllerWiring): ModelController {
  return {
    part: id,
    kind: wiring.kind,
    constants: wiring.constants ?? {},
    amps: Object.entries(wiring.amps ?? {}).map(([name, element]) => ({
      name,
      port: model.port.get(`${id}.${element}`)!,
    })),
    senses: Object.entries(wiring.senses).map(([name, [red, black]]) => ({ name, red: at(red), black: at(black) })),
    settings: wiring.settings.map((name) => ({ name, param: model.param.get(`${id}.${name}`)! })),
  };
}

/** Conductors and bonds. */
function compileMetal(model: Assembly, rig: Rig): void {
  const nodeAt = (e: Endpoint) => model.node.get(endpointKey(e))!;
  for (const c of rig.conductors) {
    const joints = model.addParam({
      key: `${c.id}.joints`,
      label: `${c.name}: end joints`,
      unit: 'ohm',
      scale: 'ratio',
      parameter: c.joints,
    });
    const copper = wireResistance(c.gauge, c.length);
    const asWritten = c.joints.value;
    // A wire whose joints are other than assumed was not looked at closely: its length and gauge stray along.
    const strays = asWritten > 0 && c.joints.spread > 0 ? COPPER_SPREAD / c.joints.spread : 0;
    model.addMetal(
      c.id,
      nodeAt(c.from),
      nodeAt(c.to),
      joints,
      (ohms) => (strays === 0 ? copper : copper * Math.pow(ohms / asWritten, strays)) + ohms,
    );
  }
  for (const b of rig.bonds) {
    const resistance = model.addParam({
      key: `${b.id}.resistance`,
      label: b.name,
      unit: 'ohm',
      scale: 'ratio',
      parameter: b.resistance,
    });
    model.addMetal(b.id, nodeAt(b.from), nodeAt(b.to), resistance, (ohms) => ohms);
  }
}

/** A choice takes the parameters of all its rules, each once: its slope by one must not be counted twice. */
function bindChoice(
  choice: ParameterChoice,
  part: string,
  paramIndex: (name: string) => number,
  context: PartContext,
): Omit<BoundExpression, 'id'> {
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
