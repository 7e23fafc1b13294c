/** A photo that had been taken back, put back. */
import type { PayloadKit } from '../../payloadKit';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'photos',
  word: 'photo',
  retracted: false,
  back: 'photo.retract',
  needs: 'desk',
  undoWords: 'putting the photo back',
});
