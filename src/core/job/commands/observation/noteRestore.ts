/** A note or an answer that had been taken back, put back. */
import type { PayloadKit } from '../../payloadKit';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'observations',
  word: 'note',
  retracted: false,
  back: 'note.retract',
  needs: 'desk',
  undoWords: 'putting the answer back',
});
