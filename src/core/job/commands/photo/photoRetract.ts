/** A photo taken back: it stays in the record, struck out. */
import type { PayloadKit } from '../../payloadKit';
import { ANYONE } from '../../commandDefinition';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'photos',
  word: 'photo',
  retracted: true,
  back: 'photo.restore',
  who: ANYONE,
  undoWords: 'taking the photo back',
});
