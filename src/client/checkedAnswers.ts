'use client';
/**
 * Holds the server's answers against their schemas, where somebody asked for it: in development, and where the server
 * was started with SURRIK_CHECK_ANSWERS (the tests do). A shop's own pages do not load the validators.
 */
import type { ApiAnswer, ApiAnswerName } from '../core/openFormats/answers';

/** Whether answers are to be checked here. */
const checking = (): boolean =>
  process.env.NODE_ENV !== 'production' ||
  (typeof document !== 'undefined' && document.documentElement.dataset['checkAnswers'] === 'yes');

/** An answer that is not what its schema says: our fault, told with the place. */
export class MalformedAnswer extends Error {
  constructor(name: ApiAnswerName, pointer: string, what: string) {
    super(`The server's answer ${name} is not as agreed at ${pointer || '/'}: ${what}`);
  }
}

/** The answer as it came. @throws MalformedAnswer where it is checked and its schema does not allow it */
export async function checkedAnswer<N extends ApiAnswerName>(name: N, answer: unknown): Promise<ApiAnswer<N>> {
  if (checking()) {
    const { default: validators } = await import('../core/openFormats/answerValidators');
    const validate = validators[name];
    if (!validate(answer)) {
      const [first] = validate.errors ?? [];
      throw new MalformedAnswer(name, first?.instancePath ?? '', `${first?.message} ${JSON.stringify(first?.params)}`);
    }
  }
  return answer as ApiAnswer<N>;
}
