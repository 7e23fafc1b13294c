/** Time in a bay. */
import type { PayloadKit } from '../../payloadKit';
import { ANYONE } from '../../commandDefinition';
import { itemSet } from '../../itemSet';

export const payload = ({ BookingSchema, wasAndSet }: PayloadKit) => wasAndSet(BookingSchema);
export const command = itemSet({
  list: 'bookings',
  type: 'booking.set',
  who: ANYONE,
  afterSigning: true,
  undoWords: 'the booking',
});
