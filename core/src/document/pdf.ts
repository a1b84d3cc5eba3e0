import type { PdfPage, PdfText } from '../intake/platform.ts';
import { finding, type Finding } from '../model/finding.ts';
import { mergeRuns, Stream, textRun, type BlockDocument, type Run } from './block.ts';
import { textOfRuns } from './runs.ts';

/** Pages with a text layer as lines: columns one after the other, heads and feet that recur left out. */
export function readPdfPages(path: string, pages: readonly PdfPage[], title: string): BlockDocument {
  const findings: Finding[] = [];
  const lines = pages.map((page) => linesOf(page));
  if (lines.every((l) => l.length === 0)) {
    findings.push(finding('document-scanned', 'error', { path }, { pages: pages.length }));
    return { path, title, wraps: true, blocks: [], files: [], findings };
  }
  const bare = lines.flatMap((l, at) => (l.length === 0 ? [at + 1] : []));
  if (bare.length > 0)
    findings.push(finding('pages-scanned', 'warning', { path }, { pages: bare.slice(0, 20).join(', ') }));
  const recurring = recurringLines(lines, pages);
  const sizes = headingSizes(lines.flat());
  const stream = new Stream();
  for (const [at, page] of lines.entries()) {
    let before: PageLine | null = null;
    for (const line of page) {
      if (recurring.has(foldLine(line.text)) && isEdge(line, pages[at]!)) continue;
      const gap = before ? before.y - line.y : 0;
      const apart = before === null ? undefined : gap > line.height * APART || gap < 0;
      stream.paragraph(line.runs, {
        page: at + 1,
        heading: sizes.indexOf(Math.round(line.height)) + 1,
        apart: apart ?? false,
        full: line.right >= rightOf(page) * FULL,
        level: Math.max(0, Math.min(9, Math.floor(line.indent / 9))),
      });
      before = line;
    }
  }
  return { path, title, wraps: true, blocks: joinHyphens(stream.blocks), files: [], findings };
}

/** A line that ends before this share of the longest one's width goes on nowhere. */
const FULL = 0.72;
const rightOf = (lines: readonly PageLine[]): number => Math.max(...lines.map((l) => l.right));

/** Sizes of letters well above the usual one, the largest first: what is set in them stands above the rest. */
function headingSizes(lines: readonly PageLine[]): number[] {
  const letters = new Map<number, number>();
  for (const l of lines)
    letters.set(Math.round(l.height), (letters.get(Math.round(l.height)) ?? 0) + l.text.length);
  const usual = [...letters].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 10;
  const all = [...letters.values()].reduce((sum, n) => sum + n, 0);
  return [...letters]
    .filter(([size, count]) => size >= usual * 1.18 && count < all * 0.2)
    .map(([size]) => size)
    .sort((a, b) => b - a)
    .slice(0, 4);
}

/** A gap of so many line heights sets a paragraph apart. */
const APART = 1.75;

interface PageLine {
  readonly runs: Run[];
  readonly text: string;
  /** From the foot of the page, in points. */
  readonly y: number;
  readonly height: number;
  readonly indent: number;
  /** Where it ends, from the side of its column that lines begin at. */
  readonly right: number;
}

function linesOf(page: PdfPage): PageLine[] {
  return columnsOf(page).flatMap((texts) => {
    const edges = {
      left: Math.min(...texts.map((t) => t.x)),
      right: Math.max(...texts.map((t) => t.x + t.width)),
    };
    return rowsOf(texts)
      .map((row) => lineOf(row, edges))
      .filter((l) => l.text.trim() !== '');
  });
}

/** Texts of one height, from left to right; in a script that runs the other way the page says so. */
function rowsOf(texts: readonly PdfText[]): PdfText[][] {
  const rows: PdfText[][] = [];
  for (const text of [...texts].sort((a, b) => b.y - a.y || a.x - b.x)) {
    const row = rows.at(-1);
    const [first] = row ?? [];
    if (first && Math.abs(first.y - text.y) <= Math.max(2, first.height * 0.45)) row!.push(text);
    else rows.push([text]);
  }
  return rows.map((row) => {
    const leftward = isLeftward(row);
    return row.sort((a, b) => (leftward ? b.x + b.width - (a.x + a.width) : a.x - b.x));
  });
}

/** Whether most letters of a row run from right to left. */
function isLeftward(row: readonly PdfText[]): boolean {
  const letters = (rtl: boolean): number =>
    row.reduce((sum, t) => sum + (t.rtl === rtl ? t.text.replace(/[^\p{L}]/gu, '').length : 0), 0);
  return letters(true) > letters(false);
}

