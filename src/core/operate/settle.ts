/**
 * From "what the rig is doing" to volts and amps: starts rested, applies the state's inputs, lets the
 * controllers run through the dwell, and solves. The model instance keeps one solver; results are read from
 * it before the next call.
 */
import { emptyValues, type Values } from '../circuit/network';
import { Solver } from '../circuit/solve';
import { parameterValues, type CompiledRig, type ModelRule } from '../compile/compile';
import type { Mode } from '../control/controller';
import type { OperatingInputs } from '../control/inputs';
import { parameterAt } from '../units/parameter';
import { OPEN_CELL_OHMS, severityAt, type Effect } from './effects';
import { operatingState } from './states';

const MAX_ROUNDS = 64;

/** A point of the assumptions: z per parameter, and how severe the fault is (0…1 of its range). */
export interface Situation {
  z?: Float64Array;
  effects?: readonly Effect[];
  severity?: number;
}

export interface Settled {
  modes: Record<string, { mode: string; why: string }>;
  /** Set when the controllers never came to rest: what they flipped between. */
  hunting?: readonly [Record<string, string>, Record<string, string>];
  /** False when the network has no operating point; the volts are then meaningless. */
  solved: boolean;
}

export class RigModel {
  readonly solver: Solver;
  readonly values: Values;
  inputs: OperatingInputs;
  private p: Float64Array;
  private situation: Situation = {};
  private readonly closed = new Map<string, boolean>();
  private readonly dead = new Set<string>();
  private readonly scratch: number[] = [];

  constructor(readonly compiled: CompiledRig) {
    this.solver = new Solver(compiled.topology);
    this.values = emptyValues(compiled.topology);
    this.p = parameterValues(compiled);
    this.inputs = operatingState('rested').inputs;
  }

  /** Settles the rig in an operating state. Volts are in `solver.volts`, element values in `values`. */
  settle(stateId: string, situation: Situation = {}): Settled {
    this.situation = situation;
    this.inputs = operatingState(stateId).inputs;
    this.p = parameterValues(this.compiled, situation.z);
    this.closed.clear();
    this.dead.clear();
    for (const e of situation.effects ?? []) if (e.do === 'dead-controller') this.dead.add(e.part);

    const { controllers } = this.compiled;
    let modes: Mode[] = controllers.map((c) => ({ name: c.kind.initial, seconds: 0 }));
    const why: string[] = controllers.map(() => '');
    let elapsed = 0;
    let dt = 0;
    let previous: string[] = [];
    for (let round = 0; round < MAX_ROUNDS; round++) {
      this.writeValues(this.values);
      if (!this.solver.solve(this.values).converged) return { modes: this.describe(modes, why), solved: false };
      let changed = false;
      let timer = Infinity;
      const next: Mode[] = [];
      for (let k = 0; k < controllers.length; k++) {
        const controller = controllers[k]!;
        if (changed) {
          // One change at a time: the others look again at the network it made.
          next.push({ name: modes[k]!.name, seconds: modes[k]!.seconds + dt });
          continue;
        }
        if (this.dead.has(controller.part)) {
          why[k] = 'does nothing';
          next.push(modes[k]!);
          continue;
        }
        const settings: Record<string, number> = {};
        for (const s of controller.settings) settings[s.name] = this.p[s.param]!;
        const inputs: Record<string, number> = {};
        for (const s of controller.senses) inputs[s.name] = this.solver.volts[s.red]! - this.solver.volts[s.black]!;
        const step = controller.kind.step(modes[k]!, inputs, settings, dt);
        next.push(step.mode);
        why[k] = step.why;
        if (step.timer !== undefined) timer = Math.min(timer, step.timer);
        for (const [contact, closed] of Object.entries(step.closed)) {
          const key = `${controller.part}/${contact}`;
          if ((this.closed.get(key) ?? false) !== closed) {
            this.closed.set(key, closed);
            changed = true;
          }
        }
      }
      previous = modes.map((m) => m.name);
      modes = next;
      dt = 0;
      if (changed) continue;
      if (elapsed + timer > this.inputs.dwell) return { modes: this.describe(modes, why), solved: true };
      dt = timer;
      elapsed += timer;
    }
    const name = (list: string[]) =>
      Object.fromEntries(controllers.map((c, k) => [c.part, list[k]!])) as Record<string, string>;
    return {
      modes: this.describe(modes, why),
      hunting: [name(previous), name(modes.map((m) => m.name))],
      solved: true,
    };
  }

  private describe(modes: readonly Mode[], why: readonly string[]): Settled['modes'] {
    return Object.fromEntries(
      this.compiled.controllers.map((c, k) => [c.part, { mode: modes[k]!.name, why: why[k]! }]),
    );
  }

