/** What is asked of the list of people, and the list itself: shapes at the edge. */
import Type from 'typebox';
import { ROLES } from './roles';

const CLOSED = { additionalProperties: false } as const;
const id = Type.String({ format: 'uuid' });
const role = Type.Enum(ROLES.map((r) => r.id));
const text = Type.String();

export const PeopleChangeSchema = Type.Union([
  Type.Object(
    {
      do: Type.Literal('add'),
      handle: Type.String({ pattern: '^[a-z0-9][a-z0-9._@-]{1,59}$', description: 'what one signs in with' }),
      name: Type.String({ minLength: 1, maxLength: 60, pattern: '\\S', description: 'as records name the person' }),
      role,
    },
    CLOSED,
  ),
  Type.Object({ do: Type.Literal('role'), person: id, role }, CLOSED),
  Type.Object({ do: Type.Enum(['let-go', 'take-back', 'invite', 'sign-out', 'second-off']), person: id }, CLOSED),
]);
export type PeopleChange = Type.Static<typeof PeopleChangeSchema>;

export const PeopleSchema = Type.Object(
  {
    people: Type.Array(
      Type.Object(
        {
          id: text,
          handle: text,
          name: text,
          role,
          active: Type.Boolean(),
          invited: Type.Boolean({ description: 'no password was set yet: only an invitation was made' }),
          second: Type.Boolean({ description: 'a code is asked for after the password' }),
          seen: Type.Optional(Type.String({ description: 'when the last session began' })),
        },
        CLOSED,
      ),
    ),
    acts: Type.Array(Type.Object({ at: text, by: text, of: text, act: text }, CLOSED), {
      description: 'what was done to people, newest first; for those who may change them',
    }),
    actor: Type.Object({ name: text, role }, CLOSED),
  },
  CLOSED,
);
