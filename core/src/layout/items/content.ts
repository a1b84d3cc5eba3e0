import { bodyOf } from '../../content/tidy.ts';
import type { Run, TableBlock } from '../../document/block.ts';
import { contentOfRuns, restyled, shareOf, textOfRuns, trimRuns } from '../../document/runs.ts';
import type { ContentNode } from '../../model/content.ts';
import { element, text } from '../../model/make.ts';
import type { Part } from '../raw.ts';

/** Pieces of a document as content that students read. */

/** Paragraphs of runs: what joins is one, a line's end within one is a break, a table is a piece of its own. */
export type Piece = { readonly runs: readonly Run[] } | { readonly table: TableBlock };

export function piecesOf(parts: readonly Part[]): Piece[] {
  const out: Piece[] = [];
  for (const { line, runs, joins } of parts) {
    const last = out.at(-1);
    if (line.table) out.push({ table: line.table });
    else if (last && 'runs' in last && joins) out[out.length - 1] = { runs: joined(last.runs, runs) };
    else if (last && 'runs' in last && line.continues)
      out[out.length - 1] = { runs: [...last.runs, { kind: 'break' }, ...runs] };
    else out.push({ runs });
  }
  return out;
}

/** A line and the next one: a word cut by a hyphen at the line's end is whole again. */
function joined(before: readonly Run[], after: readonly Run[]): Run[] {
  const last = before.at(-1);
  const soft = last?.kind === 'text' && last.text.endsWith('\u00AD');
  if (soft) return [...before.slice(0, -1), { ...last, text: last.text.slice(0, -1) }, ...after];
  const glue = /[\u3040-\u30FF\u4E00-\u9FFF]$/u.test(textOfRuns(before)) ? '' : ' ';
  const [first, ...rest] = after;
  return first?.kind === 'text'
    ? [...before, { ...first, text: glue + first.text }, ...rest]
    : [...before, ...after];
}

/** Emphasis of a whole question says nothing about any word of it. */
export function withoutWholeBold(pieces: readonly Piece[]): Piece[] {
  const runs = pieces.flatMap((p) => ('runs' in p ? p.runs : []));
  if (shareOf(runs, (l) => l.bold) < 0.95) return [...pieces];
  return pieces.map((p) => ('runs' in p ? { runs: restyled(p.runs, (l) => ({ ...l, bold: false })) } : p));
}

const paragraph = (children: readonly ContentNode[]): ContentNode => element('p', children);

/** Pieces as blocks. */
export const blocksOf = (pieces: readonly Piece[]): ContentNode[] => [
  ...bodyOf(
    pieces.flatMap((p) => ('table' in p ? [tableOf(p.table)] : [paragraph(contentOfRuns(trimRuns(p.runs)))])),
  ),
];

/** Pieces within a line; more than one are set apart by breaks. */
export function inlineOf(pieces: readonly Piece[]): ContentNode[] {
  if (pieces.length > 1 || pieces.some((p) => 'table' in p)) return blocksOf(pieces);
  const [only] = pieces;
  return only && 'runs' in only ? contentOfRuns(trimRuns(only.runs)) : [];
}

export function tableOf(table: TableBlock): ContentNode {
  const rows = table.rows.map((cells) =>
    element(
      'tr',
      cells.map((cell) => element('td', cellContent(cell))),
    ),
  );
  return element('table', [element('tbody', rows)]);
}

/** A cell's paragraphs, with the labels that lists show. */
export const cellContent = (cell: TableBlock['rows'][number][number]): ContentNode[] =>
  cell.flatMap((p, at) => [
    ...(at === 0 ? [] : [element('br')]),
    ...(p.label === '' ? [] : [text(`${p.label} `)]),
    ...contentOfRuns(p.runs),
  ]);

/** Paths of the pictures in content. */
export function picturesIn(nodes: readonly ContentNode[]): string[] {
  return nodes.flatMap((n) =>
    n.kind === 'element'
      ? [...(n.name === 'img' ? [n.attrs['src'] ?? ''] : []), ...picturesIn(n.children)]
      : [],
  );
}
