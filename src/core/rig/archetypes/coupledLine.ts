/** The line behind the connector, the charger wherever it stands, and what tells it to run. */
import { POST_LEAD_METRES } from '../insertFuse';
import { assumed } from '../../units/parameter';
import type { Conductor, Part } from '../schema';
import { charges, heavy, type Draft } from './coupledDraft';
import { cable, chargerGauge, ENABLE_FUSE_AMPS, fuseRating } from './drawing';

/** The charger itself, behind the connector or before it. */
export function chargerPart({
  c,
  words,
  S,
  part,
  amps,
  inAmps,
  dual,
  profile,
  scaled,
  enable,
  inFront,
}: Draft): Part[] {
  return [
    part(
      'dcdc',
      dual ? 'dual-charger' : 'dcdc-charger',
      inFront ? S.relay : S.charger,
      'both',
      inFront ? words.tow : words.behind,
      dual ? 'Dual charger' : 'DC-DC charger',
      `${amps} A`,
      {
        limit: assumed(amps, 0.05),
        inLimit: c.link === 'dcdc-pin' ? assumed(amps, 0.05) : assumed(Math.round(inAmps * 1.2), 0.1),
        tail: assumed(Number((0.03 * c.behind.capacity).toFixed(1)), 0.2),
        absorb: scaled(profile.absorb, 0.06),
        float: scaled(profile.float, 0.06),
        rebulk: scaled(12.8, 0.1),
        // One made for thin pins bears a sagging input.
        ...(c.link === 'dcdc-pin' ? { lockout: assumed(10.8, 0.06), restart: assumed(12, 0.06) } : {}),
        ...(dual && !c.solar ? { panel: assumed(0, 0), amps: assumed(0, 0) } : {}),
      },
      { enable },
    ),
  ];
}

/** What stands in its enable lead: a switch in the cab, the marker lights, a relay that watches the line. */
export function enableParts({ words, S, part, enable, inFront }: Draft): Part[] {
  if (enable === 'manual')
    return [
      part('enable-switch', 'enable-switch', S.ignition + 0.4, 'engine', words.tow, 'Charger switch', 'in the cab'),
    ];
  if (enable === 'marker-lights')
    return [
      part('marker-lights', 'marker-lights', S.ignition + 0.8, 'engine', words.tow, 'Marker lights', 'lamp circuit'),
    ];
  // The line's fuse is far too big for a wire as thin.
  const fuse = () =>
    part(
      'enable-fuse',
      'link-fuse',
      (inFront ? S.relay : S.charger) - 0.1,
      'both',
      inFront ? words.tow : words.behind,
      'Enable fuse',
      `${ENABLE_FUSE_AMPS} A`,
      { rating: fuseRating(ENABLE_FUSE_AMPS) },
      { type: 'blade' },
    );
  if (enable === 'always') return [fuse()];
  if (enable === 'relay')
    return [
      part(
        'enable-relay',
        'voltage-relay',
        (inFront ? S.relay : S.charger) - 0.4,
        'both',
        inFront ? words.tow : words.behind,
        'Enable relay',
        'closes at 13.1 V',
        { contact: assumed(0.02, 0.4, 'from memory') },
      ),
      fuse(),
    ];
  return [];
}

const signal = (id: string, name: string, from: string, to: string, metres: number, jointOhms = 0.05): Conductor =>
  cable(id, name, 'control', from, to, '16', metres, jointOhms);

/** The wires that tell it to run. By volts it needs none. */
function enableWires({ S, run, enable, inFront, line }: Draft): Conductor[] {
  const there = inFront ? S.relay : S.charger;
  const far = (from: number) => run(from, there) + (inFront ? 1 : 2);
  // As thick as what it hangs on: up to its own fuse only the line’s protects it.
  const lead = () =>
    cable(
      'enable-lead',
      'DC-DC input to enable fuse',
      'control',
      'dcdc.input',
      'enable-fuse.source',
      line,
      POST_LEAD_METRES,
      0.002,
    );
  const ground = inFront ? 'frame.front' : 'behind-frame.tongue';
  switch (enable) {
    case 'always':
      return [lead(), signal('dcdc-enable', 'Enable fuse to its enable', 'enable-fuse.load', 'dcdc.enable', 0.3, 0.02)];
    case 'ignition':
      return [signal('dcdc-enable', 'Ignition to DC-DC enable', 'ignition.run', 'dcdc.enable', far(S.ignition))];
    case 'manual':
      return [
        signal('enable-feed', 'Ignition to charger switch', 'ignition.run', 'enable-switch.feed', 1),
        signal('dcdc-enable', 'Charger switch to DC-DC enable', 'enable-switch.output', 'dcdc.enable', far(S.ignition)),
      ];
    case 'marker-lights':
      return [
        cable(
          'lamps-feed',
          'Fuse panel to marker lights',
          'feed',
          'chassis-loads.plus',
          'marker-lights.feed',
          '14',
          2,
          0.02,
        ),
        signal('dcdc-enable', 'Marker lights to DC-DC enable', 'marker-lights.output', 'dcdc.enable', far(S.ignition)),
      ];
    case 'relay':
      return [
        lead(),
        signal('enable-feed', 'Enable fuse to enable relay', 'enable-fuse.load', 'enable-relay.input', 0.6),
        signal('dcdc-enable', 'Enable relay to DC-DC enable', 'enable-relay.output', 'dcdc.enable', 0.6),
        cable('enable-ground', 'Enable relay to frame', 'return', 'enable-relay.ground', ground, '16', 0.6, 0.01),
      ];
    case 'volts':
      return [];
  }
}

