import type { Run } from '../../document/block.ts';
import { sliceRuns, textOfRuns } from '../../document/runs.ts';
import type { ContentNode } from '../../model/content.ts';
import { counterText, readCounter } from '../../document/counters.ts';
import { labelsOf } from '../labels.ts';
import type { Part, RawItem } from '../raw.ts';
import { cellContent, inlineOf, piecesOf } from './content.ts';

/** Two columns of things that belong together, and the pairs a key names: `1-b, 2-a, 3-c`. */
export interface Columns {
  readonly left: readonly (readonly ContentNode[])[];
  readonly right: readonly (readonly ContentNode[])[];
  /** What each left one and each right one is called. */
  readonly leftLabels: readonly string[];
  readonly rightLabels: readonly string[];
  /** Whether rows themselves say what belongs together: no label says otherwise. */
  readonly rowsPair: boolean;
  /** What of the stem is no part of the columns. */
  readonly stem: readonly Part[];
}

const FEWEST = 2;

/** Columns of an item: a table in its text, or two lists counted each in its own way. */
export function columnsOf(raw: RawItem): Columns | null {
  return tableColumns(raw) ?? listColumns(raw);
}

function tableColumns(raw: RawItem): Columns | null {
  const part = raw.stem.find((p) => p.line.table);
  const table = part?.line.table;
  if (!part || !table || raw.choices.length > 0 || raw.stem.filter((p) => p.line.table).length > 1)
    return null;
  const rows = table.rows.filter((r) => r.some((c) => c.length > 0));
  if (rows.length < FEWEST || rows.some((r) => r.length < 2 || r.length > 2)) return null;
  // A header names its columns and belongs to neither.
  const labelled = (row: (typeof rows)[number]): boolean =>
    row.some((c) => c.length > 0 && labelledCell(c).label !== '');
  const body = !labelled(rows[0]!) && rows.slice(1).every(labelled) ? rows.slice(1) : rows;
  const cells = (column: number) => body.map((r) => r[column]!).filter((c) => c.length > 0);
  const read = [0, 1].map((column) => cells(column).map((cell) => labelledCell(cell)));
  const labels = read.map((column) => column.map((c) => c.label));
  const counted = labels.map((l) => l.every((x) => x !== ''));
  return {
    left: read[0]!.map((c) => c.content),
    right: read[1]!.map((c) => c.content),
    leftLabels: labels[0]!,
    rightLabels: labels[1]!,
    rowsPair: !counted[1],
    stem: raw.stem.filter((p) => p !== part),
  };
}

type Cell = NonNullable<Part['line']['table']>['rows'][number][number];

function labelledCell(cell: Cell): { label: string; content: ContentNode[] } {
  const [first, ...rest] = cell;
  if (!first) return { label: '', content: [] };
  if (first.label !== '')
    return { label: counterOf(first.label), content: cellContent([{ ...first, label: '' }, ...rest]) };
  const label = labelsOf(textOfRuns(first.runs)).find((l) => l.ordinal > 0);
  if (!label) return { label: '', content: cellContent(cell) };
  const shown = textOfRuns(first.runs).slice(0, label.length);
  return {
    label: counterOf(shown),
    content: cellContent([{ ...first, runs: sliceRuns(first.runs, label.length) }, ...rest]),
  };
}

const counterOf = (label: string): string => label.replace(/[^\p{L}\p{Nd}]/gu, '').toLowerCase();

/** Numbered lines in the stem, lettered ones as its choices. */
function listColumns(raw: RawItem): Columns | null {
  if (raw.choices.length < FEWEST) return null;
  const kinds = new Set(raw.choices.map((c) => c.label?.kind ?? ''));
  const rows = raw.stem.filter(
    (p, at) => at > 0 && p.line.labels.some((l) => l.ordinal > 0 && !kinds.has(l.kind)),
  );
  if (rows.length < FEWEST) return null;
  const labels = rows.map(
    (p, at) => p.line.labels.find((l) => l.ordinal === at + 1 && !kinds.has(l.kind)) ?? null,
  );
  if (labels.includes(null)) return null;
  const content = (runs: readonly Run[], part: Part): ContentNode[] =>
    inlineOf(piecesOf([{ ...part, runs, joins: false, line: { ...part.line, continues: false } }]));
  return {
    left: rows.map((p, at) => content(p.line.automatic ? p.runs : sliceRuns(p.runs, labels[at]!.length), p)),
    right: raw.choices.map((c) => inlineOf(piecesOf(c.parts))),
    leftLabels: rows.map((_, at) => String(at + 1)),
    rightLabels: raw.choices.map((c, at) => (c.label ? counterText(c.label.kind, at + 1).toLowerCase() : '')),
    rowsPair: false,
    stem: raw.stem.filter((p) => !rows.includes(p)),
  };
}

const PAIR =
  /^[\s,;|()]*([\p{L}]|\p{Nd}{1,3})\s*(?:(?:[-–—=:→.)]|->|=>)+\s*)?([\p{L}]|\p{Nd}{1,3})(?=[\s,;|().]|$)[.)]?/u;

/** The pairs that a value names by labels; null where it names none or anything else. */
export function pairsIn(value: string, columns: Columns): [number, number][] | null {
  const out: [number, number][] = [];
  let rest = value.trim();
  while (rest !== '') {
    const found = PAIR.exec(rest);
    if (!found) return null;
    const pair = placeOfPair(found[1]!.toLowerCase(), found[2]!.toLowerCase(), columns);
    if (!pair) return null;
    out.push(pair);
    rest = rest.slice(found[0].length).replace(/^[\s,;|.]+/u, '');
  }
  return out.length > 0 && new Set(out.map(([a]) => a)).size === out.length ? out : null;
}

function placeOfPair(
  a: string,
  b: string,
  { leftLabels, rightLabels, left, right }: Columns,
): [number, number] | null {
  const at = (label: string, labels: readonly string[], count: number): number => {
    const found = labels.indexOf(label);
    if (found >= 0) return found;
    if (labels.some((l) => l !== '')) return -1;
    const ordinal = readCounter(label)[0]?.ordinal ?? 0;
    return ordinal >= 1 && ordinal <= count ? ordinal - 1 : -1;
  };
  const [x, y] = [at(a, leftLabels, left.length), at(b, rightLabels, right.length)];
  if (x >= 0 && y >= 0) return [x, y];
  const [u, v] = [at(b, leftLabels, left.length), at(a, rightLabels, right.length)];
  return u >= 0 && v >= 0 ? [u, v] : null;
}
