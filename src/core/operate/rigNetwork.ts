/**
 * A compiled rig at work: parameters, inputs, faults, contacts and choices in; volts and amps out. What
 * settling, and stepping through time, have in common.
 */
import { emptyValues, PORT_VALUES, type DeviceValues } from '../circuit/network';
import { Solver, type SolveOutcome } from '../circuit/solve';
import { parameterValues, type BoundExpression, type CompiledRig, type ModelExpression } from '../compile/compile';
import type { ControllerStep, Mode } from '../control/controller';
import type { OperatingInputs } from '../control/inputs';
import { solveWithConverters, type ConverterState } from './converters';
import { OPEN_CELL_OHMS, severityAt, type Effect } from './effects';
import { operatingState } from './states';

/** A point of the assumptions: z per parameter, and how severe the fault is (0…1 of its range). */
export interface Situation {
  z?: Float64Array;
  effects?: readonly Effect[];
  severity?: number;
}

/** °C of the air while one measures in the bay: what the parameters are stated for. */
const BAY_CELSIUS = 25;

export class RigNetwork {
  readonly solver: Solver;
  readonly values: DeviceValues;
  /** Per converter: what it takes, and whether its feed can carry it. */
  readonly converterStates: ConverterState[];
  inputs: OperatingInputs;
  /** °C of a part that is warmer than the air, by id: what its controller feels. */
  readonly warmth = new Map<string, number>();
  protected p: Float64Array;
  protected situation: Situation = {};
  private readonly closed = new Map<string, boolean>();
  private readonly chosen = new Map<string, string>();
  private readonly dead = new Set<string>();
  private readonly keys = new Map<string, Map<string, string>>();
  /** Arguments of a rule, by how many it takes: arrays that grow and shrink are slow. */
  private readonly scratch: number[][] = [];
  /** Rules whose value a contact or a choice decides, or that solving itself writes over. */
  private readonly switched: readonly number[];
  /** Those, and the ones a fault of this situation is put on top of. */
  private again: readonly number[] = [];
  /** What each controller is told, made once: its settings with its constants, and what it feels. */
  private readonly told: readonly { settings: Record<string, number>; inputs: Record<string, number> }[];

  constructor(readonly compiled: CompiledRig) {
    this.solver = new Solver(compiled.topology);
    this.values = emptyValues(compiled.topology);
    this.p = parameterValues(compiled);
    this.inputs = operatingState('rested').inputs;
    this.converterStates = compiled.converters.map(() => ({ amps: 0, collapsed: false }));
    const converterPorts = new Set(compiled.converters.flatMap((c) => [c.inPort, c.outPort]));
    this.switched = compiled.rules.flatMap((rule, r) =>
      rule.closedBy ||
      rule.choice !== undefined ||
      (rule.slot.array === 'deviceParams' && converterPorts.has(Math.floor(rule.slot.index / PORT_VALUES)))
        ? [r]
        : [],
    );
    this.told = compiled.controllers.map((c) => ({
      settings: { ...Object.fromEntries(c.settings.map((s) => [s.name, 0])), ...c.constants },
      inputs: { celsius: 0, mains: 0, sun: 0, held: 0 },
    }));
  }

  /** Starts over in a situation: every contact as with nothing switched on, every controller in its first mode. */
  begin(inputs: OperatingInputs, situation: Situation): Mode[] {
    this.situation = situation;
    this.inputs = inputs;
    this.p = parameterValues(this.compiled, situation.z);
    this.applyToParameters(this.p, situation.severity ?? 0.5);
    this.closed.clear();
    this.chosen.clear();
    this.dead.clear();
    for (const s of this.converterStates) s.amps = 0;
    this.again = this.switched;
    const effects = situation.effects ?? [];
    for (const e of effects) if (e.do === 'dead-controller') this.dead.add(e.part);
    const touched = effects.flatMap((e) => {
      const id = e.do === 'open-battery' ? `${e.part}.emf.ohms` : 'element' in e ? e.element : undefined;
      return id === undefined ? [] : (this.compiled.rule.get(id) ?? []);
    });
    if (touched.length > 0) this.again = [...new Set([...this.switched, ...touched])];
    return this.compiled.controllers.map((c) => ({ name: c.kind.initial, seconds: 0 }));
  }

  /** The present value of a parameter, faults included. */
  parameterNow(key: string): number {
    return this.p[this.compiled.param.get(key)!]!;
  }

  solve(): SolveOutcome {
    return solveWithConverters(this.solver, this.values, this.compiled.converters, this.converterStates, (rule) =>
      this.ruleValue(rule, this.p),
    );
  }

  /** One step of a controller on what it feels in the solved network; its outputs are not yet applied. */
  stepController(k: number, mode: Mode, dt: number): ControllerStep | undefined {
    const controller = this.compiled.controllers[k]!;
    if (this.dead.has(controller.part)) return undefined;
    const { settings, inputs } = this.told[k]!;
    for (const s of controller.settings) if (!(s.name in controller.constants)) settings[s.name] = this.p[s.param]!;
    const { leg } = this.inputs;
    inputs.celsius = this.warmth.get(controller.part) ?? leg?.celsius ?? BAY_CELSIUS;
    inputs.mains = Number(this.inputs.shore || this.inputs.generator);
    inputs.sun = leg ? leg.sun : Number(!this.inputs.covered);
    inputs.held = Number(leg?.held ?? false);
    for (const s of controller.senses) inputs[s.name] = this.solver.volts[s.red]! - this.solver.volts[s.black]!;
    for (const s of controller.amps) inputs[s.name] = this.solver.pushed(s.port);
    return controller.kind.step(mode, inputs, settings, dt);
  }

