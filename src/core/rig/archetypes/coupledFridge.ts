/** A three-way fridge on the charge line: chosen by hand, or choosing by itself by a trigger. */
import { POST_LEAD_METRES } from '../insertFuse';
import { assumed } from '../../units/parameter';
import type { Conductor, Part } from '../schema';
import { FRIDGE_FUSE_AMPS, FRIDGE_WATTS, heavy, type Draft } from './coupledDraft';
import { cable, ENABLE_FUSE_AMPS, fuseRating, fuseType } from './drawing';

export function fridgeParts(draft: Draft): Part[] {
  const { c, words, S, part, itself, accessory } = draft;
  if (!c.fridge) return [];
  return [
    // What is laid for a charger is fused far too big for a fridge's wire.
    ...(heavy(c.link)
      ? [
          part(
            'fridge-fuse',
            'link-fuse',
            S.plug + 0.3,
            'coach',
            words.behind,
            'Fridge fuse',
            `${FRIDGE_FUSE_AMPS} A`,
            { element: assumed(0.0018, 0.35, 'from memory'), rating: fuseRating(FRIDGE_FUSE_AMPS) },
            { type: fuseType(FRIDGE_FUSE_AMPS, [c.start, ...(accessory ? [accessory] : []), c.behind], 12) },
          ),
        ]
      : []),
    part(
      'fridge',
      itself ? 'automatic-fridge' : 'fridge-element',
      S.fridge,
      'coach',
      words.behind,
      itself ? 'Fridge' : 'Fridge element',
      `${c.fridgeWatts ?? FRIDGE_WATTS} W`,
      c.fridgeWatts ? { watts: assumed(c.fridgeWatts, 0.15, 'usual where this shop works: read its label') } : {},
      itself ? {} : { position: 'gas' },
    ),
    ...(itself ? triggerFuse(draft) : []),
  ];
}

/** What its trigger comes by, where it is looped: what it hangs on is fused far too big for a wire as thin. */
const TRIGGER_FUSE_AMPS = ENABLE_FUSE_AMPS;

function triggerFuse({ words, S, part, loops }: Draft): Part[] {
  return loops
    ? [
        part(
          'trigger-fuse',
          'link-fuse',
          S.fridge - 0.1,
          'coach',
          words.behind,
          'Trigger fuse',
          `${TRIGGER_FUSE_AMPS} A`,
          { rating: fuseRating(TRIGGER_FUSE_AMPS) },
          { type: 'blade' },
        ),
      ]
    : [];
}

/** Its trigger: looped to its feed where that goes with the ignition, else on a wire from the ignition. */
function trigger({ S, run, loops }: Draft): Conductor[] {
  return loops
    ? [
        cable(
          'trigger-lead',
          'Fridge feed to trigger fuse',
          'control',
          'fridge.plus',
          'trigger-fuse.source',
          '8',
          POST_LEAD_METRES,
          0.004,
        ),
        cable(
          'fridge-trigger',
          'Trigger fuse to fridge trigger',
          'control',
          'trigger-fuse.load',
          'fridge.trigger',
          '16',
          0.3,
          0.01,
        ),
      ]
    : [
        cable(
          'fridge-trigger',
          'Ignition to fridge trigger',
          'control',
          'ignition.run',
          'fridge.trigger',
          '16',
          run(S.ignition, S.fridge) + 2,
          0.05,
        ),
      ];
}

export function fridgeCables(draft: Draft): Conductor[] {
  const { c, S, run, itself } = draft;
  if (!c.fridge) return [];
  // On a stiff line it draws its watts at full volts, 28 A at 13.9: more than 10 AWG is fused for.
  const gauge = heavy(c.link) ? '8' : '10';
  return [
    ...(heavy(c.link)
      ? [
          cable(
            'fridge-tap',
            'Charge line to fridge fuse',
            'feed',
            'connector.rear',
            'fridge-fuse.source',
            gauge,
            POST_LEAD_METRES,
            0.002,
          ),
        ]
      : []),
    cable(
      'fridge-feed',
      'Charge line to fridge element',
      'feed',
      heavy(c.link) ? 'fridge-fuse.load' : 'connector.rear',
      'fridge.plus',
      gauge,
      run(S.plug, S.fridge) + 1,
      0.01,
    ),
    cable(
      'fridge-negative',
      'Fridge element to frame',
      'return',
      'fridge.minus',
      'behind-frame.middle',
      gauge,
      1.2,
      0.01,
    ),
    ...(itself ? trigger(draft) : []),
  ];
}
