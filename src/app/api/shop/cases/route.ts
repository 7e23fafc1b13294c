import { validateCaseFile } from '@/core/openFormats/validate';
import { Refused } from '@/server/actor';
import { answer, jsonBody, sameSite } from '@/server/http';

/** Looks a case file through; nothing is kept: what is taken over from it is a setting of the shop. */
export async function POST(request: Request): Promise<Response> {
  return answer(async () => {
    sameSite(request);
    const found = validateCaseFile(await jsonBody(request));
    if (found.ok) return found.value;
    const [first] = found.error;
    throw new Refused(
      400,
      'invalid',
      `This is no case file: at ${first!.pointer} stands ${first!.found}, wanted is ${first!.wanted}. Save it again where it came from.`,
      found.error,
    );
  }, 'import');
}
