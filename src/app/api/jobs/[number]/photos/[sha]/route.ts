import { appDb } from '@/server/db';
import { answerWith, fileHash, jobNumber } from '@/server/http';
import { photoContent } from '@/server/job/photos';

/** A photo's file. It never changes: it is named by its content. */
export async function GET(
  _: Request,
  { params }: { params: Promise<{ number: string; sha: string }> },
): Promise<Response> {
  return answerWith(async (actor) => {
    const { number, sha } = await params;
    const content = await photoContent(appDb(), actor, jobNumber(number), fileHash(sha));
    return new Response(new Uint8Array(content), {
      headers: {
        'content-type': 'image/jpeg',
        'cache-control': 'private, max-age=31536000, immutable',
        'x-content-type-options': 'nosniff',
      },
    });
  });
}
