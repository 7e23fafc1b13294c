import { appDb } from '@/server/db';
import { hasItsData } from '@/server/health';

export const dynamic = 'force-dynamic';

/** Whether requests may be sent here: 503 while the database does not answer. */
export async function GET(): Promise<Response> {
  const ready = await hasItsData(appDb());
  return Response.json({ ready }, { status: ready ? 200 : 503, headers: { 'cache-control': 'no-store' } });
}
