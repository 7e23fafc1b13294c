/** A note or an answer taken back. */
import type { PayloadKit } from '../../payloadKit';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'observations',
  word: 'note',
  retracted: true,
  back: 'note.restore',
  needs: 'desk',
  undoWords: 'taking the answer back',
});
