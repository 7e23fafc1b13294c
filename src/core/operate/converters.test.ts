import { describe, expect, it } from 'vitest';
import { EVERY_RIG } from '../../../tests/everyRig';
import { SOURCE } from '../circuit/devices';
import { compileRig } from '../compile/compile';
import { partsWith, partValue } from '../rig/value';
import { efficiencyAt } from './converters';
import { RigModel } from './settle';
import { statesOf } from './states';

/** W that are rounding. */
const HARDLY_WATTS = 0.5;

describe('a converter', () => {
  for (const [name, rig] of EVERY_RIG.filter(([, r]) => partsWith(r, 'charger').length > 0))
    it(`on ${name} gives what it takes times its efficiency, at its input limit too`, () => {
      const compiled = compileRig(rig);
      const model = new RigModel(compiled);
      let limited = 0;
      for (const share of [0.1, 0.2, 0.4, 0.7, 1])
        for (const state of statesOf(rig)) {
          const effects = [...new Set(compiled.converters.map((c) => `${c.part}.inLimit`))]
            .filter((param) => compiled.param.has(param))
            .map((param) => ({ do: 'scale-param' as const, param, from: share, to: share }));
          expect(model.settle(state.id, { effects }).solved).toBe(true);
          compiled.converters.forEach((c, k) => {
            const { amps, collapsed } = model.converterStates[k]!;
            const out = Math.max(0, model.solver.pushed(c.outPort));
            const part = rig.parts.find((p) => p.id === c.part)!;
            const most = partValue(part, 'inLimit') * share;
            expect(amps).toBeLessThanOrEqual(most + 1e-6);
            if (collapsed || out < 0.1) return;
            const rated = partValue(part, 'limit');
            const given = out * model.solver.portVolts[c.outPort]!;
            const taken = amps * model.solver.portVolts[c.inPort]!;
            const full = partValue(part, 'efficiency');
            expect(given / efficiencyAt(full, Math.min(1, out / rated))).toBeLessThanOrEqual(taken + HARDLY_WATTS);
            if (amps > most - 1e-6) limited++;
            expect(SOURCE.limit.get(model.values, c.outPort)).toBeLessThanOrEqual(rated + 1e-9);
          });
        }
      expect(limited).toBeGreaterThan(0);
    });
});
