import Papa from 'papaparse';
import { checkRubrics } from '../checks/rubrics.ts';
import { readCase } from '../formats/case/read.ts';
import { columnsOf } from '../formats/table/columns.ts';
import { readRubricTable } from '../formats/table/read.ts';
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

/** Reads a file of rubrics: CASE, or a table as CSV or a workbook. @throws Refusal for a workbook that cannot be opened */
export async function readRubrics(
  source: Source,
  format: Format,
  bytes: Uint8Array,
  platform: Platform,
): Promise<Holding> {
  const findings: Finding[] = [];
  const add = (found: Finding): void => void findings.push(found);
  const ids = idRegistry(() => undefined);
  const claim = (id: string): string => ids('rubric', id);
  const { name: path } = source;
  const rubrics: Rubric[] = [];
  if (format.container === 'json') rubrics.push(...readCase(decode(bytes).text, path, claim, add));
  else if (format.container === 'csv') {
    const text = decode(bytes).text.replace(/^\uFEFF/u, '');
    const { data } = Papa.parse<string[]>(text, { skipEmptyLines: false, delimiter: delimiterOf(text) });
    rubrics.push(...readRubricTable(data, { path, title: fileStem(path) }, claim, add).rubrics);
  } else {
    const sheets = await workbook(path, bytes, platform);
    for (const { name, rows } of sheets) {
      if (rows.every((r) => r.every((c) => c.trim() === ''))) continue;
      const title = sheets.length > 1 ? name : fileStem(path);
      rubrics.push(...readRubricTable(rows, { path: `${path}!/${name}`, title }, claim, add).rubrics);
    }
  }
  return holding({ source, format, title: rubrics[0]?.title || fileStem(path), rubrics, findings: [...findings, ...checkRubrics(rubrics)] });
} // prettier-ignore

async function workbook(path: string, bytes: Uint8Array, platform: Platform): Promise<{ name: string; rows: string[][] }[]> {
  const { entries } = await platform.listZip(bytes);
  const unpacked = entries.reduce((sum, e) => sum + e.unpacked, 0);
  if (unpacked > MAX_WORKBOOK) throw new Refusal(finding('archive-too-large', 'error', { path }, { what: 'unpacked', limit: MAX_WORKBOOK, found: unpacked }));
  try {
    return await platform.readSheets(bytes);
  } catch (error) {
    throw new Refusal(finding('file-unreadable', 'error', { path }, { detail: (error as Error).message }));
  }
} // prettier-ignore

const DELIMITERS = [',', ';', '\t', '|'];

/** What separates the cells: that which makes most columns of a header that names a criterion; a comma failing that. */
function delimiterOf(text: string): string {
  const columns = DELIMITERS.map((delimiter) => {
    const { data } = Papa.parse<string[]>(text, { delimiter, preview: 10 });
    return {
      delimiter,
      count: Math.max(0, ...data.filter((row) => columnsOf(row) !== null).map((row) => row.length)),
    };
  });
  return columns.reduce((best, c) => (c.count > best.count ? c : best)).delimiter;
}
