/** Shape of the generated validators of answers; see scripts/generate-schemas.ts. */
import type { ApiAnswerName } from './answers';
import type { Validator } from './validators';

declare const validators: Readonly<Record<ApiAnswerName, Validator>>;
export default validators;
