/** Time in a bay. */
import type { PayloadKit } from '../../payloadKit';
import { itemSet } from '../../itemSet';

export const payload = ({ BookingSchema, wasAndSet }: PayloadKit) => wasAndSet(BookingSchema);
export const command = itemSet({
  list: 'bookings',
  type: 'booking.set',
  needs: 'desk',
  afterSigning: true,
  undoWords: 'the booking',
});
