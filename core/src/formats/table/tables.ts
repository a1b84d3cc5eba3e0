import Papa from 'papaparse';
import { DEFAULT_LIMITS, openArchive, type Allowance } from '../../intake/archive.ts';
import { decode } from '../../intake/decode.ts';
import type { Platform } from '../../intake/platform.ts';
import { finding, Refusal } from '../../model/finding.ts';
import type { Format } from '../../model/holding.ts';
import { columnsOf } from './columns.ts';
import { checkedWorkbook, checkWorkbookSize, TABLE_LIMITS, tableFits } from './workbookSize.ts';

/** A workbook of rubrics is small; one that unpacks to more than this is not opened. */
const MAX_WORKBOOK = 100 * 1024 * 1024;

/**
 * The tables of a file: one of a CSV, one a sheet of a workbook; empty sheets are left out.
 * @throws Refusal for a workbook that cannot be opened
 */
export async function rubricTables(
  path: string,
  container: Format['container'],
  bytes: Uint8Array,
  platform: Platform,
  allowance?: Allowance,
): Promise<{ name: string | null; rows: string[][] }[]> {
  if (container === 'csv') {
    const text = decode(bytes).text.replace(/^\uFEFF/u, '');
    const delimiter = delimiterOf(text.slice(0, SAMPLE));
    checkTextSize(path, text, delimiter);
    const { data } = Papa.parse<string[]>(text, { skipEmptyLines: false, delimiter });
    return [{ name: null, rows: data }];
  }
  const sheets = await workbook(path, bytes, platform, allowance);
  return sheets.filter(({ rows }) => rows.some((r) => r.some((c) => c.trim() !== '')));
}

/** So much of a text shows what its cells are parted by. */
const SAMPLE = 65_536;

/** Counted before the rows are taken apart: as many cells as there are signs that part them, and lines. */
function checkTextSize(path: string, text: string, delimiter: string): void {
  let [cells, columns, widest, rows] = [1, 1, 1, 1];
  for (let at = 0; at < text.length; at++) {
    const c = text[at];
    if (c === delimiter) columns += 1;
    else if (c === '\n' || c === '\r') {
      cells += columns;
      rows += c === '\n' ? 1 : 0;
      widest = Math.max(widest, columns);
      columns = 1;
    }
  }
  tableFits(path, 'columns', Math.max(widest, columns), TABLE_LIMITS.columns);
  tableFits(path, 'rows', rows, TABLE_LIMITS.rows);
  tableFits(path, 'cells', cells + columns, TABLE_LIMITS.cells);
}

async function workbook(
  path: string,
  bytes: Uint8Array,
  platform: Platform,
  allowance: Allowance | undefined,
): Promise<{ name: string; rows: string[][] }[]> {
  // The same door as for every archive: names, sizes, ratios and checksums are checked before another reader
  // sees it.
  const archive = await openArchive(path, bytes, platform, {
    ...DEFAULT_LIMITS,
    maxUnpacked: MAX_WORKBOOK,
    ...(allowance ? { allowance } : {}),
  });
  const damaged = archive.findings.find((f) => f.severity === 'error');
  if (damaged) throw new Refusal(damaged);
  checkWorkbookSize(path, archive);
  try {
    return await platform.readSheets(checkedWorkbook(archive));
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
