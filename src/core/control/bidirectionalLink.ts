/**
 * Bidirectional link module: closes when either bank is being charged, feeds the coil from that bank, opens
 * when both have fallen. With its coach sense behind an open disconnect it sees nothing there.
 */
import { enter, type ControllerKind, type ControllerStep, type Mode } from './controller';
import { RUNS_ABOVE_VOLTS, TIMER_SLACK } from './voltageLink';

/**
 * Inputs: `chassis` and `coach` volts at its sense wires. Settings: `closeAt`, `openAt` volts (13.0–13.3
 * and 12.8–12.9, common practice), `hold` seconds ("for a moment").
 */
export const bidirectionalLink: ControllerKind = {
  id: 'bidirectional-link',
  initial: 'open',
  words: {
    open: 'opens',
    'closed-by-chassis': 'feeds the coil from the chassis',
    'closed-by-coach': 'feeds the coil from the coach',
  },
  step(mode, inputs, settings, dt) {
    const chassis = inputs['chassis'] ?? 0;
    const coach = inputs['coach'] ?? 0;
    const { closeAt, openAt, hold } = settings as { closeAt: number; openAt: number; hold: number };
    const higher = Math.max(chassis, coach);
    const says = `chassis ${chassis.toFixed(2)} V, coach ${coach.toFixed(2)} V`;
    const at = (name: string, why: string, timer?: number): ControllerStep => step(enter(mode, name, dt), why, timer);
    if (higher < RUNS_ABOVE_VOLTS) return at('open', `${says}: too little to run on`);
    const closed = mode.name.startsWith('closed') || mode.name.startsWith('letting-go');
    if (closed) {
      const from = mode.name.endsWith('coach') ? 'coach' : 'chassis';
      if (higher >= openAt) return at(`closed-by-${from}`, `${says}: one is still above ${openAt.toFixed(2)} V`);
      const name = `letting-go-${from}`;
      const left = hold - enter(mode, name, dt).seconds;
      return left <= TIMER_SLACK
        ? at('open', `${says}, both under ${openAt.toFixed(2)} V`)
        : at(name, `${says}, both under ${openAt.toFixed(2)} V: opens soon`, left);
    }
    if (higher < closeAt) return at('open', `${says}: neither is charging, ${closeAt.toFixed(2)} V wanted`);
    const from = coach > chassis ? 'coach' : 'chassis';
    const left = hold - enter(mode, 'watching', dt).seconds;
    return left <= TIMER_SLACK
      ? at(`closed-by-${from}`, `${says}: the ${from} bank is charging`)
      : at('watching', `${says}: the ${from} bank is charging, closes soon`, left);
  },
};

function step(mode: Mode, why: string, timer?: number): ControllerStep {
  const made = mode.name.startsWith('closed') || mode.name.startsWith('letting-go');
  const coach = mode.name.endsWith('coach');
  return {
    mode,
    closed: { 'from-chassis': made && !coach, 'from-coach': made && coach },
    why,
    ...(timer === undefined ? {} : { timer }),
  };
}
