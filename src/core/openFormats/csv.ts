/** Rows as RFC 4180: CRLF, quotes doubled; a cell that a spreadsheet would take for a formula is made harmless. */
const cell = (value: string | number): string => {
  if (typeof value === 'number') return String(value);
  const safe = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe;
};

/** One line a row, the last one closed too. */
export const csvRows = (rows: readonly (readonly (string | number)[])[]): string =>
  [...rows.map((r) => r.map(cell).join(',')), ''].join('\r\n');
