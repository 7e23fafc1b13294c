import { may, whoMay, type Act, type Role } from '../core/people/roles';

/** The signed-in person, as every use-case takes it. */
export interface Actor {
  shopId: string;
  sessionId: string;
  personId: string;
  name: string;
  role: Role;
}

/** A refusal with a status and a sentence for the person who asked. */
export class Refused extends Error {
  constructor(
    readonly status: 400 | 401 | 403 | 404 | 409 | 413 | 429 | 503,
    readonly code: string,
    message: string,
    readonly detail?: unknown,
  ) {
    super(message);
  }
}

/** Refuses what the person may not do. */
export function mayOrRefuse(actor: Actor, act: Act): void {
  if (!may(actor.role, act))
    throw new Refused(403, 'role', `This is for ${whoMay(act)} to do. You are signed in as ${actor.name}.`);
}