  /** Whether a contact, by element id, is closed in the present round. */
  private isClosed(rule: ModelRule): boolean {
    const by = rule.closedBy!;
    if ('input' in by) return this.inputs[by.input];
    return this.closed.get(`${by.part}/${by.controller}`) ?? false;
  }

  private ruleValue(rule: ModelRule, p: ArrayLike<number>): number {
    if (rule.closedBy && !this.isClosed(rule)) return Infinity;
    this.scratch.length = 0;
    for (const i of rule.params) this.scratch.push(p[i]!);
    return rule.value(this.scratch, this.inputs);
  }

  private writeValues(values: Values): void {
    const { rules } = this.compiled;
    for (let i = 0; i < rules.length; i++) {
      const rule = rules[i]!;
      values[rule.slot.array][rule.slot.index] = this.ruleValue(rule, this.p);
    }
    for (const effect of this.situation.effects ?? []) this.applyEffect(effect, values, this.situation.severity ?? 0.5);
  }

  private applyEffect(effect: Effect, values: Values, severity: number): void {
    const slotOf = (id: string) => {
      const index = this.compiled.rule.get(id);
      if (index === undefined) throw new Error(`fault effect names an unknown element ${id}`);
      return this.compiled.rules[index]!.slot;
    };
    switch (effect.do) {
      case 'open':
        values.resistorOhms[slotOf(effect.element).index] = Infinity;
        break;
      case 'replace-ohms': {
        const { index } = slotOf(effect.element);
        // An open contact stays open: a worn one only counts when it is closed.
        if (Number.isFinite(values.resistorOhms[index]!)) values.resistorOhms[index] = severityAt(effect, severity);
        break;
      }
      case 'add-ohms': {
        const { index } = slotOf(effect.element);
        values.resistorOhms[index] = values.resistorOhms[index]! + severityAt(effect, severity);
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
        values.port[slotOf(effect.element).index] = 0;
        break;
      case 'dead-controller':
        break;
    }
  }

  /**
   * Slopes of the settled network's values by each z: for rule r and its k-th parameter, written to
   * `out[r][k]`. Controllers' modes are held.
   */
  ruleSlopes(out: Float64Array[]): void {
    const { rules, params } = this.compiled;
    const p = Float64Array.from(this.p);
    rules.forEach((rule, r) => {
      const row = out[r]!;
      rule.params.forEach((index, k) => {
        const { parameter, scale } = params[index]!;
        row[k] = 0;
        if (parameter.spread === 0) return;
        const keep = p[index]!;
        const h = scale === 'ratio' ? keep * parameter.spread * 1e-4 : parameter.spread * 1e-4;
        p[index] = keep + h;
        const up = this.ruleValue(rule, p);
        p[index] = keep - h;
        const down = this.ruleValue(rule, p);
        p[index] = keep;
        // dvalue/dz = dvalue/dp · dp/dz, and dp/dz is the spread (times the value on a ratio scale).
        if (Number.isFinite(up)) row[k] = ((up - down) / 2) * 1e4;
      });
    });
    this.maskOverridden(out);
  }

  /** A replaced value no longer follows its parameters. */
  private maskOverridden(out: Float64Array[]): void {
    for (const effect of this.situation.effects ?? []) {
      const id = effect.do === 'open-battery' ? `${effect.part}.emf.ohms` : 'element' in effect ? effect.element : null;
      if (id === null || effect.do === 'add-ohms' || effect.do === 'shift-volts') continue;
      out[this.compiled.rule.get(id)!]!.fill(0);
    }
  }

  /** d(values)/d(severity) of the settled network, by central difference, into `out`. */
  severitySlopes(out: Values): void {
    out.resistorOhms.fill(0);
    out.emfVolts.fill(0);
    out.emfOhms.fill(0);
    out.port.fill(0);
    const s = this.situation.severity ?? 0.5;
    const h = 1e-4;
    for (const effect of this.situation.effects ?? []) {
      if (!('from' in effect)) continue;
      const slot = this.compiled.rules[this.compiled.rule.get(effect.element)!]!.slot;
      if (!Number.isFinite(this.values[slot.array][slot.index]!)) continue;
      out[slot.array][slot.index] = (severityAt(effect, s + h) - severityAt(effect, s - h)) / (2 * h);
    }
  }

  /** The present value of a parameter, for the working. */
  parameter(key: string): number {
    const i = this.compiled.param.get(key)!;
    const { parameter, scale } = this.compiled.params[i]!;
    return parameterAt(parameter, scale, this.situation.z?.[i] ?? 0);
  }
}
