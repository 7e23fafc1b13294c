/** Shape of the generated validators; see scripts/generate-schemas.ts. One `validate_<type>` a command type. */
export interface SchemaError {
  instancePath: string;
  keyword: string;
  message?: string;
  params: Record<string, unknown>;
}
export interface Validator {
  (data: unknown): boolean;
  errors?: SchemaError[] | null;
}
export const validateJob: Validator;
export const validateOpenJob: Validator;
export const validatePeopleChange: Validator;
export const validateOwnSignInChange: Validator;
export const validateCases: Validator;
