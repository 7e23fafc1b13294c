/** Why the plan of a build was changed. */
import type { PayloadKit } from '../../payloadKit';
import { itemSet } from '../../itemSet';

export const payload = ({ PlanChangeSchema, wasAndSet }: PayloadKit) => wasAndSet(PlanChangeSchema);
export const command = itemSet({
  list: 'planChanges',
  type: 'planChange.set',
  needs: 'decide',
  afterSigning: false,
  undoWords: 'the change of plan',
});
