/** What was read out of a recorder's log. */
import type { PayloadKit } from '../../payloadKit';
import { itemSet } from '../../itemSet';

export const payload = ({ KeptLogSchema, wasAndSet }: PayloadKit) => wasAndSet(KeptLogSchema);
export const command = itemSet({
  list: 'logs',
  type: 'log.set',
  needs: 'work',
  afterSigning: true,
  undoWords: 'the log',
});
