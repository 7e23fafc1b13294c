/** A check taken back. */
import type { PayloadKit } from '../../payloadKit';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'checks',
  word: 'check',
  retracted: true,
  back: 'check.restore',
  needs: 'work',
  undoWords: 'taking the check back',
});
