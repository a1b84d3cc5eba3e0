import type { Edit, EditedKind, Item } from '@alforja/core';

/** What was put right in a package, as it crosses between server and screens. */

/** Where a change was made: at one thing, in the sheet, by replacing, by a workbook, by a repair. */
export const EDIT_WAYS = ['hand', 'sheet', 'replace', 'workbook', 'repair'] as const;
export type EditWay = (typeof EDIT_WAYS)[number];

/** A thing of a package. */
export interface NodeRef {
  readonly kind: EditedKind;
  readonly id: string;
}

export interface LeftOut extends NodeRef {
  readonly title: string;
}

/** What the layer of a package came to when it was read last. */
export interface PutRight {
  /** Repairs by the place of their finding. */
  readonly repairs: readonly { readonly at: number; readonly edits: readonly Edit[] }[];
  readonly leftOut: readonly LeftOut[];
  /** What is otherwise than in the source. */
  readonly edited: readonly NodeRef[];
  /** Edits that could not be applied. */
  readonly refused: number;
  /** Ids of the steps it is shown with. */
  readonly steps: readonly string[];
}

export const NOTHING_PUT_RIGHT: PutRight = { repairs: [], leftOut: [], edited: [], refused: 0, steps: [] };

/** An edit of a step in words; what could not be done says why. */
export interface EditInWords {
  readonly name: string;
  readonly says: string;
  readonly refused: string | null;
}

/** An item that is changed where it stands. */
export interface WholeItem {
  readonly item: Item;
  /** Which of its parts were changed, as `partOfEdit` names them. */
  readonly changed: readonly string[];
}

/** One step of the history of a package. */
export interface StepView {
  readonly id: string;
  readonly madeAt: number;
  readonly way: EditWay;
  readonly undoneAt: number | null;
  readonly count: number;
  /** How many earlier changes it takes back. */
  readonly takesBack: number;
  readonly refused: number;
  /** The first of its edits, those that were refused before others. */
  readonly edits: readonly EditInWords[];
}

/** What undoing and redoing would do next. */
export interface LayerView {
  readonly changes: number;
  readonly refused: number;
  readonly undo: string | null;
  readonly redo: string | null;
}
