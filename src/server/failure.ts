/**
 * What went wrong with a request, told apart by what the person on the other side can do about it. Refusals are
 * their own class (actor.ts); everything else is either an outage, which is tried again, or our fault, which is not.
 */

/** PostgreSQL's classes and codes that say it cannot work just now. Source: PostgreSQL documentation, appendix A. */
const OUTAGE_CLASSES = ['08', '53', '57', '58'];
/** Another transaction stood in the way: the same thing sent again goes through. */
const RETRY_CODES = ['40001', '40P01', '55P03'];
/** The network's own words for a database that is not there. */
const NETWORK_CODES = ['ECONNREFUSED', 'ECONNRESET', 'ETIMEDOUT', 'EPIPE', 'ENOENT', 'EHOSTUNREACH'];

/** Whether the server cannot reach its data just now, so that the same request may succeed later. */
export function isOutage(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const code = (error as { code?: unknown }).code;
  if (typeof code === 'string') {
    if (NETWORK_CODES.includes(code) || RETRY_CODES.includes(code)) return true;
    if (/^[0-9A-Z]{5}$/.test(code)) return OUTAGE_CLASSES.includes(code.slice(0, 2));
  }
  // Knex's pool gives up waiting; a connection the server closed under us says so in words only.
  return (
    error.name === 'KnexTimeoutError' ||
    /Connection terminated|Client has encountered a connection error|server closed the connection/.test(error.message)
  );
}
