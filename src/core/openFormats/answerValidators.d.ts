/** Shape of the generated validators of answers; see scripts/generate-schemas.ts. */
import type { AnswerName } from './answers';
import type { Validator } from './validators';

declare const validators: Readonly<Record<AnswerName, Validator>>;
export default validators;