  /** Puts a controller's outputs into the network. True when any of them changed. */
  applyStep(k: number, step: ControllerStep): boolean {
    const { part } = this.compiled.controllers[k]!;
    let changed = false;
    for (const contact in step.closed) {
      const closed = step.closed[contact]!;
      const key = this.keyOf(part, contact);
      if ((this.closed.get(key) ?? false) === closed) continue;
      this.closed.set(key, closed);
      changed = true;
    }
    for (const name in step.chosen) {
      const pick = step.chosen[name]!;
      const key = this.keyOf(part, name);
      if (this.chosen.get(key) === pick) continue;
      this.chosen.set(key, pick);
      changed = true;
    }
    return changed;
  }

  /** `part/name`, put together once: a new string is hashed anew wherever it is looked up. */
  private keyOf(part: string, name: string): string {
    let keys = this.keys.get(part);
    if (!keys) this.keys.set(part, (keys = new Map()));
    let key = keys.get(name);
    if (key === undefined) keys.set(name, (key = `${part}/${name}`));
    return key;
  }

  private isClosed(by: NonNullable<ModelExpression['closedBy']>): boolean {
    return 'input' in by ? this.inputs[by.input] : (this.closed.get(by.contact) ?? false);
  }

  protected ruleValue(
    rule: BoundExpression & Pick<ModelExpression, 'closedBy'>,
    p: ArrayLike<number>,
    made = false,
  ): number {
    if (rule.closedBy && !made && !this.isClosed(rule.closedBy)) return Infinity;
    const { params } = rule;
    const args = (this.scratch[params.length] ??= new Array<number>(params.length).fill(0));
    for (let i = 0; i < params.length; i++) args[i] = p[params[i]!]!;
    return rule.value(args, this.inputs, rule.choice === undefined ? undefined : this.chosen.get(rule.choice));
  }

  /** What faults do to the rig's own numbers, before anything is worked out from them. */
  private applyToParameters(p: Float64Array, severity: number): void {
    for (const effect of this.situation.effects ?? []) {
      if (effect.do !== 'scale-param' && effect.do !== 'shift-param') continue;
      const i = this.compiled.param.get(effect.param);
      if (i === undefined) throw new Error(`fault effect names an unknown parameter ${effect.param}`);
      const size = severityAt(effect, severity);
      p[i] = effect.do === 'scale-param' ? p[i]! * size : p[i]! + size;
    }
  }

  /** Works every value out from parameters, inputs, contacts and faults. */
  writeValues(): void {
    const { rules } = this.compiled;
    for (let i = 0; i < rules.length; i++) this.writeValue(rules[i]!);
    this.applyEffects();
  }

  /** The same, where since then nothing changed but contacts, choices and what solving wrote. */
  rewriteValues(): void {
    const { rules } = this.compiled;
    for (const i of this.again) this.writeValue(rules[i]!);
    this.applyEffects();
  }

  private writeValue(rule: ModelExpression): void {
    this.values[rule.slot.array][rule.slot.index] = this.ruleValue(rule, this.p);
  }

  private applyEffects(): void {
    for (const effect of this.situation.effects ?? [])
      this.applyEffect(effect, this.values, this.situation.severity ?? 0.5);
  }

  private applyEffect(effect: Effect, values: DeviceValues, severity: number): void {
    const slotOf = (id: string) => {
      const index = this.compiled.rule.get(id);
      if (index === undefined) throw new Error(`fault effect names an unknown element ${id}`);
      return this.compiled.rules[index]!.slot;
    };
    switch (effect.do) {
      case 'open':
        values.resistorOhms[slotOf(effect.element).index] = Infinity;
        break;
      case 'stuck-closed': {
        const { index } = slotOf(effect.element);
        values.resistorOhms[index] = this.ruleValue(
          this.compiled.rules[this.compiled.rule.get(effect.element)!]!,
          this.p,
          true,
        );
        break;
      }
      case 'parallel-ohms': {
        const { index } = slotOf(effect.element);
        values.resistorOhms[index] = 1 / (1 / values.resistorOhms[index]! + 1 / severityAt(effect, severity));
        break;
      }
      case 'replace-ohms': {
        const { index } = slotOf(effect.element);
        // An open contact stays open: a worn one only counts when it is closed.
        if (Number.isFinite(values.resistorOhms[index]!)) values.resistorOhms[index] = severityAt(effect, severity);
        break;
      }
      case 'add-ohms': {
        const slot = slotOf(effect.element);
        values[slot.array][slot.index] = values[slot.array][slot.index]! + severityAt(effect, severity);
        break;
      }
      case 'open-battery':
        values.emfOhms[slotOf(`${effect.part}.emf.ohms`).index] = OPEN_CELL_OHMS;
        break;
      case 'shift-volts': {
        const slot = slotOf(effect.element);
        values[slot.array][slot.index] = values[slot.array][slot.index]! + severityAt(effect, severity);
        break;
      }
      case 'no-output':
        values.deviceParams[slotOf(effect.element).index] = 0;
        break;
      case 'dead-controller':
      case 'scale-param':
      case 'shift-param':
        break;
    }
  }
}
