/** What links the banks of a motorhome, drawn: what closes it and how that is wired, or a charger in its place. */
import { assumed, type Parameter } from '../../units/parameter';
import { POST_LEAD_METRES } from '../insertFuse';
import type { MotorhomeChoices } from './choicesSchema';
import {
  cable,
  chargerGauge,
  ENABLE_FUSE_AMPS,
  fuseAbove,
  fuseRating,
  fuseType,
  gaugeCarrying,
  PROFILES,
} from './drawing';
import type { Conductor } from '../schema';
import type { LinkDrawing, PartMaker, Runner } from './motorhomePlaces';

/** A of a DC-DC charger where nobody says. */
export const USUAL_DCDC_AMPS = 40;

/** What each kind of link is closed by, and how that is wired. */
// eslint-disable-next-line max-lines-per-function -- a table: one case a link
export function linkParts(c: MotorhomeChoices, part: PartMaker, run: Runner): LinkDrawing {
  const volts = c.nominalVolts / 12;
  const scaled = (value: number, spread = 0.08): Parameter => assumed(value * volts, spread * volts);
  const chassisSense = cable(
    'chassis-sense',
    'Chassis sense to module',
    'control',
    'link-fuse.source',
    'delay.chassis-sense',
    '14',
    run('fuse', 'module') + 0.5,
    0.02,
  );
  const sensePoint =
    c.senseAt === 'behind-disconnect' && c.disconnect !== 'none' ? 'disconnect.house' : 'coach-bank.plus';
  const coachSense = cable(
    'coach-sense',
    'Coach sense to module',
    'control',
    sensePoint,
    'delay.coach-sense',
    '14',
    run('coach', 'module') + 0.5,
    0.02,
  );
  const ignitionWire = cable(
    'ignition-wire',
    'Ignition to module',
    'control',
    'ignition.run',
    'delay.ignition',
    '14',
    run('ignition', 'module') + 1,
    0.02,
  );
  const coilFeed = cable(
    'coil-feed',
    'Module to coil',
    'control',
    'delay.output',
    'link.coil-plus',
    '14',
    run('module', 'link') + 0.2,
    0.01,
  );
  const ground = cable('delay-ground', 'Module to frame', 'return', 'delay.ground', 'frame.bay-2', '14', 0.9, 0.01);
  const output: [string, string] = ['delay.output', 'Module out'];
  const senses: [string, string][] = [
    ['delay.chassis-sense', 'Chassis sense'],
    ['delay.coach-sense', 'Coach sense'],
  ];
  switch (c.link) {
    case 'ignition-delay':
      return {
        parts: [part('delay', 'ignition-delay-module', 'module', 'both', 'Link box', 'Delay module', '25 s')],
        conductors: [ignitionWire, coilFeed, ground],
        probes: [['delay.ignition', 'Ignition at module'], output],
      };
    case 'one-way':
      return {
        parts: [
          part('delay', 'voltage-link-module', 'module', 'both', 'Link box', 'Link module', 'one-way', {
            closeAt: scaled(13),
            openAt: scaled(12.85),
          }),
        ],
        conductors: [chassisSense, coilFeed, ground],
        probes: [['delay.chassis-sense', 'Chassis sense'], output],
      };
    case 'bidirectional':
      return {
        parts: [
          part('delay', 'bidirectional-module', 'module', 'both', 'Link box', 'Link module', 'two-way', {
            closeAt: scaled(13),
            openAt: scaled(12.8),
          }),
        ],
        conductors: [chassisSense, coachSense, coilFeed, ground],
        probes: [...senses, output],
      };
    case 'timed-window':
      return {
        parts: [
          part('delay', 'timed-window-module', 'module', 'both', 'Link box', 'Link module', '1 h window', {
            low: scaled(12.6, 0.05),
            chassisHigh: scaled(13.2, 0.05),
            coachHigh: scaled(13, 0.05),
          }),
        ],
        conductors: [chassisSense, coachSense, ignitionWire, coilFeed, ground],
        probes: [['delay.ignition', 'Ignition at module'], ...senses, output],
      };
    case 'switch':
      return {
        parts: [part('link-switch', 'link-switch', 'switch', 'engine', 'Dash', 'Link switch', 'dash, on')],
        conductors: [
          cable(
            'ignition-wire',
            'Ignition to link switch',
            'control',
            'ignition.run',
            'link-switch.feed',
            '14',
            run('ignition', 'switch') + 0.5,
            0.02,
          ),
          cable(
            'coil-feed',
            'Link switch to coil',
            'control',
            'link-switch.output',
            'link.coil-plus',
            '14',
            run('switch', 'link') + 1,
            0.02,
          ),
        ],
        probes: [['link-switch.output', 'Link switch out']],
      };
    case 'dcdc-boost':
    case 'dcdc':
    case 'dcdc-dual':
      return chargerParts(c, part, run, scaled);
    case 'diode':
      return { parts: [], conductors: [], probes: [] };
  }
}

