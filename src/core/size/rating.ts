/** Rating of a fuse or breaker, A: its own figure, else what its note says; 0 where neither does. */
import type { Part } from '../rig/schema';

export const ratingOf = (part: Part): number =>
  part.params['rating']?.value ?? (Number(/(\d+(?:\.\d+)?) A/.exec(part.note ?? '')?.[1]) || 0);
