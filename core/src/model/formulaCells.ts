/**
 * Cells of tables that a spreadsheet would take for a formula: signs that begin one, full-width ones too, since
 * spreadsheets of some languages read them alike. Common practice: an apostrophe in front makes text of them.
 */
export const FORMULA_START = /^'*[=+\-@\t\r\n\uFF1D\uFF0B\uFF0D\uFF20]/u;

const PLAIN_NUMBER = /^-?\d+(?:\.\d+)?$/u;

/** A text that no spreadsheet takes for a formula; a number stays one. */
export const asTextCell = (text: string): string =>
  FORMULA_START.test(text) && !PLAIN_NUMBER.test(text) ? `'${text}` : text;

/** What was meant before it was made text. */
export const fromTextCell = (cell: string): string =>
  cell.startsWith("'") && FORMULA_START.test(cell.slice(1)) ? cell.slice(1) : cell;
