/** What of a rig or a use cannot be simulated or makes no sense: told with its place and the remedy, before anything runs. */
import { chargersOnAlternator, mostTaken } from '../rig/charging';
import { partOption, partsWith, partWith, has } from '../rig/value';
import { is, partKind } from '../parts/kinds';
import { THRESHOLD_ORDER } from '../parts/thresholdOrder';
import type { Rig } from '../rig/schema';
import type { Scenario } from '../simulate/scenarioSchema';

export interface Trouble {
  /** Part id, or scenario id. */
  at: string;
  kind: 'part' | 'scenario';
  says: string;
  remedy: string;
  /** Nothing can be run before it is mended. */
  stops: boolean;
}

const nothingToRun = (scenarios: readonly Scenario[]): Trouble[] =>
  scenarios.some((s) => s.legs.length > 0)
    ? []
    : [
        {
          at: scenarios[0]?.id ?? '',
          kind: 'scenario',
          says: 'There is no leg to simulate.',
          remedy: 'Add a leg under Use: a drive, a night, a storage.',
          stops: true,
        },
      ];

const noBattery = (rig: Rig): Trouble[] =>
  has(rig, 'battery')
    ? []
    : [
        {
          at: rig.parts[0]?.id ?? '',
          kind: 'part',
          says: 'The rig has no battery.',
          remedy: 'Add its battery banks under Rig.',
          stops: true,
        },
      ];

const notDrawn = (rig: Rig): Trouble[] =>
  rig.made
    ? []
    : [
        {
          at: '',
          kind: 'part',
          says: 'This rig was not drawn up from choices, so no other link can be drawn into it.',
          remedy: 'It can be simulated as it is; to compare links, open a job with a rig drawn up anew.',
          stops: false,
        },
      ];

const thresholdsCrossed = (rig: Rig): Trouble[] =>
  rig.parts.flatMap((part) =>
    THRESHOLD_ORDER.flatMap(([low, high]): Trouble[] => {
      const specs = partKind(part.kind).params;
      const [a, b] = [part.params[low]?.value, part.params[high]?.value];
      if (a === undefined || b === undefined || a < b) return [];
      return [
        {
          at: part.id,
          kind: 'part',
          says: `${part.name}: “${specs[low]!.label}” ${a.toFixed(1)} V is not below “${specs[high]!.label}” ${b.toFixed(1)} V.`,
          remedy: 'It would chatter or never act: set the two the right way round under Rig.',
          stops: false,
        },
      ];
    }),
  );

function chargersTooLarge(rig: Rig): Trouble[] {
  const gives = partWith(rig, 'alternator')?.params['fastLimit']?.value ?? Infinity;
  return chargersOnAlternator(rig).flatMap((charger): Trouble[] => {
    const takes = mostTaken(charger, rig.vehicles[0]!.nominalVolts / 12);
    if (takes <= gives) return [];
    return [
      {
        at: charger.id,
        kind: 'part',
        says: `${charger.name} may take ${takes.toFixed(0)} A, more than the ${gives.toFixed(0)} A the alternator gives.`,
        remedy: 'Choose a smaller charger or limit its input.',
        stops: false,
      },
    ];
  });
}

/** A charger that takes its enable from the marker lights, and a use in which nobody drives with them on. */
const lightsOff = (rig: Rig, scenarios: readonly Scenario[]): Trouble[] => {
  const driven = scenarios.flatMap((s) => s.legs).filter((l) => l.kind === 'drive');
  if (driven.length === 0 || driven.some((l) => l.lampsOn)) return [];
  return rig.parts
    .filter((p) => is(p, 'charger') && partOption(p, 'enable') === 'marker-lights')
    .map((charger): Trouble => ({
      at: charger.id,
      kind: 'part',
      says: `${charger.name} is enabled by the marker lights, and they are off on every drive of this use: it never runs.`,
      remedy: 'Turn the lights on in a leg under Use, or enable it by an ignition lead.',
      stops: false,
    }));
};

const switchedOff = (rig: Rig): Trouble[] =>
  partsWith(rig, 'enableSwitch')
    .filter((p) => partOption(p, 'position') === 'off')
    .map((p): Trouble => ({
      at: p.id,
      kind: 'part',
      says: `${p.name} is off: what it enables never runs.`,
      remedy: 'Switch it on under Rig, or say in the use when it is off.',
      stops: false,
    }));

/** Everything that stands in the way, the gravest first. */
export const troublesOf = (rig: Rig, scenarios: readonly Scenario[]): Trouble[] => [
  ...nothingToRun(scenarios),
  ...noBattery(rig),
  ...notDrawn(rig),
  ...thresholdsCrossed(rig),
  ...chargersTooLarge(rig),
  ...lightsOff(rig, scenarios),
  ...switchedOff(rig),
];
