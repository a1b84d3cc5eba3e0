import Papa from 'papaparse';
import { fileStem } from '../../intake/paths.ts';
import { emptyDraft } from '../draft.ts';
import type { FileFormat } from '../format.ts';
import { readQuestionTables } from './questions.ts';
import { readRubricTable } from './read.ts';
import { columnsFrom, proposeColumns, type TableLayout } from './roles.ts';
import { rubricTables } from './tables.ts';

/** Questions or rubrics in a table: a CSV, or the sheets of a workbook. */
export const TABLE_FILES: FileFormat = {
  detect({ entries, head, cut }) {
    if (entries)
      return entries.has('xl/workbook.xml') ? { container: 'xlsx', standard: 'table', version: null } : null;
    if (/^(?:<|\{\\rtf|%PDF-)/u.test(head)) return null;
    const table = namesCriteria(head) || isEven(head, cut);
    return table ? { container: 'csv', standard: 'table', version: null } : null;
  },
  async read({ container }, bytes, { path, claim, add, platform, layouts, confirmed, onRecognised }) {
    const draft = emptyDraft();
    const tables = await rubricTables(path, container, bytes, platform);
    const questions = readQuestionTables(path, tables, { path, claim, add, onRecognised }, confirmed);
    if (questions) return questions;
    for (const { name, rows } of tables) {
      const file =
        name === null
          ? { path, title: fileStem(path) }
          : { path: `${path}!/${name}`, title: tables.length > 1 ? name : fileStem(path) };
      const known = remembered(rows, layouts);
      draft.rubrics.push(...readRubricTable(rows, file, (id) => claim('rubric', id), add, known).rubrics);
    }
    return { draft };
  },
};

/** The columns as somebody has confirmed them for tables with this header. */
function remembered(
  rows: readonly string[][],
  layouts: readonly TableLayout[],
): Parameters<typeof readRubricTable>[4] {
  const { headerRow, roles, by } = proposeColumns(rows, layouts);
  const columns = by === 'remembered' ? columnsFrom(roles, rows[headerRow]!) : null;
  return columns === null || typeof columns === 'string' ? null : { columns, headerRow };
}

/** A row that names a criterion; it may stand below a title. */
const namesCriteria = (head: string): boolean =>
  head
    .split(/\r?\n/u)
    .slice(0, 10)
    .some((l) => /criteri(?:on|a)|aspect/iu.test(l) && /[,;\t|]/u.test(l));

/** Rows of as many cells each, three or more: a table, whatever its header says. */
function isEven(head: string, cut: boolean): boolean {
  return [';', '\t', ','].some((delimiter) => {
    const { data } = Papa.parse<string[]>(head, { delimiter, skipEmptyLines: 'greedy', preview: 12 });
    const rows = cut ? data.slice(0, -1) : data;
    return rows.length > 1 && rows[0]!.length > 2 && rows.every((r) => r.length === rows[0]!.length);
  });
}
