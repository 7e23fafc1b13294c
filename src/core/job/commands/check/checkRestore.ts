/** A check that had been taken back, put back. */
import type { PayloadKit } from '../../payloadKit';
import { TECHNICIAN } from '../../commandDefinition';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'checks',
  word: 'check',
  retracted: false,
  back: 'check.retract',
  who: TECHNICIAN,
  undoWords: 'putting the check back',
});
