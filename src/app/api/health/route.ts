import { appDb } from '@/server/db';

export const dynamic = 'force-dynamic';

/** For the surrik command: this port is ours, and whether its data answers. */
export async function GET(): Promise<Response> {
  const data = await appDb()
    .raw('SELECT 1')
    .then(
      () => true,
      () => false,
    );
  return Response.json({ surrik: true, data });
}
