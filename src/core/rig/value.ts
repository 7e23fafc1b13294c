/** What a part of a rig is set to: its own figure or choice, else its kind's usual one. */
import { partKind, partOptions } from '../parts/kinds';
import type { Part } from './schema';

/** A parameter, in the kind's unit; 0 where the kind has no such parameter. */
export const partValue = (part: Part, name: string): number =>
  part.params[name]?.value ?? partKind(part.kind).params[name]?.default.value ?? 0;
/** An option's id; empty where the kind has no such option. */
export const partOption = (part: Part, name: string): string => partOptions(partKind(part.kind), part)[name] ?? '';
