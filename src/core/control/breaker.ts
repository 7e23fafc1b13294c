/**
 * Circuit breaker in a charge line, by its type of SAE J553: I closes again by itself, II stays open while
 * something still wants to flow, III until it is set by hand. Between two batteries a type I closes onto the
 * same fault again and again, unattended.
 */
import { enter, type ControllerKind, type ControllerStep } from './controller';
import { TIMER_SLACK } from './voltageLink';

/** Share of its rating it carries for ever; J553 asks for 100 % (from memory), a warm bay takes the rest. */
const CARRIES_SHARE = 1.1;
/** s·(x² − CARRIES²): half a minute at twice the rating, within the 5 to 60 s that J553 asks for (from memory). */
const HEAT = 30 * (4 - CARRIES_SHARE ** 2);
/** V across an open type II under which nothing wants to flow any more. */
const QUIET_VOLTS = 1;

/** s its contacts take to part, however hot its bimetal: from memory. */
const PARTS_SECONDS = 0.02;
/** Seconds until a breaker opens at `multiple` times its rating; Infinity where it carries that for ever. */
export const tripSeconds = (multiple: number): number =>
  multiple <= CARRIES_SHARE ? Infinity : Math.max(PARTS_SECONDS, HEAT / (multiple ** 2 - CARRIES_SHARE ** 2));

/** Inputs: `drop`, volts across it. Settings: `element` Ω, `rating` A, `resetAfter` s; constant `type` 1, 2 or 3. */
export const breaker: ControllerKind = {
  id: 'breaker',
  initial: 'fitted',
  words: { fitted: 'closes again', tripped: 'trips' },
  step(mode, inputs, settings, dt): ControllerStep {
    const { element, rating, resetAfter, type } = settings as {
      element: number;
      rating: number;
      resetAfter: number;
      type: number;
    };
    const to = (name: string, shut: boolean, why: string, timer?: number): ControllerStep => ({
      mode: enter(mode, name, dt),
      closed: { element: shut },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    // Its drop says nothing of its amps until the network has been solved with it closed.
    if (mode.name === 'fitted') return to('closed', true, 'set');
    const drop = Math.abs(inputs['drop'] ?? 0);
    if (mode.name === 'tripped' || mode.name === 'cooling') {
      if (type === 3) return to('tripped', false, 'open until somebody sets it');
      if (type === 2 && drop > QUIET_VOLTS)
        return to('tripped', false, `${drop.toFixed(1)} V across it: stays open while fed`);
      const left = resetAfter - enter(mode, 'cooling', dt).seconds;
      return left > TIMER_SLACK
        ? to('cooling', false, 'cools, then closes by itself', left)
        : to('fitted', true, 'has cooled and closed by itself');
    }
    const amps = drop / element;
    const says = `${amps.toFixed(0)} A through ${rating.toFixed(0)} A`;
    const lasts = tripSeconds(amps / rating);
    if (lasts === Infinity) return to('closed', true, says);
    const left = lasts - enter(mode, 'warming', dt).seconds;
    return left > TIMER_SLACK
      ? to('warming', true, `${says}: trips soon`, left)
      : to('tripped', false, `${says} for ${enter(mode, 'warming', dt).seconds.toFixed(0)} s`);
  },
};
