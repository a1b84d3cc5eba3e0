import { COLUMN_NAMES, sameCell, SHEET_COLUMNS, type SheetCells, type SheetColumn } from './columns.ts';

/** The sheet as a table that leaves and comes back: its first column says which item a row is about. */

export const ID_LABEL = 'Item';

export interface SheetRow {
  readonly id: string;
  readonly cells: SheetCells;
}

/** The rows of a table, the names of its columns first. */
export const sheetTable = (rows: readonly SheetRow[]): string[][] => [
  [ID_LABEL, ...SHEET_COLUMNS.map((c) => c.label)],
  ...rows.map(({ id, cells }) => [id, ...COLUMN_NAMES.map((name) => cells[name])]),
];

/** A cell that says something else than the item does. */
export interface DifferingCell {
  readonly node: string;
  readonly column: SheetColumn;
  readonly before: string;
  readonly text: string;
}

export interface TableRead {
  readonly cells: readonly DifferingCell[];
  /** What could not be taken from the table: its row, from 1, and why. */
  readonly troubles: readonly { readonly row: number; readonly kind: TableTrouble; readonly said: string }[];
}
export type TableTrouble = 'no-id-column' | 'no-columns' | 'unknown-item' | 'item-twice';

const folded = (text: string): string =>
  text
    .replace(/^\uFEFF/u, '')
    .trim()
    .toLowerCase();

/**
 * What a table that came back says otherwise than the items do. Columns may stand in any order, and some may be
 * gone; those that cannot be typed over are passed over.
 */
export function differingCells(table: readonly (readonly string[])[], rows: readonly SheetRow[]): TableRead {
  const header = (table[0] ?? []).map(folded);
  const idAt = header.indexOf(folded(ID_LABEL));
  if (idAt < 0) return { cells: [], troubles: [{ row: 1, kind: 'no-id-column', said: ID_LABEL }] };
  const columns = SHEET_COLUMNS.filter((c) => c.open).flatMap(({ name, label }) => {
    const at = header.indexOf(folded(label));
    return at < 0 ? [] : [{ name, at }];
  });
  if (columns.length === 0) return { cells: [], troubles: [{ row: 1, kind: 'no-columns', said: '' }] };
  const known = new Map(rows.map((r) => [r.id, r.cells]));
  const seen = new Set<string>();
  const cells: DifferingCell[] = [];
  const troubles: TableRead['troubles'][number][] = [];
  table.slice(1).forEach((line, n) => {
    const id = (line[idAt] ?? '').trim();
    if (id === '' && line.every((c) => c.trim() === '')) return;
    const now = known.get(id);
    if (!now) return void troubles.push({ row: n + 2, kind: 'unknown-item', said: id });
    if (seen.has(id)) return void troubles.push({ row: n + 2, kind: 'item-twice', said: id });
    seen.add(id);
    for (const { name, at } of columns) {
      // A line that ends early says nothing of what would follow.
      const text = line[at];
      if (text !== undefined && !sameCell(text, now[name]))
        cells.push({ node: id, column: name, before: now[name], text: text.trim() });
    }
  });
  return { cells, troubles };
}
