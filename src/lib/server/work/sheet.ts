import Papa from 'papaparse';
import {
  applyEdits,
  differingCells,
  foundIn,
  isRefused,
  nameOf,
  rubricTables,
  sayRefusal,
  sheetCells,
  sheetTable,
  typeCell,
  type Edit,
  type Holding,
  type Item,
  type Search,
  type SheetCells,
  type TableTrouble,
  asTextCell,
  fromTextCell,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import {
  MOST_PLACES,
  type CellTrouble,
  type FoundText,
  type FoundView,
  type SheetLine,
  type SheetView,
  type TypedCell,
  type WorkbookView,
} from '../../shared/sheet.ts';
import { readStored } from '../store/files.ts';
import { itemsById } from '../store/items.ts';
import { packageFile } from '../store/packages.ts';
import { load } from './holdings.ts';
import { withPending } from './items.ts';
import type { Progress } from './progress.ts';

/** What is asked of the items of a package, as they will stand once what waits has been taken in. */
export interface RowsAsked {
  readonly packageId: string;
  readonly pending: readonly Edit[];
}

async function loadNow({ packageId, pending }: RowsAsked, progress: Progress): Promise<Holding> {
  const shown = await load(packageId, progress);
  return pending.length === 0 ? shown : applyEdits(shown, pending).holding;
}

/** The whole sheet, as JSON: it is long, and only passed on. */
export async function sheetRows(asked: RowsAsked, progress: Progress): Promise<string> {
  const held = await packageFile(asked.packageId);
  const { items, findings } = await loadNow(asked, progress);
  const found = new Map<string, number>();
  for (const { severity, where } of findings)
    if (severity !== 'note' && where.node !== null) found.set(where.node, (found.get(where.node) ?? 0) + 1);
  const lines = items.map((item, seq): SheetLine => ({
    id: item.id,
    seq,
    findings: found.get(item.id) ?? 0,
    cells: sheetCells(item),
  }));
  return JSON.stringify({ reading: held?.readingId ?? '', lines } satisfies SheetView);
}

export interface CellsAsked extends RowsAsked {
  readonly cells: readonly TypedCell[];
}
export interface CellsDone {
  readonly edits: readonly Edit[];
  readonly cells: Readonly<Record<string, SheetCells>>;
  readonly troubles: readonly CellTrouble[];
}

/** Types texts into cells, one after the other: what can be done becomes edits, the rest says why not. */
export async function typeCells({ packageId, pending, cells }: CellsAsked): Promise<CellsDone> {
  const held = await packageFile(packageId);
  const nodes = [...new Set(cells.map((c) => c.node))];
  const stored = held?.readingId ? await itemsById(held.readingId, nodes) : [];
  const items = new Map<string, Item>(withPending(stored, pending).map((i) => [i.id, i]));
  const edits: Edit[] = [];
  const troubles: CellTrouble[] = [];
  for (const { node, column, text } of cells) {
    const item = items.get(node);
    const done = item && typeCell(item, column, text);
    if (!done) troubles.push({ node, column, why: 'The item is not here any more.' });
    else if (isRefused(done)) troubles.push({ node, column, why: sayRefusal(done) });
    else {
      items.set(node, done.item);
      // What stood there is told by the layer once it is applied.
      edits.push(...done.edits.map(({ was: _, ...edit }) => edit as Edit));
    }
  }
  return { edits, troubles, cells: Object.fromEntries([...items].map(([id, i]) => [id, sheetCells(i)])) };
}

export interface FindAsked extends RowsAsked {
  readonly search: Search;
  /** Only these items; null is all. */
  readonly nodes: readonly string[] | null;
}
export interface FindDone extends FoundView {
  /** What replaces all that can be replaced, in the order of the places. */
  readonly edits: readonly (Edit | null)[];
}

/** Every place that a search finds, with what would stand there. */
export async function sheetFind(asked: FindAsked, progress: Progress): Promise<FindDone> {
  const { items } = await loadNow(asked, progress);
  const only = asked.nodes && new Set(asked.nodes);
  const places: FoundText[] = [];
  const edits: (Edit | null)[] = [];
  for (const item of items) {
    if (only && !only.has(item.id)) continue;
    for (const { node, at, before, after, edit, why } of foundIn(item, asked.search)) {
      edits.push(why === null ? edit : null);
      if (places.length < MOST_PLACES)
        places.push({ node, name: nameOf(item), at, before, after, why: why && sayRefusal(why) });
    }
  }
  return { places, total: edits.length, edits };
}

export interface TableAsked extends RowsAsked {
  readonly form: 'csv' | 'xlsx';
}

/** The sheet as a workbook or a CSV. */
export async function tableOfSheet(asked: TableAsked, progress: Progress): Promise<Uint8Array> {
  const { items } = await loadNow(asked, progress);
  const rows = sheetTable(items.map((item) => ({ id: item.id, cells: sheetCells(item) })));
  if (asked.form === 'xlsx') return nodePlatform.writeSheet('Items', rows);
  // The mark tells spreadsheets that it is UTF-8.
  return new TextEncoder().encode(
    `\uFEFF${Papa.unparse(
      rows.map((row) => row.map(asTextCell)),
      { newline: '\r\n' },
    )}\r\n`,
  );
}

export interface DifferAsked extends RowsAsked {
  /** A file of the store. */
  readonly sha256: string;
  readonly name: string;
}
export type DifferDone = WorkbookView;

const TROUBLES: Readonly<Record<TableTrouble, (said: string) => string>> = {
  'no-id-column': () => 'No column is called “Item”: it says which item a row is about. Nothing was taken.',
  'no-columns': () => 'No column has a name of the sheet’s, such as “Points”. Nothing was taken.',
  'unknown-item': (said) => `there is no item “${said}” here; the row was passed over.`,
  'item-twice': (said) => `the item “${said}” stands there twice; the later row was passed over.`,
};

/** What a table that came back says otherwise than the items do. */
export async function sheetDiffer(asked: DifferAsked, progress: Progress): Promise<DifferDone> {
  const { items } = await loadNow(asked, progress);
  const bytes = await readStored(asked.sha256);
  const zipped = bytes[0] === 0x50 && bytes[1] === 0x4b;
  const [table] = await rubricTables(asked.name, zipped ? 'xlsx' : 'csv', bytes, nodePlatform);
  const rows = items.map((item) => ({ id: item.id, cells: sheetCells(item) }));
  const names = new Map(items.map((i) => [i.id, nameOf(i)]));
  const { cells, troubles } = differingCells(
    (table?.rows ?? []).map((row) => row.map(fromTextCell)),
    rows,
  );
  return {
    cells: cells.map((c) => ({ ...c, name: names.get(c.node) ?? c.node })),
    troubles: troubles.map(({ row, kind, said }) =>
      kind === 'no-id-column' || kind === 'no-columns'
        ? TROUBLES[kind](said)
        : `Row ${row}: ${TROUBLES[kind](said)}`,
    ),
  };
}
