/** Something to look at again later. */
import type { PayloadKit } from '../../payloadKit';
import { ANYONE } from '../../commandDefinition';
import { itemSet } from '../../itemSet';

export const payload = ({ FollowUpSchema, wasAndSet }: PayloadKit) => wasAndSet(FollowUpSchema);
export const command = itemSet({
  list: 'followUps',
  type: 'followUp.set',
  who: ANYONE,
  afterSigning: true,
  undoWords: 'the follow-up',
});
