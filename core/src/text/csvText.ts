import Papa from 'papaparse';

/**
 * What a spreadsheet would take for a formula: it would be worked out on the machine of whoever opens the file. Numbers
 * with a sign are numbers.
 */
const FORMULA = /^[=@\t\r]|^[+-](?!\d*[.,]?\d+(e[+-]?\d+)?\s*%?$)/i;

/** Rows as CSV (RFC 4180), each line ended; what looks like a formula is text, with an apostrophe before it. */
export function csvText(rows: readonly (readonly (string | number)[])[]): string {
  if (rows.length === 0) return '';
  const text = Papa.unparse(rows as (string | number)[][], { newline: '\r\n', escapeFormulae: FORMULA });
  return `${text}\r\n`;
}
