/** A reading taken back: it stays in the record and is evidence no more. */
import type { PayloadKit } from '../../payloadKit';
import { retraction } from '../../retraction';

export const payload = ({ onlyId }: PayloadKit) => onlyId();
export const command = retraction({
  list: 'readings',
  word: 'reading',
  retracted: true,
  back: 'reading.restore',
  needs: 'work',
  undoWords: 'taking the reading back',
});
