import { appDb } from '@/server/db';
import { answer, binaryBody, jobNumber, sameSite } from '@/server/http';
import { PHOTO_LIMIT_BYTES, storePhoto } from '@/server/job/photos';

/** Takes in a photo's file; the command that makes it part of the job follows. */
export async function POST(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  return answer(async (actor) => {
    sameSite(request, 'image/');
    return storePhoto(appDb(), actor, jobNumber((await params).number), await binaryBody(request, PHOTO_LIMIT_BYTES));
  }, 'upload');
}
