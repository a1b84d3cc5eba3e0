import { zipSync, type Zippable } from 'fflate';
import type { Archive } from '../../intake/archive.ts';
import { refuse } from '../../model/finding.ts';

/**
 * What a workbook would come to, counted in its parts (ECMA-376 part 1, 18.3.1) before a library builds anything from
 * it: a few bytes can name the last cell of a million rows, or a span over all of them.
 */

/** A table of questions or rubrics is a tenth of this at most. */
export const TABLE_LIMITS = { rows: 100_000, columns: 2_000, cells: 2_000_000 } as const;
const MOST_STRINGS = 1_000_000;

const SHEET = /^xl\/worksheets\/[^/]+\.xml$/iu;
const WORKBOOK = 'xl/workbook.xml';
const STRINGS = /^xl\/sharedStrings\.xml$/iu;

/** @throws Refusal where it has more rows, columns, cells or texts than a table has */
export function checkWorkbookSize(path: string, { files, read }: Archive): void {
  for (const name of files.keys()) {
    const sheet = SHEET.test(name);
    if (!sheet && !STRINGS.test(name)) continue;
    // Names and references are ASCII whatever the encoding of the texts.
    const text = new TextDecoder('latin1').decode(read(name) ?? new Uint8Array());
    if (sheet) checkSheet(path, text);
    else tableFits(path, 'texts', countOf(text, /<si[\s>/]/gu), MOST_STRINGS);
  }
}

export function tableFits(path: string, what: string, found: number, limit: number): void {
  if (found > limit) refuse('table-too-large', { path }, { what, found, limit });
}

function countOf(text: string, pattern: RegExp): number {
  let count = 0;
  for (const _ of text.matchAll(pattern)) count += 1;
  return count;
}

const TOKEN = /<(row|c)(?=[\s>/])([^<>]*)/gu;
const REFERENCE = /\br\s*=\s*["']([^"']{0,20})/u;

function checkSheet(path: string, text: string): void {
  let cells = 0;
  let row = 0;
  let column = 0;
  let widest = 0;
  let lastRow = 0;
  for (const [, kind, attributes = ''] of text.matchAll(TOKEN)) {
    const said = REFERENCE.exec(attributes)?.[1] ?? '';
    if (kind === 'row') {
      cells += column;
      column = 0;
      row = /^\d+$/u.test(said) ? Number(said) : said === '' ? row + 1 : Number.POSITIVE_INFINITY;
    } else {
      const [, letters, digits] = /^([A-Z]{1,7})(\d{1,10})$/u.exec(said) ?? [];
      if (said !== '' && letters === undefined)
        tableFits(path, 'rows', Number.POSITIVE_INFINITY, TABLE_LIMITS.rows);
      column = Math.max(column, letters === undefined ? column + 1 : columnNumber(letters));
      if (digits !== undefined) row = Math.max(row, Number(digits));
    }
    lastRow = Math.max(lastRow, row);
    widest = Math.max(widest, column);
  }
  tableFits(path, 'rows', lastRow, TABLE_LIMITS.rows);
  tableFits(path, 'columns', widest, TABLE_LIMITS.columns);
  tableFits(path, 'cells', cells + column, TABLE_LIMITS.cells);
  tableFits(path, 'cells', mergedCells(text), TABLE_LIMITS.cells);
}

/** "A" is 1, "AA" 27. */
const columnNumber = (letters: string): number =>
  [...letters].reduce((n, letter) => n * 26 + letter.charCodeAt(0) - 64, 0);

/** All cells that merged spans cover. */
function mergedCells(text: string): number {
  let cells = 0;
  for (const [, ref = ''] of text.matchAll(/<mergeCell(?=\s)[^<>]*?\bref\s*=\s*["']([^"']{0,40})/gu)) {
    const ends = /^([A-Z]{1,7})(\d{1,10}):([A-Z]{1,7})(\d{1,10})$/u.exec(ref);
    if (!ends) continue;
    const [, left, top, right, bottom] = ends;
    const [wide, high] = [columnNumber(right!) - columnNumber(left!), Number(bottom) - Number(top)];
    cells += (Math.abs(wide) + 1) * (Math.abs(high) + 1);
  }
  return cells;
}

/**
 * The same workbook as one archive of what has been checked, without its named spans: the library would make a cell of
 * each place that they cover.
 */
export function checkedWorkbook({ files, read }: Archive): Uint8Array {
  const parts: Zippable = {};
  for (const name of files.keys()) {
    const bytes = read(name);
    if (bytes) parts[name] = name === WORKBOOK ? withoutNames(bytes) : bytes;
  }
  return zipSync(parts, { level: 0 });
}

function withoutNames(bytes: Uint8Array): Uint8Array {
  const text = new TextDecoder().decode(bytes);
  const [from, end] = [text.indexOf('<definedNames'), text.lastIndexOf('</definedNames>')];
  if (from < 0 || end < from) return bytes;
  return new TextEncoder().encode(text.slice(0, from) + text.slice(end + '</definedNames>'.length));
}