/** Its ground and what enables it, wherever it stands. */
export const chargerWires = (draft: Draft): Conductor[] => [
  cable(
    'dcdc-ground',
    'DC-DC charger to frame',
    'return',
    'dcdc.ground',
    draft.inFront ? 'frame.front' : 'behind-frame.tongue',
    draft.line,
    0.8,
    0.001,
  ),
  ...enableWires(draft),
];

/** A charger before the connector: its input on the line fuse. Its output is the line. */
export const chargerInFront = (draft: Draft): Conductor[] => {
  const { S, run, line } = draft;
  return [
    cable(
      'dcdc-input',
      'Line fuse to DC-DC',
      'feed',
      'link-fuse.load',
      'dcdc.input',
      line,
      run(S.fuse, S.relay) + 0.5,
      0.001,
    ),
    ...chargerWires(draft),
  ];
};

/** What follows the connector, to the bank behind. */
// eslint-disable-next-line max-lines-per-function -- a table: one row a cable
export function behindLine(draft: Draft): Conductor[] {
  const { c, line, S, run, inFront } = draft;
  const bankLead = (gauge: Conductor['gauge']) =>
    cable(
      'bank-lead',
      'Bank fuse to bank',
      'feed',
      'behind-fuse.source',
      'coach-bank.plus',
      gauge,
      POST_LEAD_METRES,
      0.0008,
    );
  const brake =
    c.family === 'trailer-48'
      ? [
          cable(
            'brake-tap',
            'Charge line to brake breaker',
            'feed',
            'connector.rear',
            'brake-breaker.source',
            '10',
            POST_LEAD_METRES,
            0.004,
          ),
          cable(
            'brake-feed',
            'Brake breaker to brake battery',
            'feed',
            'brake-breaker.load',
            'brake-bank.plus',
            '10',
            run(S.plug, S.brake) + 0.85,
            0.046,
          ),
        ]
      : [];
  if (charges(c.link) && !inFront) {
    const out = chargerGauge(c.dcdcAmps ?? 12);
    return [
      cable(
        'plug-line',
        'Plug to DC-DC',
        'feed',
        'connector.rear',
        'dcdc.input',
        line,
        run(S.plug, S.charger) + 0.8,
        heavy(c.link) ? 0.001 : 0.02,
      ),
      cable(
        'dcdc-output',
        'DC-DC output',
        'feed',
        'dcdc.output',
        'behind-fuse.load',
        out,
        run(S.charger, S.behindFuse) + 0.4,
        0.001,
      ),
      bankLead(out),
      ...chargerWires(draft),
      ...brake,
    ];
  }
  if (c.link === 'voltage-relay')
    return [
      cable(
        'plug-line',
        'Plug to relay',
        'feed',
        'connector.rear',
        'relay.input',
        line,
        run(S.plug, S.charger) + 0.8,
        0.02,
      ),
      cable(
        'relay-output',
        'Relay to fuse',
        'feed',
        'relay.output',
        'behind-fuse.load',
        line,
        run(S.charger, S.behindFuse) + 0.4,
        0.004,
      ),
      cable('relay-ground', 'Voltage relay to frame', 'return', 'relay.ground', 'behind-frame.tongue', '16', 0.5, 0.01),
      bankLead(line),
    ];
  if (c.link === 'diode-lamp')
    return [
      cable(
        'plug-line',
        'Plug to lamp',
        'feed',
        'connector.rear',
        'helper.from',
        '10',
        run(S.plug, S.charger) + 1,
        0.03,
      ),
      cable(
        'helper-output',
        'Lamp to fuse',
        'feed',
        'helper.to',
        'behind-fuse.load',
        '10',
        run(S.charger, S.behindFuse) + 0.4,
        0.02,
      ),
      bankLead('10'),
    ];
  return [
    cable(
      'plug-line',
      'Plug to bank fuse',
      'feed',
      'connector.rear',
      'behind-fuse.load',
      line,
      run(S.plug, S.behindFuse) + 0.8,
      heavy(c.link) ? 0.001 : 0.02,
    ),
    bankLead(line),
  ];
}
