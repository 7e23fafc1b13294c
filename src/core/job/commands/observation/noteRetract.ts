/** A note or an answer taken back. */
import type { PayloadKit } from '../../payloadKit';
import { ANYONE } from '../../commandDefinition';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'observations',
  word: 'note',
  retracted: true,
  back: 'note.restore',
  who: ANYONE,
  undoWords: 'taking the answer back',
});
