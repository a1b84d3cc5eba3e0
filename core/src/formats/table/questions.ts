import { fileStem } from '../../intake/paths.ts';
import type { Layout } from '../../layout/layout.ts';
import { recogniseTable } from '../../layout/table/read.ts';
import type { ReadingContext } from '../draft.ts';
import { readRecognised } from '../document/read.ts';
import type { FileRead } from '../format.ts';
import { columnsOf } from './columns.ts';

interface NamedTable {
  /** A sheet's name; null for a file of one table. */
  readonly name: string | null;
  readonly rows: string[][];
}

/** The questions of tables, a bank each; null where none of them holds any, or they are of rubrics. */
export function readQuestionTables(
  path: string,
  tables: readonly NamedTable[],
  context: ReadingContext,
  layout: Layout | null,
): FileRead | null {
  if (tables.some(({ rows }) => rows.slice(0, 10).some((r) => columnsOf(r) !== null))) return null;
  const read = tables.flatMap(({ name, rows }) => {
    const place = name === null ? path : `${path}!/${name}`;
    const title = name !== null && (tables.length > 1 || !UNNAMED_SHEET.test(name)) ? name : '';
    const found = recogniseTable(place, title, rows.map(plainCells), layout);
    return found ? [found] : [];
  });
  return read.length === 0 ? null : readRecognised(read, context, fileStem(path));
}

/** What spreadsheets call a sheet that nobody has named. */
const UNNAMED_SHEET = /^(?:sheet|tabelle|hoja|feuil|planilha|foglio|лист|ورقة|シート|工作表|blad)\s?\d*$/iu;

/** The sign that keeps a cell from being a formula is no part of what it says. */
const plainCells = (row: readonly string[]): string[] =>
  row.map((c) => c.replace(/^'(?='*[=+\-@\t\r])/u, ''));
