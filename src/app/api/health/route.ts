export const dynamic = 'force-dynamic';

/** For the surrik command: this port is ours, and up. */
export function GET(): Response {
  return Response.json({ surrik: true });
}
