/** A note or an answer that had been taken back, put back. */
import type { PayloadKit } from '../../payloadKit';
import { ANYONE } from '../../commandDefinition';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'observations',
  word: 'note',
  retracted: false,
  back: 'note.retract',
  who: ANYONE,
  undoWords: 'putting the answer back',
});
