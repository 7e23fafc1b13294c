/** The choices as a schema: what a request to open a job is checked against, and the types. */
import Type from 'typebox';
import { IGNITION_LIVE } from '../../parts/ignitionLive';
import {
  CHARGER_CHOICES,
  CHEMISTRY_CHOICES,
  DISCONNECT_CHOICES,
  ENGINE_CHOICES,
  LAYOUT_CHOICES,
  LINK_CHOICES,
  MAINTAINER_CHOICES,
  SENSE_CHOICES,
} from './choices';

const omit = { additionalProperties: false } as const;
const ids = <T extends readonly { id: string }[]>(list: T) => Type.Enum(list.map((c) => c.id) as T[number]['id'][]);

export const BankChoiceSchema = Type.Object(
  {
    chemistry: ids(CHEMISTRY_CHOICES),
    layout: ids(LAYOUT_CHOICES),
    capacity: Type.Number({ minimum: 10, maximum: 3000, description: 'Ah of the whole bank' }),
    heater: Type.Optional(
      Type.Boolean({ description: 'a lithium bank that warms itself on a charger before it takes a charge' }),
    ),
  },
  omit,
);
export type BankChoice = Type.Static<typeof BankChoiceSchema>;

export const MotorhomeChoicesSchema = Type.Object(
  {
    engineAt: ids(ENGINE_CHOICES),
    length: Type.Number({ minimum: 4, maximum: 15, description: 'metres' }),
    nominalVolts: Type.Union([Type.Literal(12), Type.Literal(24)]),
    link: ids(LINK_CHOICES),
    dcdcAmps: Type.Optional(
      Type.Number({ minimum: 5, maximum: 120, description: 'of a DC-DC charger, at its output' }),
    ),
    enable: Type.Optional(
      Type.Enum(['ignition', 'volts', 'manual', 'always'], { description: 'what tells a DC-DC charger to run' }),
    ),
    ignitionLive: Type.Optional(ids(IGNITION_LIVE)),
    boost: Type.Boolean({ description: 'a boost switch on the dash; a diode isolator has none' }),
    disconnect: ids(DISCONNECT_CHOICES),
    senseAt: ids(SENSE_CHOICES),
    charger: ids(CHARGER_CHOICES),
    chargerAmps: Type.Number({ minimum: 2, maximum: 300 }),
    secondCharger: Type.Optional(Type.Boolean({ description: 'another like it in parallel, standing by' })),
    bypass: Type.Optional(Type.Boolean({ description: 'a hand switch round a DC-DC charger' })),
    bypassBy: Type.Optional(
      Type.Enum(['switch', 'keyed'], { description: 'of a bypass: a hand switch, or two connectors one joins' }),
    ),
    maintainer: Type.Optional(ids(MAINTAINER_CHOICES)),
    monitor: Type.Optional(
      Type.Boolean({ description: 'a battery monitor with its shunt in the coach bank’s negative' }),
    ),
    body: Type.Optional(
      Type.Enum(['steel', 'aluminum'], {
        description: 'what the house returns by: a steel frame, or an aluminum body',
      }),
    ),
    detour: Type.Optional(
      Type.Number({ minimum: 0, maximum: 1.5, description: 'share by which cables run longer than straight' }),
    ),
    switchPanel: Type.Optional(Type.Boolean({ description: 'boost is a key of a panel, plugged into a main panel' })),
    solar: Type.Boolean(),
    generator: Type.Boolean(),
    chassis: BankChoiceSchema,
    coach: BankChoiceSchema,
    alternatorAmps: Type.Number({ minimum: 20, maximum: 600, description: 'rating at speed' }),
  },
  omit,
);
export type MotorhomeChoices = Type.Static<typeof MotorhomeChoicesSchema>;
