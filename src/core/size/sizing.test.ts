import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { resistorAmps } from '../circuit/readings';
import { compileRig } from '../compile/compile';
import { drawRig } from '../rig/archetypes/families';
import { coupledRig, USUAL_COUPLED } from '../rig/archetypes/coupled';
import { COUPLED_FAMILIES, linksFor } from '../rig/archetypes/coupledChoices';
import { LINK_CHOICES } from '../rig/archetypes/choices';
import { motorhome, USUAL_MOTORHOME } from '../rig/archetypes/motorhome';
import { RigModel } from '../operate/settle';
import type { Made, Rig } from '../rig/schema';
import { usualScenarios } from '../plan/usualScenarios';
import { Simulation } from '../simulate/simulate';
import { GAUGES } from '../units/wire';
import { RULE_SETS } from '../codes';
import { fuseChecks } from './fuseChecks';
import { gaugeTable, withGauge } from './gaugeTable';
import { endsFor } from './hardware';
import { runsOf } from './runs';
import { sizeRig } from './sizing';
import { wireLoads } from './wireLoads';

const RIGS: Rig[] = [
  ...LINK_CHOICES.map(({ id: link }) =>
    motorhome(`m-${link}`, link, { ...USUAL_MOTORHOME, link, bypass: true, secondCharger: true }),
  ),
  ...COUPLED_FAMILIES.flatMap(({ id: family }) =>
    linksFor(family).map(({ id: link }) =>
      drawRig(`c-${family}-${link}`, link, { family: 'coupled', choices: { ...USUAL_COUPLED[family], link } } as Made),
    ),
  ),
];
const use = usualScenarios({}, 'coach-bank');
const drive = use.map((s) => ({ ...s, legs: s.legs.slice(0, 2) })).slice(0, 1);

describe('runs', () => {
  it.each(RIGS.map((r) => [r.id, r] as const))('%s: every feed is in one run, no run in two pieces', (_, rig) => {
    const runs = runsOf(rig);
    const all = runs.flatMap((r) => r.conductors.map((c) => c.id)).sort();
    expect(all).toEqual(
      rig.conductors
        .filter((c) => c.use === 'feed')
        .map((c) => c.id)
        .sort(),
    );
    for (const r of runs) {
      expect(r.conductors.some((c) => c.id === r.id)).toBe(true);
      // What is in line joins two neighbours.
      expect(r.inline.length).toBe(r.conductors.length - 1);
    }
  });

  it('one current flows through all of a run', () => {
    for (const rig of RIGS) {
      const loads = wireLoads(compileRig(rig), drive).loads;
      for (const run of runsOf(rig)) {
        const peaks = run.conductors.map((c) => loads.get(c.id)!.peak);
        // A coil, a module and the meter's 10 MΩ hang on some studs: no more than an ampere.
        for (const p of peaks) expect(Math.abs(p - peaks[0]!), `${rig.id} ${run.id}`).toBeLessThan(1.2);
      }
    }
  });

  it('what a wire carries for hours never exceeds its peak, and a steady current is its own', () => {
    const rig = motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc', dcdcAmps: 40 });
    const loads = wireLoads(compileRig(rig), use).loads;
    for (const load of loads.values()) expect(load.continuous).toBeLessThanOrEqual(load.peak + 1e-9);
    // The charger gives 40 A for hours: as heat that is 40 A.
    expect(loads.get('dcdc-output')!.continuous).toBeGreaterThan(39.5);
  });

  it('are those of a run in finer steps, within two per cent', () => {
    const compiled = compileRig(motorhome('t', 'T', { ...USUAL_MOTORHOME, link: 'dcdc' }));
    const { resistor, rig } = compiled;
    const most = new Map<string, number>();
    new Simulation(compiled, use[0]!, {
      series: false,
      watch(net) {
        for (const w of rig.conductors) {
          const amps = Math.abs(resistorAmps(net.solver, net.values, resistor.get(w.id)!));
          most.set(w.id, Math.max(most.get(w.id) ?? 0, amps));
        }
      },
    }).run();
    for (const [id, load] of wireLoads(compiled, use.slice(0, 1)).loads)
      expect(Math.abs(load.peak - most.get(id)!), id).toBeLessThan(Math.max(0.1, 0.02 * most.get(id)!));
  });
});

describe('a run in every gauge', () => {
  it.each(RIGS.map((r) => [r.id, r] as const))(
    '%s: thicker never loses more ohms, a direct link never carries less',
    (_, rig) => {
      const model = new RigModel(compileRig(rig));
      for (const run of runsOf(rig)
        .filter((r) => r.inline.length > 0)
        .slice(0, 3)) {
        const { rows, pick, allowed } = gaugeTable(model, run, { continuous: 10, flows: 0, share: 0.03, fuseAmps: 0 });
        for (let i = 1; i < rows.length; i++) {
          const [a, b] = [rows[i - 1]!, rows[i]!];
          // Ohms of the loop: drop over amps, where there is a current to speak of.
          if (a.amps > 1 && b.amps > 1)
            expect(b.feedDrop / b.amps, `${run.id} ${b.gauge}`).toBeLessThanOrEqual(a.feedDrop / a.amps + 1e-6);
          if (allowed === undefined) expect(b.amps).toBeGreaterThanOrEqual(a.amps - 0.05);
          expect(b.ampacity).toBeGreaterThanOrEqual(a.ampacity);
        }
        if (pick) for (const r of rows.slice(GAUGES.indexOf(pick))) expect(r.verdict).toBe('good');
      }
    },
  );

  it('a gauge is put on the whole run and the returns that serve it alone, on nothing else', () => {
    const rig = coupledRig('t', 'T', { ...USUAL_COUPLED.trailer, link: 'dcdc' });
    const run = runsOf(rig).find((r) => r.id === 'line')!;
    const changed = withGauge(rig, run, '1/0');
    const touched = changed.conductors
      .filter((c, i) => c.gauge !== rig.conductors[i]!.gauge)
      .map((c) => c.id)
      .sort();
    expect(touched).toEqual(['dcdc-ground', 'fuse-lead', 'line', 'line-return', 'plug-line', 'plug-return'].sort());
  });

  it('a charger at the end of a thin line is said to lock out, not to draw little', () => {
    const rig = coupledRig('t', 'T', { ...USUAL_COUPLED.trailer, link: 'dcdc', dcdcAmps: 40 });
    const run = runsOf(rig).find((r) => r.id === 'line')!;
    const { rows } = gaugeTable(new RigModel(compileRig(rig)), run, {
      continuous: 50,
      flows: 0,
      share: 0.03,
      fuseAmps: 0,
    });
    expect(rows.find((r) => r.gauge === '12')!.verdict).toBe('locks out');
    expect(rows.find((r) => r.gauge === '2')!.verdict).not.toBe('locks out');
  });
});

