/**
 * DC-DC charger with a second input for solar panels: whatever sun there is goes to the bank, the vehicle tops
 * it up, and once the bank floats on the sun alone a trickle goes back to the start battery. Panels above its
 * volts it does not take: such panels belong in parallel.
 */
import { nextStage, type StageSettings } from './chargeStages';
import type { ControllerKind, ControllerStep, Mode } from './controller';
import { dcdcCharger } from './dcdcCharger';

/** Share of full sun under which there is no day. */
const DAYLIGHT_SHARE = 0.02;
const SUN = 'sun-';
/** States of the vehicle side that run on a timer of their own: the sun waits for them. */
const TIMED: readonly string[] = ['waiting', 'recovering', 'locked-out'];

const bare = (mode: Mode): Mode => (mode.name.startsWith(SUN) ? { ...mode, name: mode.name.slice(SUN.length) } : mode);

/**
 * Inputs: those of the DC-DC charger, and `sun`, the share of full sun; `solar` amps of its panels. Settings:
 * the DC-DC charger's, and `panelVolts`, open circuit of one panel, `panelLimit`; constant `inSeries` panels.
 */
export const dualCharger: ControllerKind = {
  id: 'dual-charger',
  initial: 'off',
  words: {
    ...dcdcCharger.words,
    'sun-bulk': 'charges from the panels',
    'sun-absorption': 'holds its volts from the panels',
    'sun-float': 'floats, and trickles into the start battery',
  },
  step(mode, inputs, settings, dt): ControllerStep {
    const { panelVolts, panelLimit, inSeries } = settings as Record<string, number>;
    const open = panelVolts! * inSeries!;
    const takes = open <= panelLimit!;
    const panels = takes ? 'on' : 'off';
    const refuses = takes
      ? ''
      : `; panels reach ${open.toFixed(0)} V open-circuit; more than its ${panelLimit!.toFixed(0)} V: solar input shut`;
    const onSun = mode.name.startsWith(SUN);
    const vehicle = dcdcCharger.step(
      onSun ? { name: 'off', seconds: mode.seconds } : mode,
      { ...inputs, amps: (inputs['amps'] ?? 0) + (inputs['solar'] ?? 0) },
      settings,
      dt,
    );
    const runs = vehicle.chosen?.['power'] === 'on';
    if (runs || TIMED.includes(vehicle.mode.name) || !takes || !((inputs['sun'] ?? 0) > DAYLIGHT_SHARE))
      return { ...vehicle, chosen: { ...vehicle.chosen, panels, trickle: 'off' }, why: vehicle.why + refuses };
    const { stage, ...sun } = nextStage(
      onSun ? bare(mode) : { name: 'off', seconds: 0 },
      inputs['output'] ?? 0,
      inputs['solar'] ?? 0,
      settings as unknown as StageSettings,
      dt,
    );
    return {
      ...sun,
      mode: { name: SUN + sun.mode.name, seconds: sun.mode.seconds },
      closed: {},
      chosen: { power: 'off', stage, panels, trickle: stage === 'float' ? 'on' : 'off' },
      why: `panels: output ${sun.why}`,
    };
  },
};
