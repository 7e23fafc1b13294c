/** From a scenario's legs to stretches of time in which nothing that people do changes. */
import type { OperatingInputs } from '../control/inputs';
import { loadAmps } from './loadTable';
import type { Leg, Scenario } from './scenarioSchema';

export interface Phase {
  leg: number;
  /** Seconds from the start of the scenario. */
  from: number;
  to: number;
  /** True for the first stretch of its leg. */
  first: boolean;
  inputs: OperatingInputs;
}

/** A drive alternates road and idle with this period, s: traffic lights and towns, not one long stop. */
const TRAFFIC_PERIOD_SECONDS = 3600;

const PARKED: Omit<OperatingInputs, 'leg'> = {
  key: false,
  engine: 'off',
  boost: false,
  shore: false,
  generator: false,
  disconnect: true,
  covered: false,
  coupled: true,
  lamps: false,
  dwell: 0,
};

/** Full-sun share at a time of day: half a sine from six to six that adds up to the stated hours. */
export function sunShare(hourOfDay: number, sunHours: number): number {
  const h = ((hourOfDay % 24) + 24) % 24;
  if (h <= 6 || h >= 18) return 0;
  return (sunHours / SINE_DAY) * Math.sin((Math.PI * (h - 6)) / 12);
}
/** ∫ sin over the twelve hours of daylight, h. */
const SINE_DAY = 24 / Math.PI;

export function phasesOf(scenario: Scenario, nominalVolts: number): Phase[] {
  const phases: Phase[] = [];
  let t = 0;
  scenario.legs.forEach((leg, index) => {
    const end = t + leg.hours * 3600;
    let first = true;
    const add = (to: number, engine: OperatingInputs['engine']) => {
      // A share so small that its stretch has no length is none.
      if (to <= t) return;
      phases.push({ leg: index, from: t, to, first, inputs: inputsOf(leg, engine, nominalVolts) });
      first = false;
      t = to;
    };
    const idle = leg.kind === 'drive' ? (leg.idleShare ?? 0) : 0;
    if (leg.kind === 'drive' && idle > 0 && idle < 1) {
      while (t < end - 1e-6) {
        const period = Math.min(TRAFFIC_PERIOD_SECONDS, end - t);
        add(t + period * (1 - idle), 'road');
        add(Math.min(end, t + period * idle), 'idle');
      }
    } else add(end, leg.kind === 'idle' || idle === 1 ? 'idle' : leg.kind === 'drive' ? 'road' : 'off');
  });
  return phases;
}

function inputsOf(leg: Leg, engine: OperatingInputs['engine'], nominalVolts: number): OperatingInputs {
  const runs = engine !== 'off';
  const loads = loadAmps(leg.loads, leg.celsius, nominalVolts);
  return {
    ...PARKED,
    key: runs,
    engine,
    shore: leg.kind === 'shore',
    generator: leg.kind === 'generator',
    disconnect: !leg.disconnectOpen,
    coupled: !leg.uncoupled,
    boost: leg.boostWedged ?? false,
    lamps: leg.lampsOn ?? false,
    leg: {
      celsius: leg.celsius,
      sun: 0,
      houseAmps: (leg.moreAmps ?? 0) + loads.mean,
      housePeakAmps: (leg.moreAmps ?? 0) + loads.most,
      fridgeOnBattery: leg.fridgeOnBattery ?? false,
      held: leg.held ?? false,
    },
  };
}
