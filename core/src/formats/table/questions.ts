import { fromTextCell } from '../../model/formulaCells.ts';
import { fileStem } from '../../intake/paths.ts';
import { confirmedFor, type Confirmed } from '../../layout/confirmed.ts';
import type { Allowance } from '../../intake/archive.ts';
import type { Platform } from '../../intake/platform.ts';
import { recogniseTable } from '../../layout/table/read.ts';
import type { ReadingContext } from '../draft.ts';
import { readRecognised, type RecognisedAs } from '../document/read.ts';
import type { FileRead } from '../format.ts';
import { columnsOf } from './columns.ts';
import { rubricTables } from './tables.ts';

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
  confirmed: Confirmed,
): FileRead | null {
  const found = understoodTables(path, tables, confirmed);
  return found && readRecognised(found, context);
}

/** The tables of a file that is one of several; null where it holds no questions. */
export async function recognisedTables(
  path: string,
  container: 'csv' | 'xlsx',
  bytes: Uint8Array,
  platform: Platform,
  confirmed: Confirmed,
  allowance: Allowance,
): Promise<RecognisedAs[] | null> {
  return understoodTables(path, await rubricTables(path, container, bytes, platform, allowance), confirmed);
}

function understoodTables(
  path: string,
  tables: readonly NamedTable[],
  confirmed: Confirmed,
): RecognisedAs[] | null {
  if (tables.some(({ rows }) => rows.slice(0, 10).some((r) => columnsOf(r) !== null))) return null;
  const read = tables.flatMap(({ name, rows }): RecognisedAs[] => {
    const place = name === null ? path : `${path}!/${name}`;
    const title = name !== null && (tables.length > 1 || !UNNAMED_SHEET.test(name)) ? name : '';
    const recognised = recogniseTable(place, title, rows.map(plainCells), confirmedFor(confirmed, place));
    return recognised ? [{ recognised, name: fileStem(path) }] : [];
  });
  return read.length === 0 ? null : read;
}

/** What spreadsheets call a sheet that nobody has named. */
const UNNAMED_SHEET = /^(?:sheet|tabelle|hoja|feuil|planilha|foglio|лист|ورقة|シート|工作表|blad)\s?\d*$/iu;

/** The sign that keeps a cell from being a formula is no part of what it says. */
const plainCells = (row: readonly string[]): string[] => row.map(fromTextCell);