const signal = (id: string, name: string, from: string, to: string, metres: number): Conductor =>
  cable(id, name, 'control', from, to, '16', metres, 0.02);

/** What tells the charger to run. By volts it needs no wire. */
function enableWires(
  enable: NonNullable<MotorhomeChoices['enable']>,
  gauge: Conductor['gauge'],
  run: Runner,
): Conductor[] {
  const far = run('ignition', 'module') + 1;
  switch (enable) {
    case 'ignition':
      return [signal('dcdc-enable', 'Ignition to DC-DC enable', 'ignition.run', 'dcdc.enable', far)];
    case 'manual':
      return [
        signal('enable-feed', 'Ignition to charger switch', 'ignition.run', 'enable-switch.feed', 1),
        signal('dcdc-enable', 'Charger switch to DC-DC enable', 'enable-switch.output', 'dcdc.enable', far),
      ];
    case 'always':
      return [
        // As thick as what it hangs on: up to its own fuse only the line’s protects it.
        cable(
          'enable-lead',
          'DC-DC input to enable fuse',
          'control',
          'dcdc.input',
          'enable-fuse.source',
          gauge,
          POST_LEAD_METRES,
          0.002,
        ),
        signal('dcdc-enable', 'Enable fuse to its enable', 'enable-fuse.load', 'dcdc.enable', 0.3),
      ];
    case 'volts':
      return [];
  }
}