function lineOf(row: readonly PdfText[], column: { left: number; right: number }): PageLine {
  const runs: Run[] = [];
  let end: { left: number; right: number } | null = null;
  let before: PdfText | null = null;
  for (const t of row) {
    const leftward = before !== null && t.x < before.x;
    const gap = end === null ? 0 : leftward ? end.left - (t.x + t.width) : t.x - end.right;
    const blank =
      end !== null && gap > t.height * 0.18 && !/\s$/u.test(textOfRuns(runs)) && !/^\s/u.test(t.text);
    runs.push(
      textRun(`${blank ? (gap > t.height * 1.6 ? '   ' : ' ') : ''}${t.text}`, {
        bold: t.bold,
        italic: t.italic,
        underline: t.underline,
        highlight: t.highlight,
        color: t.color,
      }),
    );
    end = { left: t.x, right: t.x + t.width };
    before = t;
  }
  const merged = mergeRuns(runs);
  const [first, second] = row;
  const leftward = isLeftward(row) && (second === undefined || second.x < first!.x);
  const from = Math.min(...row.map((t) => t.x));
  const to = Math.max(...row.map((t) => t.x + t.width));
  return {
    runs: merged,
    text: textOfRuns(merged),
    y: first!.y,
    height: Math.max(...row.map((t) => t.height)),
    indent: leftward ? column.right - to : from - column.left,
    right: leftward ? column.right - from : to - column.left,
  };
}

/** Two columns where a gutter runs down the page between texts on both sides. */
function columnsOf({ texts, width }: PdfPage): PdfText[][] {
  const inked = texts.filter((t) => t.text.trim() !== '');
  if (inked.length < 12) return [inked];
  const rows = rowsOf(inked).filter((r) => r.length > 0);
  for (let gutter = width * 0.4; gutter <= width * 0.6; gutter += 4) {
    const crossing = inked.filter((t) => t.x < gutter - 3 && t.x + t.width > gutter + 3);
    const right = inked.filter((t) => t.x >= gutter - 3);
    const leftSide = inked.filter((t) => t.x + t.width <= gutter + 3);
    const starts = new Map<number, number>();
    for (const t of right) starts.set(Math.round(t.x / 3), (starts.get(Math.round(t.x / 3)) ?? 0) + 1);
    const aligned = Math.max(0, ...starts.values());
    // Texts of a column begin at one place; the gap between words of a line does not.
    if (
      crossing.length > rows.length * 0.12 ||
      leftSide.length < inked.length * 0.25 ||
      right.length < inked.length * 0.2 ||
      aligned < Math.max(4, right.length * 0.2)
    )
      continue;
    const top = Math.max(...right.map((t) => t.y));
    const bottom = Math.min(...right.map((t) => t.y));
    const above = inked.filter((t) => t.y > top + 2 || (crossing.includes(t) && t.y >= bottom));
    const below = inked.filter((t) => t.y < bottom - 2 && !leftSide.includes(t));
    const inColumns = (list: readonly PdfText[]): PdfText[] =>
      list.filter((t) => !above.includes(t) && !below.includes(t));
    return [above, inColumns(leftSide), inColumns(right), below].filter((c) => c.length > 0);
  }
  return [inked];
}

const foldLine = (text: string): string =>
  text
    .replace(/\p{Nd}+/gu, '#')
    .replace(/\s+/gu, ' ')
    .trim();
const isEdge = (line: PageLine, page: PdfPage): boolean =>
  line.y > page.height * 0.9 || line.y < page.height * 0.1;

/** Lines at the edges of pages that are the same on most of them, numbers aside. */
function recurringLines(lines: readonly (readonly PageLine[])[], pages: readonly PdfPage[]): Set<string> {
  const counts = new Map<string, number>();
  for (const [at, page] of lines.entries())
    for (const key of new Set(page.filter((l) => isEdge(l, pages[at]!)).map((l) => foldLine(l.text))))
      counts.set(key, (counts.get(key) ?? 0) + 1);
  const needed = Math.max(2, pages.length * 0.5);
  const out = new Set([...counts].filter(([, n]) => n >= needed).map(([key]) => key));
  // A number alone in the foot is the page's, however many pages there are.
  out.add('#');
  return out;
}

/** A word cut at a line's end: a soft hyphen says so to whoever joins the lines. */
function joinHyphens(blocks: BlockDocument['blocks']): BlockDocument['blocks'] {
  return blocks.map((block, at) => {
    const next = blocks[at + 1];
    if (block.kind !== 'paragraph' || next?.kind !== 'paragraph' || next.apart) return block;
    const last = block.runs.at(-1);
    const first = next.runs[0];
    const cut =
      last?.kind === 'text' &&
      /\p{L}{2}[-\u2010]$/u.test(last.text) &&
      first?.kind === 'text' &&
      /^\p{Ll}/u.test(first.text);
    return cut
      ? { ...block, runs: [...block.runs.slice(0, -1), { ...last, text: `${last.text.slice(0, -1)}\u00AD` }] }
      : block;
  });
}
