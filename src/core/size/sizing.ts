/** The sizing of a whole rig on the customer's own use: every heavy run, every fuse. */
import { is } from '../parts/kinds';
import { compileRig } from '../compile/compile';
import { RigModel } from '../operate/settle';
import type { Rig } from '../rig/schema';
import type { Scenario } from '../simulate/scenarioSchema';
import { RULE_SETS, USUAL_JURISDICTION } from '../codes';
import type { RuleSet } from '../codes/ruleSet';
import type { Jurisdiction } from '../units/preferences';
import { canFlow } from './canFlow';
import { fuseChecks, type FuseCheck } from './fuseChecks';
import { gaugeTable, judgedStates, type GaugeTable, type RunAsks } from './gaugeTable';
import { chargerSize, type ChargerSize } from './chargerSize';
import { endsFor, type Ends } from './hardware';
import { feedOf, lockoutsOf, type Lockout } from './lockouts';
import { runsOf, straightMetres, type Run } from './runs';
import { thresholdsOf, type Threshold } from './thresholds';
import { wireLoads, type CutShort, type WireLoad } from './wireLoads';

export interface SizedRun {
  id: string;
  name: string;
  /** "Start battery to DC-DC charger". */
  between: string;
  /** `straight`: m between the stations of its ends; what its length is more is detour. */
  conductors: {
    id: string;
    name: string;
    gauge: string;
    length: number;
    straight: number;
    insulation?: number;
    inEngineSpace?: boolean;
    bundled?: number;
  }[];
  inline: string[];
  load: WireLoad;
  table: GaugeTable;
  ends: Ends;
  verdict: 'good' | 'thin' | 'more than enough';
}

export interface Sizing {
  thresholds: Threshold[];
  lockouts: Lockout[];
  runs: SizedRun[];
  fuses: FuseCheck[];
  chargers: ChargerSize[];
  /** Uses of which only the beginning could be worked out. */
  cutShort: CutShort[];
  /** Whose rules it was sized by. */
  jurisdiction: Jurisdiction;
}

export interface SizingAsks {
  /** Allowed share of the nominal volts by run id, the usual where absent. */
  drops?: Readonly<Record<string, number>>;
  /** Rounds of solving the simulation of a use may take, its own budget where absent. */
  budget?: number;
  /** A the vehicle's maker allows to be taken, where known. */
  upfit?: number;
  /** Where the shop is: whose rules it goes by. */
  jurisdiction?: Jurisdiction;
  /** The family of sizes sold where the shop is. */
  gauge?: 'awg' | 'mm2';
}

/** Runs under this never matter: dash feeds, sense leads. */
const HEAVY_AMPS = 3;
/** Share of the nominal volts a charge line may lose: 3 %, common practice (ABYC E-11 says the same of what matters, from memory). */
export const USUAL_DROP_SHARE = 0.03;
/**
 * A DC-DC charger’s input may lose more: it makes the volts good again, as long as it does not lock out; and so may a
 * heating element. 10 %, as ABYC E-11 has it of what does not matter so much (from memory).
 */
export const FORGIVING_DROP_SHARE = 0.1;
/** A gauge is more than enough when three steps thinner would do as well. */
const STEPS_TOO_MANY = 3;

const UNLOADED: WireLoad = { continuous: 0, peak: 0, at: 0, scenario: '' };

/** The load of a run's hardest-worked conductor. */
const heaviest = (run: Run, loads: ReadonlyMap<string, WireLoad>): WireLoad =>
  run.conductors.map((c) => loads.get(c.id) ?? UNLOADED).reduce((a, b) => (b.continuous > a.continuous ? b : a));

/** What can be said of a run from its table of gauges. @param gauges the table at so many A, share of volts, and fuse. */
function sizedRun(
  rig: Rig,
  run: Run,
  load: WireLoad,
  gauges: (asks: Pick<RunAsks, 'continuous' | 'flows' | 'share' | 'fuseAmps'>) => GaugeTable,
  fuses: readonly FuseCheck[],
): SizedRun {
  const ids = run.conductors.map((c) => c.id);
  const ends = [run.from, run.to].map((e) => rig.parts.find((p) => p.id === e.part));
  const fuseAmps = fuses.filter((f) => f.protects.some((id) => ids.includes(id))).map((f) => f.rating);
  const table = gauges({
    continuous: load.continuous,
    flows: canFlow(rig, run),
    share:
      [run.from, run.to].some((e) => e.terminal === 'input') || ends.some((p) => is(p, 'fridge'))
        ? FORGIVING_DROP_SHARE
        : USUAL_DROP_SHARE,
    fuseAmps: Math.max(0, ...fuseAmps),
  });
  const at = table.rows.findIndex((r) => r.gauge === table.now);
  const best = table.rows.findIndex((r) => r.gauge === table.pick);
  // What is plugged in behind a fuse panel is not known: its feed is not called too thick.
  const feedsLoads = ends.some((p) => !is(p, 'charges'));
  const name = (id: string) => rig.parts.find((p) => p.id === id)?.name ?? id;
  return {
    id: run.id,
    name: run.name,
    between: `${name(run.from.part)} to ${name(run.to.part)}`,
    conductors: run.conductors.map((c) => ({
      id: c.id,
      name: c.name,
      gauge: c.gauge,
      length: c.length,
      straight: straightMetres(rig, c),
      ...(c.insulation ? { insulation: c.insulation } : {}),
      ...(c.inEngineSpace ? { inEngineSpace: c.inEngineSpace } : {}),
      ...(c.bundled ? { bundled: c.bundled } : {}),
    })),
    inline: run.inline.map((p) => p.id),
    load,
    table,
    ends: endsFor(table.pick ?? table.now),
    verdict:
      table.rows[at]!.verdict !== 'good'
        ? 'thin'
        : best >= 0 && !feedsLoads && at - best >= STEPS_TOO_MANY
          ? 'more than enough'
          : 'good',
  };
}

/** Sizes a rig on its use. */
export function sizeRig(
  rig: Rig,
  scenarios: readonly Scenario[],
  { drops = {}, upfit, budget, gauge = 'awg', jurisdiction = USUAL_JURISDICTION }: SizingAsks = {},
): Sizing {
  const rules: RuleSet = RULE_SETS[jurisdiction];
  const compiled = compileRig(rig);
  const { loads, cutShort } = wireLoads(compiled, scenarios, budget);
  const model = new RigModel(compiled);
  const fuses = fuseChecks(rig, loads, rules);
  const heavy = runsOf(rig)
    .map((run) => ({ run, load: heaviest(run, loads) }))
    .filter(({ run, load }) => load.peak >= HEAVY_AMPS || run.inline.length > 0);
  const states = judgedStates(
    model,
    heavy.map(({ run }) => run),
  );
  const runs = heavy
    .map(({ run, load }) =>
      sizedRun(
        rig,
        run,
        load,
        (asks) =>
          gaugeTable(
            model,
            run,
            { ...asks, share: drops[run.id] ?? asks.share, family: gauge, rules },
            states.get(run.id)!,
          ),
        fuses,
      ),
    )
    .sort(
      (a, b) => Number(b.verdict === 'thin') - Number(a.verdict === 'thin') || b.load.continuous - a.load.continuous,
    );
  const chargers = rig.parts
    .filter((p) => is(p, 'charger'))
    .flatMap((p) => chargerSize(rig, p, scenarios, feedOf(model, p), upfit) ?? []);
  return {
    runs,
    fuses,
    chargers,
    cutShort,
    thresholds: thresholdsOf(compiled),
    lockouts: lockoutsOf(compiled),
    jurisdiction,
  };
}
