/**
 * The tow interface of a rig, position by position: what the vehicle gives at its socket, what the trailer
 * hangs on its plug, and what was measured there. Kept in the rig document beside the parts.
 */
import Type from 'typebox';
import { CONNECTORS } from '../parts/connectors';
import { FEED_IDS, PIN_CONDITIONS, USE_IDS } from '../parts/pinUses';
import { GAUGES } from '../units/wire';

const omit = { additionalProperties: false } as const;
const metres = Type.Number({ exclusiveMinimum: 0, maximum: 100, description: 'metres, one way' });

/** Volts at a position in one condition: unloaded, and under a known load. */
export const PinSeenSchema = Type.Object(
  {
    when: Type.Enum([...PIN_CONDITIONS]),
    open: Type.Number({ minimum: -60, maximum: 60, description: 'V unloaded, to the socket’s ground position' }),
    loaded: Type.Optional(Type.Number({ minimum: -60, maximum: 60, description: 'V under the load' })),
    amps: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 100, description: 'A of the load' })),
  },
  omit,
);
export type PinSeen = Type.Static<typeof PinSeenSchema>;

export const TowWaySchema = Type.Object(
  {
    pin: Type.String({ pattern: '^[a-z0-9]{1,8}$' }),
    feed: Type.Unsafe<(typeof FEED_IDS)[number]>(Type.Enum([...FEED_IDS], { description: 'what the vehicle gives' })),
    from: Type.Optional(
      Type.Enum(['start', 'accessory'], {
        description: 'the battery behind a feed; the start battery where not stated',
      }),
    ),
    fuse: Type.Optional(Type.Number({ minimum: 0, maximum: 500, description: 'A; 0 is none' })),
    gauge: Type.Enum([...GAUGES]),
    length: metres,
    uses: Type.Array(Type.Unsafe<(typeof USE_IDS)[number]>(Type.Enum([...USE_IDS])), {
      maxItems: 6,
      description: 'what the trailer hangs on it',
    }),
    usesGauge: Type.Enum([...GAUGES]),
    usesLength: metres,
    seen: Type.Optional(Type.Array(PinSeenSchema, { maxItems: PIN_CONDITIONS.length })),
  },
  omit,
);
export type TowWay = Type.Static<typeof TowWaySchema>;

export const TowPlugSchema = Type.Object(
  {
    id: Type.String({ pattern: '^[a-z][a-z0-9-]{0,19}$' }),
    connector: Type.Enum(CONNECTORS.map((c) => c.id)),
    convention: Type.String({ maxLength: 20 }),
    ways: Type.Array(TowWaySchema, { maxItems: 13 }),
  },
  omit,
);
export type TowPlug = Type.Static<typeof TowPlugSchema>;

export const TowInterfaceSchema = Type.Object(
  {
    mass: Type.Optional(Type.Number({ minimum: 50, maximum: 30_000, description: 'kg of the trailer, loaded' })),
    plugs: Type.Array(TowPlugSchema, { minItems: 1, maxItems: 3 }),
    charger: Type.Optional(
      Type.Object(
        {
          amps: Type.Number({ exclusiveMinimum: 0, maximum: 200, description: 'A it gives' }),
          inLimit: Type.Number({ exclusiveMinimum: 0, maximum: 400, description: 'A it takes at most' }),
          lockout: Type.Number({ minimum: 5, maximum: 30, description: 'V at its input below which it stops' }),
          outVolts: Type.Number({ minimum: 5, maximum: 64 }),
          startsAt: Type.Optional(
            Type.Number({ minimum: 5, maximum: 30, description: 'V at its input it takes for “engine on”, by volts' }),
          ),
          stopsAt: Type.Optional(
            Type.Number({
              minimum: 5,
              maximum: 30,
              description: 'V under which it takes the engine to be off, by volts',
            }),
          ),
          enable: Type.Enum(['wire', 'pin', 'sense', 'always'], {
            description:
              'an ignition wire of its own; a position of the connector; by its input’s volts; tied to its input',
          }),
        },
        omit,
      ),
    ),
    fridge: Type.Optional(
      Type.Object(
        {
          watts: Type.Number({ exclusiveMinimum: 0, maximum: 2000, description: 'at 12 V' }),
          trigger: Type.Enum(['none', 'pin', 'looped', 'wire'], {
            description:
              'relay in the trailer: none; its coil on a position of its own; looped to the feed; on an ignition wire of its own',
          }),
        },
        omit,
      ),
    ),
    brakes: Type.Optional(
      Type.Object(
        {
          amps: Type.Number({ exclusiveMinimum: 0, maximum: 60, description: 'all magnets, at 12 V' }),
          supply: Type.Enum(['pin', 'converter']),
        },
        omit,
      ),
    ),
    breakaway: Type.Optional(
      Type.Object(
        {
          capacity: Type.Number({ exclusiveMinimum: 0, maximum: 200, description: 'Ah' }),
          soc: Type.Number({ minimum: 0, maximum: 1 }),
          keeper: Type.Optional(Type.Boolean({ description: 'a maintainer fills it from the trailer’s own battery' })),
        },
        omit,
      ),
    ),
  },
  omit,
);
export type TowInterface = Type.Static<typeof TowInterfaceSchema>;
