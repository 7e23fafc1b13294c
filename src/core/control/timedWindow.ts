/**
 * Timed voltage-window controller: links for one hour when the bank behind is low and the other is being
 * charged, then opens and waits for the window again. On a long drive it cycles: that is normal.
 */
import { enter, type ControllerKind, type ControllerStep } from './controller';
import { RUNS_ABOVE_VOLTS, TIMER_SLACK } from './voltageLink';

/**
 * Inputs: `chassis`, `coach`, `key` volts. Settings: `low` (12.6 V), `chassisHigh` (13.2 V), `coachHigh`
 * (13.0 V), `run` (3,600 s): common practice.
 */
export const timedWindow: ControllerKind = {
  id: 'timed-window',
  initial: 'waiting',
  words: { waiting: 'waits for its window', linked: 'links' },
  step(mode, inputs, settings, dt): ControllerStep {
    const chassis = inputs['chassis'] ?? 0;
    const coach = inputs['coach'] ?? 0;
    const keyOn = (inputs['key'] ?? 0) > RUNS_ABOVE_VOLTS;
    const { low, chassisHigh, coachHigh, run } = settings as {
      low: number;
      chassisHigh: number;
      coachHigh: number;
      run: number;
    };
    const out = (name: string, why: string, timer?: number): ControllerStep => ({
      mode: enter(mode, name, dt),
      closed: { output: name === 'linked' },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    const says = `chassis ${chassis.toFixed(2)} V, coach ${coach.toFixed(2)} V`;
    if (Math.max(chassis, coach) < RUNS_ABOVE_VOLTS) return out('waiting', `${says}: too little to run on`);
    if (mode.name === 'linked') {
      const left = run - mode.seconds - dt;
      return left > TIMER_SLACK
        ? out('linked', `linked for another ${Math.ceil(left / 60)} min`, left)
        : out('waiting', `its ${Math.round(run / 60)} min are over; waits for the window again`);
    }
    const drive = keyOn && coach < low && chassis >= chassisHigh;
    const parked = !keyOn && chassis < low && coach >= coachHigh;
    if (drive) return out('linked', `key on, coach under ${low.toFixed(2)} V while the chassis charges`, run);
    if (parked) return out('linked', `parked, chassis under ${low.toFixed(2)} V while the coach charges`, run);
    return out(
      'waiting',
      keyOn
        ? `${says}: links when coach < ${low.toFixed(2)} V and chassis ≥ ${chassisHigh.toFixed(2)} V`
        : `${says}: links when chassis < ${low.toFixed(2)} V and coach ≥ ${coachHigh.toFixed(2)} V`,
    );
  },
};
