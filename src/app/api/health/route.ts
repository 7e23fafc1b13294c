import { appDb } from '@/server/db';
import { hasItsData } from '@/server/health';

export const dynamic = 'force-dynamic';

/** This port is ours and the process answers; whether its data does too is told beside it. */
export async function GET(): Promise<Response> {
  return Response.json({ surrik: true, data: await hasItsData(appDb()) }, { headers: { 'cache-control': 'no-store' } });
}
