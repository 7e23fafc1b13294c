/** A check that had been taken back, put back. */
import type { PayloadKit } from '../../payloadKit';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'checks',
  word: 'check',
  retracted: false,
  back: 'check.retract',
  needs: 'work',
  undoWords: 'putting the check back',
});
