/** Taking an entry of the record back, and putting it back: the entry stays, struck out. */
import type { Act } from '../people/roles';
import { ok } from '../units/result';
import type { CommandDefinition, Undoing } from './commandDefinition';
import type { Job } from './job';
import { refuse, replace } from './refusal';

interface Retraction {
  list: 'photos' | 'readings' | 'observations' | 'checks';
  /** What an entry is called in a refusal. */
  word: string;
  retracted: boolean;
  /** The command that does the opposite. */
  back: Extract<Undoing, { payload: { id: string } }>['type'];
  needs: Act;
  undoWords: string;
}

export function retraction({
  list,
  word,
  retracted,
  back,
  needs,
  undoWords,
}: Retraction): CommandDefinition<{ id: string }> {
  return {
    apply(job, { id }) {
      const entries = job[list] as readonly { id: string }[] | undefined;
      if (!entries?.some((e) => e.id === id)) return refuse(`${word} ${id}`, `a ${word} of this job`);
      return ok({ ...job, [list]: replace(entries, id, (e) => ({ ...e, retracted })) } as Job);
    },
    inverse: ({ id }) => ({ type: back, payload: { id } }) as Undoing,
    collides: ({ id }) => `${word} ${id}`,
    needs,
    // What another measured is a technician's to strike out; it stays, and can be put back.
    takesBack: {
      of: (job, { id }) =>
        (job[list] as readonly { id: string; by?: string }[] | undefined)?.find((e) => e.id === id)?.by,
      needs: 'decide',
    },
    afterSigning: false,
    undoWords,
  };
}
