/** A check taken back. */
import type { PayloadKit } from '../../payloadKit';
import { TECHNICIAN } from '../../commandDefinition';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'checks',
  word: 'check',
  retracted: true,
  back: 'check.restore',
  who: TECHNICIAN,
  undoWords: 'taking the check back',
});
