/** What one asks of one's own sign-in, and how it stands: shapes at the edge. */
import Type from 'typebox';
import { ROLES } from './roles';

const CLOSED = { additionalProperties: false } as const;
const password = Type.String({ minLength: 1, maxLength: 200, description: 'asked again: a tablet may lie open' });

export const OwnSignInChangeSchema = Type.Union([
  Type.Object({ do: Type.Literal('second-begin'), password }, CLOSED),
  Type.Object(
    { do: Type.Literal('second-confirm'), code: Type.String({ minLength: 6, maxLength: 12, description: 'of now' }) },
    CLOSED,
  ),
  Type.Object({ do: Type.Enum(['second-off', 'pin-off']), password }, CLOSED),
  Type.Object({ do: Type.Literal('pin'), pin: Type.String({ pattern: '^\\d{4,8}$' }), password }, CLOSED),
]);
export type OwnSignInChange = Type.Static<typeof OwnSignInChangeSchema>;

export const OwnSignInSchema = Type.Object(
  {
    name: Type.String(),
    role: Type.Enum(ROLES.map((r) => r.id)),
    second: Type.Boolean({ description: 'a code is asked for after the password' }),
    paper: Type.Integer({ minimum: 0, description: 'codes on paper that are left' }),
    pin: Type.Boolean(),
  },
  CLOSED,
);

export const OwnSignInChangedSchema = Type.Object(
  {
    secret: Type.Optional(Type.String({ description: 'base 32; shown this once' })),
    picture: Type.Optional(Type.String({ description: 'the same for a phone to read: a data address of a picture' })),
    codes: Type.Optional(Type.Array(Type.String(), { description: 'for paper; shown this once' })),
  },
  CLOSED,
);
