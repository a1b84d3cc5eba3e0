import type { Search } from '@alforja/core';
import type { EditWay } from '../../shared/edits.ts';
import {
  MOST_CELLS,
  type FoundView,
  type TypedCell,
  type TypedDone,
  type WorkbookView,
} from '../../shared/sheet.ts';
import { storeStream } from '../store/files.ts';
import { putRightShown } from '../store/packages.ts';
import type { OrderKind, Orders } from '../work/orders.ts';
import type { RowsAsked } from '../work/sheet.ts';
import { pendingEdits } from './layers.ts';
import { NotTaken, putRight } from './putRight.ts';
import { worked } from './worked.ts';

/** The sheet of a package's items: what is asked of it is worked out in a thread. */

/** A workbook of items is small; a larger file is none. */
const MAX_WORKBOOK = 20 * 1024 * 1024;

async function asked(packageId: string): Promise<RowsAsked> {
  const shown = await putRightShown(packageId);
  if (!shown) throw new NotTaken('The package has not been read yet, or is gone.');
  return { packageId, pending: await pendingEdits(packageId, shown.steps) };
}

/** @throws NotTaken with words where a file cannot be read */
const work = <K extends OrderKind>(kind: K, order: Orders[K]['asked']): Promise<Orders[K]['result']> =>
  worked(kind, order, NotTaken);

/** Every row, as JSON. */
export const sheetOf = async (packageId: string): Promise<string> =>
  work('sheetRows', await asked(packageId));

/** Types texts into cells, as one step; what cannot be done says why, and the rest is done. */
export async function typeInto(
  packageId: string,
  cells: readonly TypedCell[],
  way: EditWay,
): Promise<TypedDone> {
  if (cells.length > MOST_CELLS) throw new NotTaken(`At most ${MOST_CELLS} cells can be changed at once.`);
  const done = await work('sheetCells', { ...(await asked(packageId)), cells });
  if (done.edits.length > 0) await putRight(packageId, { way, edits: done.edits });
  return { changed: done.edits.length, cells: done.cells, troubles: done.troubles };
}

/** What a search finds in the texts of items, without changing anything. */
export async function findIn(
  packageId: string,
  search: Search,
  nodes: readonly string[] | null,
): Promise<FoundView> {
  const { places, total } = await work('sheetFind', { ...(await asked(packageId)), search, nodes });
  return { places, total };
}

/** Replaces what a search finds, as one step. @param without places that stay, by their number in the list */
export async function replaceIn(
  packageId: string,
  search: Search,
  { nodes, without }: { readonly nodes: readonly string[] | null; readonly without: readonly number[] },
): Promise<{ changed: number }> {
  const { edits } = await work('sheetFind', { ...(await asked(packageId)), search, nodes });
  const stays = new Set(without);
  const wanted = edits.flatMap((e, at) => (e === null || stays.has(at) ? [] : [e]));
  if (wanted.length > 0) await putRight(packageId, { way: 'replace', edits: wanted });
  return { changed: wanted.length };
}

export const sheetFile = async (packageId: string, form: 'csv' | 'xlsx'): Promise<Uint8Array> =>
  work('sheetTable', { ...(await asked(packageId)), form });

/** What a workbook or CSV that came back says otherwise, without taking it. */
export async function differingIn(
  packageId: string,
  name: string,
  body: AsyncIterable<Uint8Array>,
): Promise<WorkbookView> {
  const order = await asked(packageId);
  const stored = await storeStream(body, MAX_WORKBOOK);
  return work('sheetDiffer', { ...order, name, sha256: stored.sha256 });
}