describe('fuses of a rig', () => {
  it('every fuse of every rig is checked, with the wires it must protect', () => {
    for (const rig of RIGS) {
      const checks = fuseChecks(rig, wireLoads(compileRig(rig), drive).loads, RULE_SETS.us);
      expect(checks.map((f) => f.part).sort()).toEqual(
        rig.parts
          .filter((p) => p.kind === 'link-fuse' || p.kind === 'line-breaker')
          .map((p) => p.id)
          .sort(),
      );
      for (const f of checks) {
        expect(f.protects.length, `${rig.id} ${f.part}`).toBeGreaterThan(0);
        expect(f.fault.near, `${rig.id} ${f.part}`).toBeGreaterThanOrEqual(f.fault.far);
        expect(f.rating).toBeGreaterThan(0);
        for (const c of f.checks) expect(c.says).not.toMatch(/NaN|undefined|Infinity/);
      }
    }
  });

  it('a 32 V fuse on a 48 V bank is wrong, one of 58 V is right (58 V charging: common practice)', () => {
    const rig = coupledRig('t', 'T', USUAL_COUPLED['trailer-48']);
    const typed = (type: string): Rig => ({
      ...rig,
      parts: rig.parts.map((p) => (p.id === 'behind-fuse' ? { ...p, options: { type } } : p)),
    });
    const volts = (r: Rig) =>
      fuseChecks(r, wireLoads(compileRig(r), drive).loads, RULE_SETS.us)
        .find((f) => f.part === 'behind-fuse')!
        .checks.find((c) => c.id === 'volts')!.verdict;
    expect(volts(typed('bolt-large'))).toBe('bad');
    expect(volts(typed('bolt-58'))).toBe('good');
  });

  it('a bigger bank asks for a fuse that opens into more', () => {
    const near = (capacity: number) => {
      const rig = motorhome('t', 'T', { ...USUAL_MOTORHOME, chassis: { ...USUAL_MOTORHOME.chassis, capacity } });
      return fuseChecks(rig, new Map(), RULE_SETS.us)[0]!.fault.near;
    };
    expect(near(400)).toBeGreaterThan(1.5 * near(200));
  });
});

describe('the whole sizing', () => {
  it('says which use it could not work out to the end', () => {
    const rig = RIGS[0]!;
    expect(sizeRig(rig, drive).cutShort).toEqual([]);
    const [cut, ...more] = sizeRig(rig, drive, { budget: 20 }).cutShort;
    expect(more).toEqual([]);
    expect(cut!.scenario).toBe(drive[0]!.name);
    expect(cut!.hours).toBeLessThan(drive[0]!.legs.reduce((h, l) => h + l.hours, 0));
  });

  it('sizes every rig on its use, says whether it is enough, and the picked gauge is', () => {
    for (const rig of RIGS) {
      const s = sizeRig(rig, drive);
      expect(s.runs.length, rig.id).toBeGreaterThan(0);
      // Every other size that is taken is a whole sizing: two of a rig.
      for (const r of s.runs.filter((x) => x.table.pick && x.table.pick !== x.table.now).slice(0, 2)) {
        const again = sizeRig(
          withGauge(
            rig,
            runsOf(rig).find((x) => x.id === r.id)!,
            r.table.pick!,
          ),
          drive,
        ).runs.find((x) => x.id === r.id)!;
        expect(again.verdict, `${rig.id} ${r.id} in ${r.table.pick}`).not.toBe('thin');
      }
    }
  });

  it('a smaller allowed drop never asks for less copper', () => {
    const rig = coupledRig('t', 'T', { ...USUAL_COUPLED.trailer, link: 'dcdc', dcdcAmps: 25 });
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 0.06, noNaN: true }),
        fc.double({ min: 0.06, max: 0.15, noNaN: true }),
        (strict, loose) => {
          const pick = (share: number) =>
            sizeRig(rig, drive, { drops: { line: share } }).runs.find((r) => r.id === 'line')!.table.pick;
          const order = (g: string | undefined) => (g === undefined ? GAUGES.length : GAUGES.indexOf(g as '8'));
          expect(order(pick(strict))).toBeGreaterThanOrEqual(order(pick(loose)));
        },
      ),
      { numRuns: 4 },
    );
  });

  it('ends get a lug, a crimper and a heat-shrink that goes over them', () => {
    let before = 0;
    for (const g of GAUGES) {
      const e = endsFor(g);
      expect(e.shrink).toBeGreaterThanOrEqual(before);
      before = e.shrink;
    }
    expect(endsFor('2/0').crimper).toMatch(/hydraulic/);
  });
});
