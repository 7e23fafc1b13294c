import { appDb } from '@/server/db';
import { answer } from '@/server/http';
import { jobBoard } from '@/server/jobs';

export async function GET(): Promise<Response> {
  return answer((actor) => jobBoard(appDb(), actor));
}
