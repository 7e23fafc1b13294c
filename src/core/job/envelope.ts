/** What every command carries beside its payload: who, when, and what the sender had seen. */
import Type from 'typebox';
import { ReadingSchema } from './jobSchema';

export interface Enveloped<T extends string, P> {
  id: string;
  type: T;
  version: 1;
  /** Newest change of the job or shop the sender had seen. */
  baseSeq: number;
  at: string;
  actor: string;
  payload: P;
}

export const envelope = <T extends string, P extends Type.TSchema>(type: T, payload: P) =>
  Type.Object(
    {
      id: ReadingSchema.properties.id,
      type: Type.Literal(type),
      version: Type.Literal(1),
      baseSeq: Type.Integer({
        minimum: 0,
        maximum: 2_147_483_647,
        description: 'newest change of the job or shop the sender had seen',
      }),
      at: ReadingSchema.properties.takenAt,
      actor: Type.String({ minLength: 1, maxLength: 60 }),
      payload,
    },
    { additionalProperties: false },
  );
