/** The inverse that every edit of the rig shares: a change is withdrawn, a description is turned round. */
import type { Undoing } from './commandDefinition';

/** @param otherwise what takes the edit back where the rig itself was not changed */
export const editInverse = (edit: { means: string; revision?: string }, otherwise: Undoing): Undoing =>
  edit.means === 'changed' ? { type: 'change.withdraw', payload: { revision: edit.revision! } } : otherwise;
