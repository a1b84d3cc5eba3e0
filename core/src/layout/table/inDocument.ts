import type { Block, BlockDocument, Paragraph, TableBlock } from '../../document/block.ts';
import { linesOfRuns, textOfRuns } from '../../document/runs.ts';
import { questionColumns } from './columns.ts';

/** Tables of a document that hold a question a row, below a header that says so. */

interface TableInDocument {
  /** `table 1`: which of them it is. */
  readonly name: string;
  /** The heading it stands under; '' where there is none. */
  readonly title: string;
  readonly rows: string[][];
}

/** A header and two questions: a smaller one may be anything. */
const FEWEST_ROWS = 3;

/** The tables of questions of a document, and the document without them. */
export function tablesInDocument(document: BlockDocument): {
  readonly tables: readonly TableInDocument[];
  readonly rest: BlockDocument;
} {
  const tables: TableInDocument[] = [];
  const rest: Block[] = [];
  let title = '';
  for (const block of document.blocks) {
    if (block.kind === 'paragraph' && block.heading > 0) title = textOfRuns(block.runs).trim();
    const rows = block.kind === 'table' ? questionRows(block) : null;
    if (rows) tables.push({ name: `table ${tables.length + 1}`, title, rows });
    else rest.push(block);
  }
  return tables.length === 0 ? { tables, rest: document } : { tables, rest: { ...document, blocks: rest } };
}

/** The rows of a table of questions as texts; null for any other. What a text cannot say stays as it is. */
function questionRows({ rows }: TableBlock): string[][] | null {
  if (rows.length < FEWEST_ROWS || rows.some((cells) => cells.some((c) => !isText(c)))) return null;
  const texts = rows.map((cells) => cells.map(cellText));
  const columns = questionColumns(texts);
  // Without a header that is understood it may be a matching, a grid, or choices side by side.
  if (!columns || columns.headerRow !== 0 || columns.sure < 1) return null;
  const choices = columns.roles.filter((r) => r === 'choice').length;
  return choices >= 2 || columns.long || columns.roles.includes('key') ? texts : null;
}

const isText = (cell: readonly Paragraph[]): boolean =>
  cell.every((p) => p.runs.every((r) => r.kind === 'text' || r.kind === 'break'));
const cellText = (cell: readonly Paragraph[]): string =>
  cell
    .map((p) => `${p.label} ${linesOfRuns(p.runs).map(textOfRuns).join('\n')}`.trim())
    .join('\n')
    .trim();
