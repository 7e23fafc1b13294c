/** One thing wrong with a document: where (JSON pointer), what stands there, what is wanted. */
export interface DocumentIssue {
  pointer: string;
  found: string;
  wanted: string;
}

/** A value as it may be shown in a message: short, on one line. */
export function shown(value: unknown): string {
  const text = value === undefined ? 'nothing' : (JSON.stringify(value) ?? String(value));
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}
