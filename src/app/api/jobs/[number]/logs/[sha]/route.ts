import { Readable } from 'node:stream';
import { createGunzip } from 'node:zlib';
import { appDb } from '@/server/db';
import { answerWith, fileHash, jobNumber } from '@/server/http';
import { packedLog } from '@/server/job/logs';

/** A log as it came. It never changes: it is named by its content. */
export async function GET(
  _: Request,
  { params }: { params: Promise<{ number: string; sha: string }> },
): Promise<Response> {
  return answerWith(async (actor) => {
    const { number, sha } = await params;
    const packed = await packedLog(appDb(), actor, jobNumber(number), fileHash(sha));
    // Unpacked on the way; a server in front of this one may pack it again.
    return new Response(Readable.toWeb(Readable.from([packed]).pipe(createGunzip())) as ReadableStream<Uint8Array>, {
      headers: {
        'content-type': 'text/plain; charset=utf-8',
        'content-disposition': `attachment; filename="log-${sha.slice(0, 12)}.csv"`,
        'cache-control': 'private, max-age=31536000, immutable',
        'x-content-type-options': 'nosniff',
      },
    });
  });
}
