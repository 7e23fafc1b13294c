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
    this.applyToParameters(this.p, situation.severity ?? 0.5);
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

  private ruleValue(rule: ModelRule, p: ArrayLike<number>, made = false): number {
    if (rule.closedBy && !made && !this.isClosed(rule)) return Infinity;
    this.scratch.length = 0;
    for (const i of rule.params) this.scratch.push(p[i]!);
    return rule.value(this.scratch, this.inputs);
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
      case 'stuck-closed': {
        const { index } = slotOf(effect.element);
        values.resistorOhms[index] = this.ruleValue(this.compiled.rules[this.compiled.rule.get(effect.element)!]!, this.p, true);
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
      case 'scale-param':
      case 'shift-param':
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
    const stuck = new Set((this.situation.effects ?? []).flatMap((e) => (e.do === 'stuck-closed' ? [e.element] : [])));
    rules.forEach((rule, r) => {
      const row = out[r]!;
      rule.params.forEach((index, k) => {
        const { parameter, scale } = params[index]!;
        row[k] = 0;
        if (parameter.spread === 0) return;
        const keep = p[index]!;
        const h = scale === 'ratio' ? keep * parameter.spread * 1e-4 : parameter.spread * 1e-4;
        p[index] = keep + h;
        const up = this.ruleValue(rule, p, stuck.has(rule.id));
        p[index] = keep - h;
        const down = this.ruleValue(rule, p, stuck.has(rule.id));
        p[index] = keep;
        // dvalue/dz = dvalue/dp · dp/dz, and dp/dz is the spread (times the value on a ratio scale).
        if (Number.isFinite(up)) row[k] = ((up - down) / 2) * 1e4;
      });
    });
    this.maskOverridden(out);
  }

  /** A replaced value no longer follows its parameters; one with something beside it follows them less. */
  private maskOverridden(out: Float64Array[]): void {
    for (const effect of this.situation.effects ?? []) {
      if (effect.do === 'open' || effect.do === 'replace-ohms' || effect.do === 'no-output') {
        out[this.compiled.rule.get(effect.element)!]!.fill(0);
      } else if (effect.do === 'open-battery') {
        out[this.compiled.rule.get(`${effect.part}.emf.ohms`)!]!.fill(0);
      } else if (effect.do === 'parallel-ohms') {
        const r = this.compiled.rule.get(effect.element)!;
        const both = this.values.resistorOhms[this.compiled.rules[r]!.slot.index]!;
        const alone = this.ruleValue(this.compiled.rules[r]!, this.p);
        // R = A·B/(A + B), so dR/dA = (R/A)².
        for (let k = 0; k < out[r]!.length; k++) out[r]![k] = out[r]![k]! * (both / alone) ** 2;
      }
    }
  }

  /** d(values)/d(severity) of the settled network, by central difference, into `out`. */
  severitySlopes(out: Values): void {
    out.resistorOhms.fill(0);
    out.emfVolts.fill(0);
    out.emfOhms.fill(0);
    out.port.fill(0);
    const effects = this.situation.effects ?? [];
    if (!effects.some((e) => 'from' in e)) return;
    const s = this.situation.severity ?? 0.5;
    const h = 1e-4;
    for (const effect of effects) {
      if (!('from' in effect)) continue;
      const by = (share: number) => severityAt(effect, share);
      if ('param' in effect) {
        const i = this.compiled.param.get(effect.param)!;
        const p = Float64Array.from(this.p);
        const healthy = effect.do === 'scale-param' ? p[i]! / by(s) : p[i]! - by(s);
        for (const rule of this.compiled.rules) {
          if (!rule.params.includes(i)) continue;
          p[i] = effect.do === 'scale-param' ? healthy * by(s + h) : healthy + by(s + h);
          const up = this.ruleValue(rule, p);
          p[i] = effect.do === 'scale-param' ? healthy * by(s - h) : healthy + by(s - h);
          const down = this.ruleValue(rule, p);
          // Two effects may meet in one value: a weak alternator is weak at idle and at fast idle.
          if (Number.isFinite(up)) out[rule.slot.array][rule.slot.index] = out[rule.slot.array][rule.slot.index]! + (up - down) / (2 * h);
        }
        continue;
      }
      const { slot } = this.compiled.rules[this.compiled.rule.get(effect.element)!]!;
      const value = this.values[slot.array][slot.index]!;
      if (!Number.isFinite(value)) continue;
      const slope = (by(s + h) - by(s - h)) / (2 * h);
      // In parallel, dR/dB = (R/B)².
      out[slot.array][slot.index] = out[slot.array][slot.index]! + (effect.do === 'parallel-ohms' ? slope * (value / by(s)) ** 2 : slope);
    }
  }

  /** The present value of a parameter, for the working. */
  parameter(key: string): number {
    const i = this.compiled.param.get(key)!;
    const { parameter, scale } = this.compiled.params[i]!;
    return parameterAt(parameter, scale, this.situation.z?.[i] ?? 0);
  }
}
