/**
 * From "what the rig is doing" to volts and amps: starts rested, applies the state's inputs, lets the
 * controllers run through the dwell, and solves. The model instance keeps one solver; results are read from
 * it before the next call.
 */
import type { DeviceValues } from '../circuit/network';
import type { Mode } from '../control/controller';
import { parameterAt } from '../units/parameter';
import { severityAt } from './effects';
import { cycleOf, repeatOf, type Pause } from './leap';
import { RigNetwork, type Situation } from './rigNetwork';
import { operatingState } from './states';

const MAX_ROUNDS = 64;

export type { Situation } from './rigNetwork';

export interface Settled {
  modes: Record<string, { mode: string; why: string }>;
  /** Set when the controllers never came to rest, or went round the same cycle: two things they were doing in it. */
  hunting?: readonly [Record<string, string>, Record<string, string>];
  /** Converters whose feed cannot carry the power they ask for, by part. */
  collapsed: string[];
  /** False when the network has no operating point; the volts are then meaningless. */
  solved: boolean;
}

export class RigModel extends RigNetwork {
  /**
   * Settles the rig in an operating state. Volts are in `solver.volts`, element values in `values`.
   * @param leap whole cycles that are bound to repeat are leapt over; the answer is the same without.
   */
  settle(stateId: string, situation: Situation = {}, leap = true): Settled {
    const { controllers } = this.compiled;
    let modes = this.begin(operatingState(stateId).inputs, situation);
    const why: string[] = controllers.map(() => '');
    let elapsed = 0;
    let dt = 0;
    let previous: readonly Mode[] = [];
    const collapsed = new Set<string>();
    const pauses: Pause[] = [];
    let hunting: readonly [readonly Mode[], readonly Mode[]] | undefined;
    const named = (list: readonly Mode[]) =>
      Object.fromEntries(controllers.map((c, k) => [c.part, list[k]!.name])) as Record<string, string>;
    const result = (solved: boolean): Settled => ({
      modes: this.describe(modes, why),
      collapsed: [...collapsed],
      solved,
      ...(hunting ? { hunting: [named(hunting[0]), named(hunting[1])] } : {}),
    });
    for (let round = 0; round < MAX_ROUNDS; round++) {
      if (round === 0) this.writeValues();
      else this.rewriteValues();
      if (!this.solve().converged) return result(false);
      this.converterStates.forEach((s, k) => s.collapsed && collapsed.add(this.compiled.converters[k]!.part));
      let changed = false;
      let timer = Infinity;
      const timers: (number | undefined)[] = [];
      const next: Mode[] = [];
      for (let k = 0; k < controllers.length; k++) {
        if (changed) {
          // One change at a time: the others look again at the network it made.
          next.push({ name: modes[k]!.name, seconds: modes[k]!.seconds + dt });
          continue;
        }
        const step = this.stepController(k, modes[k]!, dt);
        if (!step) {
          why[k] = 'does nothing';
          next.push(modes[k]!);
          continue;
        }
        next.push(step.mode);
        why[k] = step.why;
        timers[k] = step.timer;
        if (step.timer !== undefined) timer = Math.min(timer, step.timer);
        changed = this.applyStep(k, step);
      }
      previous = modes;
      modes = next;
      dt = 0;
      if (changed) continue;
      const now: Pause = { round, elapsed, modes, timers, volts: this.solver.volts.slice() };
      hunting ??= cycleOf(pauses, now);
      const later = leap ? repeatOf(pauses, now, this.inputs.dwell, MAX_ROUNDS - 1) : undefined;
      if (later) {
        ({ round, elapsed } = later);
        modes = [...later.modes];
        timer = Math.min(...later.timers.map((t) => t ?? Infinity));
        pauses.length = 0;
      } else pauses.push(now);
      if (elapsed + timer > this.inputs.dwell) return result(true);
      dt = timer;
      elapsed += timer;
    }
    hunting ??= [previous, modes];
    return result(true);
  }

  private describe(modes: readonly Mode[], why: readonly string[]): Settled['modes'] {
    return Object.fromEntries(
      this.compiled.controllers.map((c, k) => [c.part, { mode: modes[k]!.name, why: why[k]! }]),
    );
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
  severitySlopes(out: DeviceValues): void {
    out.resistorOhms.fill(0);
    out.emfVolts.fill(0);
    out.emfOhms.fill(0);
    out.deviceParams.fill(0);
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
          if (Number.isFinite(up))
            out[rule.slot.array][rule.slot.index] = out[rule.slot.array][rule.slot.index]! + (up - down) / (2 * h);
        }
        continue;
      }
      const { slot } = this.compiled.rules[this.compiled.rule.get(effect.element)!]!;
      const value = this.values[slot.array][slot.index]!;
      if (!Number.isFinite(value)) continue;
      const slope = (by(s + h) - by(s - h)) / (2 * h);
      // In parallel, dR/dB = (R/B)².
      out[slot.array][slot.index] =
        out[slot.array][slot.index]! + (effect.do === 'parallel-ohms' ? slope * (value / by(s)) ** 2 : slope);
    }
  }

  /**
   * What a fault has put between the lead on a point and the wires that are joined to it: the battery branch it is in
   * series with, its ohms and their slope by severity.
   */
  behindLead(key: string): { emf: number; ohms: number; bySeverity: number } | undefined {
    const effect = this.situation.effects?.find((e) => 'behind' in e && e.behind === key);
    if (!effect || !('from' in effect) || !('element' in effect)) return undefined;
    const { slot } = this.compiled.rules[this.compiled.rule.get(effect.element)!]!;
    const s = this.situation.severity ?? 0.5;
    const ohms = severityAt(effect, s);
    // Ohms go in equal ratios of severity.
    return { emf: slot.index, ohms, bySeverity: ohms * Math.log(effect.to / effect.from) };
  }

  /** The present value of a parameter, for the working. */
  parameter(key: string): number {
    const i = this.compiled.param.get(key)!;
    const { parameter, scale } = this.compiled.params[i]!;
    return parameterAt(parameter, scale, this.situation.z?.[i] ?? 0);
  }
}
