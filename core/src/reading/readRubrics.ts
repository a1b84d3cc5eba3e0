import Papa from 'papaparse';
import { checkRubrics } from '../checks/checkRubrics.ts';
import { readCase } from '../formats/case/read.ts';
import { columnsOf } from '../formats/table/columns.ts';
import { readRubricTable } from '../formats/table/read.ts';
import { columnsFrom, proposeColumns, type ColumnRole, type TableLayout } from '../formats/table/roles.ts';
import { DEFAULT_LIMITS, openArchive } from '../intake/archive.ts';
import { decode } from '../intake/decode.ts';
import { fileStem } from '../intake/paths.ts';
import type { Platform } from '../intake/platform.ts';
import { finding, Refusal, type Finding } from '../model/finding.ts';
import type { Format, Holding, Source } from '../model/holding.ts';
import { holding } from '../model/make.ts';
import type { Rubric } from '../model/rubric.ts';
import { idRegistry } from './ids.ts';

/** A workbook of rubrics is small; one that unpacks to more than this is not opened. */
const MAX_WORKBOOK = 100 * 1024 * 1024;

/**
 * Reads a file of rubrics: CASE, or a table as CSV or a workbook.
 * @throws Refusal for a workbook that cannot be opened
 */
export async function readRubrics(
  source: Source,
  format: Format,
  bytes: Uint8Array,
  platform: Platform,
  layouts: readonly TableLayout[] = [],
): Promise<Holding> {
  const findings: Finding[] = [];
  const add = (found: Finding): void => void findings.push(found);
  const ids = idRegistry(() => undefined);
  const claim = (id: string): string => ids('rubric', id);
  const { name: path } = source;
  const table = (rows: string[][], file: { path: string; title: string }): void =>
    void rubrics.push(...readRubricTable(rows, file, claim, add, remembered(rows, layouts)).rubrics);
  const rubrics: Rubric[] = [];
  if (format.container === 'json') rubrics.push(...readCase(decode(bytes).text, path, claim, add));
  else {
    const tables = await rubricTables(path, format.container, bytes, platform);
    for (const { name, rows } of tables)
      table(
        rows,
        name === null
          ? { path, title: fileStem(path) }
          : { path: `${path}!/${name}`, title: tables.length > 1 ? name : fileStem(path) },
      );
  }
  return holding({
    source,
    format,
    title: rubrics[0]?.title || fileStem(path),
    rubrics,
    findings: [...findings, ...checkRubrics(rubrics)],
  });
}

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

/** The columns as somebody has confirmed them for tables with this header. */
function remembered(
  rows: readonly string[][],
  layouts: readonly TableLayout[],
): Parameters<typeof readRubricTable>[4] {
  const { headerRow, roles, by } = proposeColumns(rows, layouts);
  const columns = by === 'remembered' ? columnsFrom(roles, rows[headerRow]!) : null;
  return columns === null || typeof columns === 'string' ? null : { columns, headerRow };
}

/**
 * The tables of a file: one of a CSV, one a sheet of a workbook; empty sheets are left out.
 * @throws Refusal for a workbook that cannot be opened
 */
export async function rubricTables(
  path: string,
  container: Format['container'],
  bytes: Uint8Array,
  platform: Platform,
): Promise<{ name: string | null; rows: string[][] }[]> {
  if (container === 'csv') {
    const text = decode(bytes).text.replace(/^\uFEFF/u, '');
    const { data } = Papa.parse<string[]>(text, { skipEmptyLines: false, delimiter: delimiterOf(text) });
    return [{ name: null, rows: data }];
  }
  const sheets = await workbook(path, bytes, platform);
  return sheets.filter(({ rows }) => rows.some((r) => r.some((c) => c.trim() !== '')));
}

async function workbook(
  path: string,
  bytes: Uint8Array,
  platform: Platform,
): Promise<{ name: string; rows: string[][] }[]> {
  // The same door as for every archive: names, sizes, ratios and checksums are checked before another reader
  // sees it.
  const { findings } = await openArchive(path, bytes, platform, {
    ...DEFAULT_LIMITS,
    maxUnpacked: MAX_WORKBOOK,
  });
  const damaged = findings.find((f) => f.severity === 'error');
  if (damaged) throw new Refusal(damaged);
  try {
    return await platform.readSheets(bytes);
  } catch (error) {
    throw new Refusal(finding('file-unreadable', 'error', { path }, { detail: (error as Error).message }));
  }
}

const DELIMITERS = [',', ';', '\t', '|'];

/**
 * What separates the cells: that which makes most columns of a header that names a criterion, else of all
 * rows alike.
 */
function delimiterOf(text: string): string {
  const columns = DELIMITERS.map((delimiter) => {
    const { data } = Papa.parse<string[]>(text, { delimiter, preview: 10 });
    const named = data.filter((row) => columnsOf(row) !== null).map((row) => row.length);
    const filled = data.filter((row) => row.some((c) => c.trim() !== '')).map((row) => row.length);
    // A header that is known counts for more than any number of columns.
    return { delimiter, count: named.length > 0 ? 1000 + Math.max(...named) : Math.min(...filled) };
  });
  return columns.reduce((best, c) => (c.count > best.count ? c : best)).delimiter;
}