/** A DC-DC charger in place of the link, with its fuse, its enable, and a bypass round it where one is wanted. */
// eslint-disable-next-line max-lines-per-function -- a table: one row a part and a cable
function chargerParts(
  c: MotorhomeChoices,
  part: PartMaker,
  run: Runner,
  scaled: (value: number, spread?: number) => Parameter,
): LinkDrawing {
  const volts = c.nominalVolts / 12;
  const amps = c.dcdcAmps ?? USUAL_DCDC_AMPS;
  const outRating = fuseAbove(amps * 1.25);
  const inRating = fuseAbove(1.5 * amps * 1.25);
  const gauge = gaugeCarrying(inRating, chargerGauge(amps / volts));
  // With the isolator kept for boost there is a way round already.
  const dual = c.link === 'dcdc-dual';
  const bypass = c.bypass === true && c.link !== 'dcdc-boost';
  const enable = c.enable ?? 'ignition';
  // Beside a heavy link the line's own fuse is far too big for the charger's lead: it has one where it begins.
  const ownFuse = bypass || c.link === 'dcdc-boost';
  return {
    parts: [
      part(
        'dcdc',
        dual ? 'dual-charger' : 'dcdc-charger',
        'module',
        'both',
        'Link box',
        dual ? 'Dual charger' : 'DC-DC charger',
        `${amps} A`,
        {
          limit: assumed(amps, 0.05),
          inLimit: assumed(Math.round(amps * 1.5), 0.1),
          tail: assumed(Number((0.03 * c.coach.capacity).toFixed(1)), 0.2),
          absorb: scaled(PROFILES[c.coach.chemistry].absorb, 0.06),
          float: scaled(PROFILES[c.coach.chemistry].float, 0.06),
          rebulk: scaled(12.8, 0.1),
          on: scaled(13.8, 0.06),
          off: scaled(13.2, 0.06),
          lockout: scaled(12.2, 0.06),
          restart: scaled(12.7, 0.06),
          ...(dual && !c.solar ? { panel: assumed(0, 0), amps: assumed(0, 0) } : {}),
        },
        { enable },
      ),
      part(
        'dcdc-fuse',
        'link-fuse',
        'coach',
        'coach',
        'Coach bay',
        'Charger fuse',
        `${outRating} A`,
        { rating: fuseRating(outRating) },
        { type: fuseType(outRating, [c.coach], c.nominalVolts) },
      ),
      ...(enable === 'manual'
        ? [part('enable-switch', 'enable-switch', 'switch', 'engine', 'Dash', 'Charger switch', 'dash')]
        : []),
      ...(enable === 'always'
        ? [
            part(
              'enable-fuse',
              'link-fuse',
              'module',
              'both',
              'Link box',
              'Enable fuse',
              `${ENABLE_FUSE_AMPS} A`,
              { rating: fuseRating(ENABLE_FUSE_AMPS) },
              { type: 'blade' },
            ),
          ]
        : []),
      ...(ownFuse
        ? [
            part(
              'dcdc-in-fuse',
              'link-fuse',
              'fuse',
              'engine',
              'Link box',
              'Charger in fuse',
              `${inRating} A`,
              { rating: fuseRating(inRating) },
              { type: fuseType(inRating, [c.chassis, c.coach], c.nominalVolts) },
            ),
          ]
        : []),
      ...(bypass
        ? [
            part(
              'bypass',
              'bypass-switch',
              'link',
              'both',
              'Link box',
              'Bypass',
              c.bypassBy === 'keyed' ? 'keyed plugs' : 'hand switch',
              {},
              { build: c.bypassBy ?? 'switch' },
            ),
            part(
              'bypass-fuse',
              'link-fuse',
              'disconnect',
              'coach',
              'Coach bay',
              'Bypass fuse',
              '150 A',
              { rating: fuseRating(150) },
              { type: fuseType(150, [c.coach], c.nominalVolts) },
            ),
          ]
        : []),
    ],
    conductors: [
      ...(ownFuse
        ? [
            cable(
              'dcdc-tap',
              'Link fuse to charger fuse',
              'feed',
              'link-fuse.load',
              'dcdc-in-fuse.source',
              gauge,
              POST_LEAD_METRES,
              0.0004,
            ),
          ]
        : []),
      cable(
        'dcdc-input',
        'Link fuse to DC-DC charger',
        'feed',
        ownFuse ? 'dcdc-in-fuse.load' : 'link-fuse.load',
        'dcdc.input',
        gauge,
        run('fuse', 'module') + 0.85,
        0.0008,
      ),
      cable(
        'dcdc-output',
        'DC-DC charger to its fuse',
        'feed',
        'dcdc.output',
        'dcdc-fuse.load',
        gauge,
        run('module', 'coach') + 1,
        0.0008,
      ),
      cable(
        'dcdc-fuse-lead',
        'Charger fuse to coach bank',
        'feed',
        'dcdc-fuse.source',
        'coach-bank.plus',
        gauge,
        POST_LEAD_METRES,
        0.0006,
      ),
      cable('dcdc-ground', 'DC-DC charger to frame', 'return', 'dcdc.ground', 'frame.bay-2', gauge, 0.9, 0.0008),
      ...enableWires(enable, gauge, run),
      ...(bypass
        ? [
            cable(
              'bypass-lead',
              'Link fuse to bypass',
              'feed',
              'link-fuse.load',
              'bypass.chassis-stud',
              '1/0',
              run('fuse', 'link') + 0.75,
              0.0005,
            ),
            cable(
              'bypass-cable',
              'Bypass to its fuse',
              'feed',
              'bypass.coach-stud',
              'bypass-fuse.load',
              '1/0',
              run('link', 'coach') + 1.2,
              0.0008,
            ),
            cable(
              'bypass-fuse-lead',
              'Bypass fuse to coach bank',
              'feed',
              'bypass-fuse.source',
              'coach-bank.plus',
              '1/0',
              POST_LEAD_METRES,
              0.0005,
            ),
          ]
        : []),
    ],
    probes: [
      ['dcdc.input', 'DC-DC in'],
      ['dcdc.output', 'DC-DC out'],
      ['dcdc.enable', 'DC-DC enable'],
    ],
  };
}
