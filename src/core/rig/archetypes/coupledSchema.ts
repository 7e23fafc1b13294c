/** The choices for two coupled vehicles as a schema: tow vehicle and what it tows or carries. */
import Type from 'typebox';
import { ENABLE_SCHOOLS } from '../../parts/enableSchools';
import { IGNITION_LIVE } from '../../parts/ignitionLive';
import { BankChoiceSchema } from './choicesSchema';
import { COUPLED_FAMILIES, COUPLED_LINKS } from './coupledChoices';

const omit = { additionalProperties: false } as const;
const ids = <T extends readonly { id: string }[]>(list: T) => Type.Enum(list.map((c) => c.id) as T[number]['id'][]);

export const CoupledChoicesSchema = Type.Object(
  {
    family: ids(COUPLED_FAMILIES),
    towLength: Type.Number({ minimum: 3, maximum: 15, description: 'metres' }),
    behindLength: Type.Number({ minimum: 2, maximum: 18, description: 'metres, of what is towed or carried' }),
    alternatorAmps: Type.Number({ minimum: 20, maximum: 600, description: 'rating at speed' }),
    smart: Type.Boolean({ description: 'the alternator holds back when the batteries seem full' }),
    link: ids(COUPLED_LINKS),
    feed: Type.Enum(['constant', 'ignition'], { description: 'of the charge line at the vehicle' }),
    dcdcAmps: Type.Optional(
      Type.Number({ minimum: 5, maximum: 120, description: 'of a DC-DC charger, at its output' }),
    ),
    accessoryAmps: Type.Optional(
      Type.Number({ minimum: 5, maximum: 120, description: 'of the charger that fills the accessory battery' }),
    ),
    chargerAt: Type.Optional(
      Type.Enum(['behind', 'tow'], { description: 'a DC-DC charger stands behind the connector, or before it' }),
    ),
    enable: Type.Optional(ids(ENABLE_SCHOOLS)),
    ignitionLive: Type.Optional(ids(IGNITION_LIVE)),
    start: BankChoiceSchema,
    behind: BankChoiceSchema,
    accessory: Type.Optional(BankChoiceSchema),
    shore: Type.Boolean({ description: 'a charger on the mains behind' }),
    solar: Type.Boolean(),
    fridge: Type.Boolean({ description: 'a three-way fridge on the charge line' }),
    fridgeSelects: Type.Optional(
      Type.Enum(['hand', 'itself'], { description: 'of a three-way fridge: by a knob, or by a trigger' }),
    ),
    source: Type.Optional(
      Type.Enum(['start', 'house'], {
        description: 'the battery a towed car’s line is fed from; start where not stated',
      }),
    ),
    behindBreaker: Type.Optional(
      Type.Boolean({ description: 'a breaker set by hand at the bank behind, where a fuse is usual' }),
    ),
    fridgeWatts: Type.Optional(
      Type.Number({
        minimum: 50,
        maximum: 500,
        description: 'of its element on 12 V; usual in North America where not stated',
      }),
    ),
  },
  omit,
);
export type CoupledChoices = Type.Static<typeof CoupledChoicesSchema>;
