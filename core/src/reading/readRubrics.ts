import { checkRubrics } from '../checks/checkRubrics.ts';
import { readRubricTable } from '../formats/table/read.ts';
import { columnsFrom, type ColumnRole } from '../formats/table/roles.ts';
import type { Finding } from '../model/finding.ts';
import type { Rubric } from '../model/rubric.ts';
import { idRegistry } from './ids.ts';

/**
 * Reads rubrics from the rows of a table that somebody has before them, by the roles of its columns.
 * @param headerRow the row that names the columns, from 0; -1 where none does
 * @throws RangeError where the roles make no rubric
 */
export function readRubricRows(
  rows: readonly (readonly string[])[],
  title: string,
  roles: readonly ColumnRole[],
  headerRow: number,
): { rubrics: Rubric[]; findings: Finding[] } {
  const columns = columnsFrom(roles, rows[headerRow] ?? []);
  if (typeof columns === 'string') throw new RangeError(columns);
  const findings: Finding[] = [];
  const ids = idRegistry(() => undefined);
  const claim = (id: string): string => ids('rubric', id);
  const { rubrics } = readRubricTable(rows, { path: title, title }, claim, (f) => void findings.push(f), {
    columns,
    headerRow,
  });
  return { rubrics, findings: [...findings, ...checkRubrics(rubrics)] };
}
