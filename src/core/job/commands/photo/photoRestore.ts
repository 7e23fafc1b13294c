/** A photo that had been taken back, put back. */
import type { PayloadKit } from '../../payloadKit';
import { ANYONE } from '../../commandDefinition';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'photos',
  word: 'photo',
  retracted: false,
  back: 'photo.retract',
  who: ANYONE,
  undoWords: 'putting the photo back',
});
