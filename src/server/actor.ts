/** The signed-in person, as every use-case takes it. */
export interface Actor {
  shopId: string;
  sessionId: string;
  personId: string;
  name: string;
  role: 'technician' | 'front-desk';
}

/** A refusal with a status and a sentence for the person who asked. */
export class Refused extends Error {
  constructor(
    readonly status: 400 | 401 | 403 | 404 | 409 | 413 | 429,
    readonly code: string,
    message: string,
    readonly detail?: unknown,
  ) {
    super(message);
  }
}
