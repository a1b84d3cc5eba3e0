import type { Block, BlockDocument, Paragraph, Run, TableBlock } from '../document/block.ts';
import { linesOfRuns, sliceRuns, textOfRuns, trimRuns } from '../document/runs.ts';
import { labelsOf, type Label } from './labels.ts';

/** One line of a document as the recogniser looks at it: a paragraph, a part of one up to its break, or a table. */
export interface Line {
  /** Its place among all lines, from 0. */
  readonly at: number;
  /** The block it stands in, from 1. */
  readonly block: number;
  readonly page: number | null;
  readonly line: number | null;
  /** Everything but an automatic label, a sign and a front (below). */
  readonly runs: readonly Run[];
  readonly text: string;
  /** What the line may be labelled by; `length` counts characters of `text`, 0 where the label is automatic. */
  readonly labels: readonly Label[];
  readonly automatic: boolean;
  readonly level: number;
  readonly heading: number;
  readonly apart: boolean;
  /** It ends where the page does, and may go on in the next one. */
  readonly full: boolean;
  /** It goes on in the paragraph of the line before. */
  readonly continues: boolean;
  /** A sign before the label, `*` or `✓`. */
  readonly sign: string;
  /** What was written on a rule before the number: the "b" of `__b__ 12.`; null where there is no rule. */
  readonly front: string | null;
  /** A table that is looked at as a whole. */
  readonly table: TableBlock | null;
}

