/**
 * Whose rig it is and which: kept with the shop's customers, never in a job file. Every field may be left
 * empty; the reply to "whose is it?" is the nickname on the ticket.
 */
import Type from 'typebox';

const text = (maxLength: number, description: string) => Type.Optional(Type.String({ maxLength, description }));

export const IdentitySchema = Type.Object(
  {
    customer: text(120, 'name of the customer'),
    contact: text(160, 'telephone or address for messages'),
    plate: text(20, 'registration'),
    vin: text(20, 'vehicle identification number'),
    make: text(80, 'year and make as the papers say'),
    odometer: text(20, 'as read at intake, with its unit'),
  },
  { additionalProperties: false },
);
export type Identity = Type.Static<typeof IdentitySchema>;
