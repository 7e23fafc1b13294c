/** Differential maintainer: joins coach to chassis through a small resistance while the coach stands higher. */
import { enter, type ControllerKind } from './controller';
import { TIMER_SLACK } from './voltageLink';

/** Seconds a difference must last either way: from memory. */
const DIFFERENCE_SECONDS = 5;

/** Inputs: `coach`, `chassis` volts. Settings: `closeAt` V of difference (0.75, common practice), `openAt` V. */
export const differentialMaintainer: ControllerKind = {
  id: 'differential-maintainer',
  initial: 'open',
  words: { open: 'stops helping the start battery', closed: 'helps the start battery' },
  step(mode, inputs, settings, dt) {
    const { closeAt, openAt } = settings as { closeAt: number; openAt: number };
    const gap = (inputs['coach'] ?? 0) - (inputs['chassis'] ?? 0);
    const says = `coach is ${gap.toFixed(2)} V above chassis`;
    const to = (name: string, why: string, timer?: number) => ({
      mode: enter(mode, name, dt),
      closed: { contact: name === 'closed' || name === 'letting-go' },
      why,
      ...(timer === undefined ? {} : { timer }),
    });
    if (mode.name === 'closed' || mode.name === 'letting-go') {
      if (gap >= openAt) return to('closed', says);
      const left = DIFFERENCE_SECONDS - enter(mode, 'letting-go', dt).seconds;
      return left > TIMER_SLACK
        ? to('letting-go', `${says}, under ${openAt.toFixed(2)} V`, left)
        : to('open', `${says}, under ${openAt.toFixed(2)} V`);
    }
    if (gap < closeAt) return to('open', `${says}, needs ${closeAt.toFixed(2)} V`);
    const left = DIFFERENCE_SECONDS - enter(mode, 'watching', dt).seconds;
    return left > TIMER_SLACK ? to('watching', says, left) : to('closed', `${says}, over ${closeAt.toFixed(2)} V`);
  },
};
