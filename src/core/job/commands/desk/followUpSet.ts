/** Something to look at again later. */
import type { PayloadKit } from '../../payloadKit';
import { itemSet } from '../../itemSet';

export const payload = ({ FollowUpSchema, wasAndSet }: PayloadKit) => wasAndSet(FollowUpSchema);
export const command = itemSet({
  list: 'followUps',
  type: 'followUp.set',
  needs: 'desk',
  afterSigning: true,
  undoWords: 'the follow-up',
});