const SIGN = /^([*✓✔√☑+#→►>xX]{1,2})[ \t]?(?=[([（]?[\p{L}\p{Nd}]{1,4}(?:\.[)-]|[.)\]:、．）])\s)/u;
const FRONT = /^(?:_+\s*(\p{L}{1,8})(?:\s*_+)?|_+(?:\s+_+)?|(\p{L})\s*_{2,})\s*(?=\p{Nd}{1,4}[.)]|$)/u;

/** The lines of a document, tables of labelled cells taken apart. */
export function linesOf(document: Pick<BlockDocument, 'blocks'>): Line[] {
  const lines: Line[] = [];
  const add = (line: Omit<Line, 'at'>): void => void lines.push({ ...line, at: lines.length });
  for (const block of document.blocks) {
    if (block.kind === 'paragraph') paragraphLines(block, block, '', add);
    else tableLines(block, add);
  }
  return lines;
}

type Add = (line: Omit<Line, 'at'>) => void;

/** @param label a label that stands in a cell of its own before this one */
function paragraphLines(paragraph: Paragraph, block: Block, label: string, add: Add): void {
  const shown = label || paragraph.label;
  let first = true;
  for (const raw of linesOfRuns(paragraph.runs)) {
    const trimmed = trimRuns(raw);
    if (trimmed.length === 0) continue;
    add(lineOf(paragraph, block, trimmed, first ? shown : '', !first));
    first = false;
  }
}

function lineOf(
  paragraph: Paragraph,
  block: Block,
  given: readonly Run[],
  shown: string,
  continues: boolean,
): Omit<Line, 'at'> {
  const whole = textOfRuns(given);
  const front = FRONT.exec(whole);
  const frontLength = front && (front[0].length < whole.length || shown !== '') ? front[0].length : 0;
  const sign = frontLength > 0 ? null : SIGN.exec(whole);
  const cut = frontLength || (sign?.[0].length ?? 0);
  const runs = cut > 0 ? sliceRuns(given, cut) : given;
  const text = cut > 0 ? whole.slice(cut) : whole;
  const typed = labelsOf(text);
  const own = shown === '' ? [] : labelsOf(shown.trim(), true).map((l) => ({ ...l, length: 0 }));
  // A typed label behind a bullet says more than the bullet.
  const byHand = typed.length > 0 && own.every((l) => l.ordinal === 0);
  return {
    block: block.n,
    page: block.page,
    line: block.line,
    runs,
    text,
    labels: byHand ? typed : own.length > 0 ? own : typed,
    automatic: !byHand && own.length > 0,
    level: paragraph.level,
    heading: paragraph.heading,
    apart: paragraph.apart && !continues,
    full: paragraph.full,
    continues,
    sign: sign?.[1] ?? '',
    front: frontLength > 0 ? front![1] || front![2] || '' : null,
    table: null,
  };
}

const cellText = (cell: readonly Paragraph[]): string =>
  cell
    .map((p) => `${p.label} ${textOfRuns(p.runs)}`.trim())
    .join('\n')
    .trim();

/** Whether all of a cell is a label. */
const bareLabel = (text: string): boolean =>
  text.length <= 16 && labelsOf(text, true).some((l) => l.length >= text.length && l.ordinal > 0);
const labelled = (text: string): Label[] => labelsOf(text).filter((l) => l.ordinal > 0);

function tableLines(table: TableBlock, add: Add): void {
  if (isAnswerGrid(table)) {
    gridLines(table, add);
    return;
  }
  if (isTakenApart(table)) {
    for (const row of table.rows) rowLines(row, table, add);
    return;
  }
  add({ ...EMPTY_LINE, block: table.n, page: table.page, line: table.line, table, text: '', apart: true });
}

export const EMPTY_LINE: Omit<Line, 'at' | 'block'> = {
  page: null,
  line: null,
  runs: [],
  text: '',
  labels: [],
  automatic: false,
  level: 0,
  heading: 0,
  apart: true,
  full: false,
  continues: false,
  sign: '',
  front: null,
  table: null,
};

function rowLines(row: TableBlock['rows'][number], table: TableBlock, add: Add): void {
  let label = '';
  for (const cell of row) {
    const text = cellText(cell);
    if (text === '') continue;
    if (label === '' && bareLabel(text)) {
      label = text;
      continue;
    }
    for (const [at, paragraph] of cell.entries())
      paragraphLines(paragraph, table, at === 0 ? label : '', add);
    label = '';
  }
  // A lone label at a row's end is what the row says.
  const last = row.findLast((cell) => cell.length > 0)?.[0];
  if (label !== '' && last) paragraphLines({ ...last, label: '' }, table, '', add);
}

/** A table whose rows begin with labels, or whose cells are choices: made for the eye, not to be read as a table. */
function isTakenApart(table: TableBlock): boolean {
  const rows = table.rows
    .map((cells) => cells.map(cellText).filter((t) => t !== ''))
    .filter((r) => r.length > 0);
  if (rows.length === 0) return false;
  if (rows.every((r) => r.length === 1)) return true;
  const begins = rows.filter(([first]) => bareLabel(first!) || labelled(first!).length > 0);
  if (begins.length < rows.length * 0.6) return false;
  return !isPaired(rows);
}

/** Two columns counted each in its own way: things to be matched. */
function isPaired(rows: readonly (readonly string[])[]): boolean {
  const kindsOf = (column: number): Set<string> =>
    new Set(rows.flatMap((r) => labelled(r[column] ?? '').slice(0, 1)).map((l) => l.kind));
  const [left, right] = [kindsOf(0), kindsOf(1)];
  return left.size === 1 && right.size === 1 && [...left][0] !== [...right][0];
}

/** Numbers and short words alternating by rows: `1 2 3` over `b c a`. */
function isAnswerGrid(table: TableBlock): boolean {
  const rows = table.rows.map((cells) => cells.map(cellText));
  return (
    rows.length >= 2 &&
    rows.length % 2 === 0 &&
    rows.every((row, at) => (at % 2 === 0 ? isNumbers(row) : row.every((c) => c.length <= 12))) &&
    !rows.every(isNumbers)
  );
}
const isNumbers = (row: readonly string[]): boolean => {
  const filled = row.filter((c) => c !== '');
  return filled.length >= 2 && filled.every((c) => /^\p{Nd}{1,4}[.)]?$/u.test(c));
};

function gridLines(table: TableBlock, add: Add): void {
  for (let at = 0; at + 1 < table.rows.length; at += 2)
    for (const [column, cell] of table.rows[at]!.entries()) {
      const value = table.rows[at + 1]![column]?.[0];
      if (cell.length > 0 && value)
        paragraphLines(value, table, `${cellText(cell).replace(/[.)]$/u, '')}.`, add);
    }
}
