/** A photo taken back: it stays in the record, struck out. */
import type { PayloadKit } from '../../payloadKit';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'photos',
  word: 'photo',
  retracted: true,
  back: 'photo.restore',
  needs: 'desk',
  undoWords: 'taking the photo back',
});
