import type { SheetCells, SheetColumn } from '@alforja/core';

/** The sheet of a package's items, as it crosses between server and screens. */

/** A row: its item's id, its place in the package, how much was found on it, and a text for each column. */
export interface SheetLine {
  readonly id: string;
  readonly seq: number;
  readonly findings: number;
  readonly cells: SheetCells;
}

export interface SheetView {
  readonly reading: string;
  readonly lines: readonly SheetLine[];
}

/** A text typed into a cell. */
export interface TypedCell {
  readonly node: string;
  readonly column: SheetColumn;
  readonly text: string;
}

/** A cell that could not be changed as asked, and why in words. */
export interface CellTrouble extends Pick<TypedCell, 'node' | 'column'> {
  readonly why: string;
}

/** What typing came to: the items' cells by now. */
export interface TypedDone {
  readonly changed: number;
  readonly cells: Readonly<Record<string, SheetCells>>;
  readonly troubles: readonly CellTrouble[];
}

/** A text in which something was found, before and after. */
export interface FoundText {
  readonly node: string;
  readonly name: string;
  readonly at: 'title' | 'text' | 'choice' | 'feedback' | 'category';
  readonly before: string;
  readonly after: string;
  /** Why it cannot be replaced here; null where it can. */
  readonly why: string | null;
}

export interface FoundView {
  readonly places: readonly FoundText[];
  /** How many there are in all; the list names the first of them. */
  readonly total: number;
}

/** What a workbook that came back says otherwise than the items do. */
export interface WorkbookView {
  readonly cells: readonly {
    readonly node: string;
    readonly name: string;
    readonly column: SheetColumn;
    readonly before: string;
    readonly text: string;
  }[];
  readonly troubles: readonly string[];
}

/** Cells that are typed at once. */
export const MOST_CELLS = 100_000;
/** Places of a search that are named. */
export const MOST_PLACES = 2000;
