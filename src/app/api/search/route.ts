import { appDb } from '@/server/db';
import { searchShop } from '@/server/job/history';
import { answer } from '@/server/http';

/** Words anywhere in the shop's records. */
export async function GET(request: Request): Promise<Response> {
  return answer((actor) => searchShop(appDb(), actor, new URL(request.url).searchParams.get('q') ?? ''), 'search');
}
