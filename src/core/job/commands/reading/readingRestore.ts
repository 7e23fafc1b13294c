/** A reading that had been taken back is evidence again. */
import type { PayloadKit } from '../../payloadKit';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'readings',
  word: 'reading',
  retracted: false,
  back: 'reading.retract',
  needs: 'work',
  undoWords: 'putting the reading back',
});
