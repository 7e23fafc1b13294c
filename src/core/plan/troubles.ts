/** What of a rig or a use cannot be simulated or makes no sense: told with its place and the remedy, before anything runs. */
import { partWith, partsWith, has } from '../rig/value';
import { partKind } from '../parts/kinds';
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

export function troublesOf(rig: Rig, scenarios: readonly Scenario[]): Trouble[] {
  const list: Trouble[] = [];
  if (scenarios.length === 0 || scenarios.every((s) => s.legs.length === 0))
    list.push({
      at: scenarios[0]?.id ?? '',
      kind: 'scenario',
      says: 'There is no leg to simulate.',
      remedy: 'Add a leg under Use: a drive, a night, a storage.',
      stops: true,
    });
  if (!has(rig, 'battery'))
    list.push({
      at: rig.parts[0]?.id ?? '',
      kind: 'part',
      says: 'The rig has no battery.',
      remedy: 'Add its battery banks under Rig.',
      stops: true,
    });
  if (!rig.made)
    list.push({
      at: '',
      kind: 'part',
      says: 'This rig was not drawn up from choices, so no other link can be drawn into it.',
      remedy: 'It can be simulated as it is; to compare links, open a job with a rig drawn up anew.',
      stops: false,
    });
  for (const part of rig.parts) {
    const specs = partKind(part.kind).params;
    for (const [low, high] of THRESHOLD_ORDER) {
      const a = part.params[low];
      const b = part.params[high];
      if (a && b && a.value >= b.value)
        list.push({
          at: part.id,
          kind: 'part',
          says: `${part.name}: “${specs[low]!.label}” ${a.value.toFixed(1)} V is not below “${specs[high]!.label}” ${b.value.toFixed(1)} V.`,
          remedy: 'It would chatter or never act: set the two the right way round under Rig.',
          stops: false,
        });
    }
  }
  const alternator = partWith(rig, 'alternator');
  for (const charger of partsWith(rig, 'charger')) {
    const takes = charger.params['inLimit']?.value ?? 0;
    const gives = alternator?.params['fastLimit']?.value ?? Infinity;
    if (takes > gives)
      list.push({
        at: charger.id,
        kind: 'part',
        says: `${charger.name} may take ${takes.toFixed(0)} A, more than the ${gives.toFixed(0)} A the alternator gives.`,
        remedy: 'Choose a smaller charger or limit its input.',
        stops: false,
      });
  }
  return list;
}
