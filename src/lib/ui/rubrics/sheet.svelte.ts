import {
  clearBlock,
  columnsIn,
  cornersOf,
  duplicateCriterion,
  duplicateLevel,
  insertCriterion,
  insertLevel,
  moveCriterion,
  moveLevel,
  pasteTexts,
  removeCriterion,
  removeLevel,
  textsOf,
  type Block,
  type Cell,
} from '@alforja/core/edit';
import type { Rubric } from '@alforja/core';
import { ask } from '../ask';
import type { KeyedSheet } from './sheetKeys';

const STEPS_KEPT = 200;

/** A rubric being changed: where the cursor is, what was before, and what is kept on the server. */
export class RubricSheet implements KeyedSheet {
  rubric = $state.raw<Rubric>(null!);
  /** The cell with the cursor, and the other corner of what is marked. */
  cursor = $state.raw<Cell>({ row: 0, col: 0 });
  anchor = $state.raw<Cell>({ row: 0, col: 0 });
  editing = $state(false);
  trouble = $state('');
  saved = $state<'kept' | 'keeping'>('kept');
  #past = $state.raw<readonly Rubric[]>([]);
  #future = $state.raw<readonly Rubric[]>([]);
  #saving: Promise<void> = Promise.resolve();
  #asked = 0;
  /** What was copied last, so that it comes back as it was and not as its text can be read. */
  #copied: { readonly text: string; readonly rubric: Rubric; readonly block: Block } | null = null;

  constructor(
    rubric: Rubric,
    private readonly address: string,
  ) {
    this.rubric = rubric;
  }

  get columns(): number {
    return Math.max(2, columnsIn(this.rubric));
  }
  get rows(): number {
    return this.rubric.criteria.length;
  }
  get block(): Block {
    return { from: this.anchor, to: this.cursor };
  }
  get canUndo(): boolean {
    return this.#past.length > 0;
  }
  get canRedo(): boolean {
    return this.#future.length > 0;
  }
  marked(row: number, col: number): boolean {
    const { top, bottom, left, right } = cornersOf(this.block);
    return row >= top && row <= bottom && col >= left && col <= right;
  }

  /** Puts the cursor somewhere within the sheet. @param extend keeps the other corner of what is marked */
  go(row: number, col: number, extend = false): void {
    const within = (n: number, end: number): number => Math.min(Math.max(0, n), Math.max(0, end - 1));
    this.cursor = { row: within(row, this.rubric.criteria.length), col: within(col, this.columns) };
    if (!extend) this.anchor = this.cursor;
  }

  /** Takes a changed rubric as the current one and keeps it. */
  change(next: Rubric, cursor: Cell = this.cursor): void {
    if (next === this.rubric) return;
    this.#past = [...this.#past.slice(-STEPS_KEPT), this.rubric];
    this.#future = [];
    this.#set(next);
    this.go(cursor.row, cursor.col);
  }

  addCriterion(): void {
    const { row } = this.cursor;
    this.change(insertCriterion(this.rubric, row + (this.rows > 0 ? 1 : 0)), { row: row + 1, col: 0 });
  }
  duplicateCriterion(): void {
    const { row, col } = this.cursor;
    this.change(duplicateCriterion(this.rubric, row), { row: row + 1, col });
  }
  shiftCriterion(by: number): void {
    const { row, col } = this.cursor;
    this.change(moveCriterion(this.rubric, row, row + by), { row: row + by, col });
  }
  removeCriterion(): void {
    this.change(removeCriterion(this.rubric, this.cursor.row));
  }
  addLevel(): void {
    const { row, col } = this.cursor;
    this.change(insertLevel(this.rubric, col + 1), { row, col: col + 1 });
  }
  duplicateLevel(): void {
    this.change(duplicateLevel(this.rubric, this.cursor.col));
  }
  shiftLevel(by: number): void {
    const { row, col } = this.cursor;
    if (col > 0 && col + by > 0) this.change(moveLevel(this.rubric, col, col + by), { row, col: col + by });
  }
  removeLevel(): void {
    this.change(removeLevel(this.rubric, this.cursor.col));
  }
  /** Empties what is marked. */
  clear(): void {
    this.change(clearBlock(this.rubric, this.block));
  }

  undo(): void {
    const before = this.#past.at(-1);
    if (!before) return;
    this.#past = this.#past.slice(0, -1);
    this.#future = [this.rubric, ...this.#future];
    this.#set(before);
    this.go(this.cursor.row, this.cursor.col);
  }
  redo(): void {
    const [after, ...rest] = this.#future;
    if (!after) return;
    this.#future = rest;
    this.#past = [...this.#past, this.rubric];
    this.#set(after);
    this.go(this.cursor.row, this.cursor.col);
  }

  /** What is marked, as rows of texts; one tab a column, quoted where a text has lines of its own. */
  copy(): string {
    const quote = (t: string): string => (/[\t\n\r"]/u.test(t) ? `"${t.replace(/"/gu, '""')}"` : t);
    const text = textsOf(this.rubric, this.block)
      .map((row) => row.map(quote).join('\t'))
      .join('\n');
    this.#copied = { text, rubric: this.rubric, block: this.block };
    return text;
  }

  /**
   * Fills cells from the cursor on: with what was copied here as it was, with anything else as it can be
   * read.
   */
  paste(rows: readonly (readonly string[])[], text: string): void {
    const { top, left } = cornersOf(this.block);
    const own = this.#copied !== null && this.#copied.text === text ? this.#copied : null;
    const made = pasteTexts(this.rubric, { row: top, col: left }, rows);
    this.change(own ? asCopied(made, { row: top, col: left }, own.rubric, own.block) : made);
  }

  #set(next: Rubric): void {
    this.rubric = next;
    const asked = ++this.#asked;
    this.saved = 'keeping';
    // One after the other, so that the last change is the one that stays.
    this.#saving = this.#saving.then(() => (asked === this.#asked ? this.#keep(asked) : undefined));
  }

  async #keep(asked: number): Promise<void> {
    const { title, description, mode, criteria, freeComments = false } = this.rubric;
    const otherwise =
      'The last change could not be kept. Check the connection and change something once more.';
    const body = { title, description, mode, criteria, freeComments };
    const trouble = await ask(this.address, body, { method: 'PUT', otherwise }).then(
      () => '',
      (error: Error) => error.message,
    );
    if (asked !== this.#asked) return;
    this.trouble = trouble;
    if (trouble === '') this.saved = 'kept';
  }
}

/** Cells of one rubric exactly as those of a block of another; ids stay. */
function asCopied(made: Rubric, at: Cell, from: Rubric, block: Block): Rubric {
  const { top, left, bottom, right } = cornersOf(block);
  return {
    ...made,
    criteria: made.criteria.map((c, row) => {
      const source = row - at.row + top;
      const like = source >= top && source <= bottom && row >= at.row ? from.criteria[source] : undefined;
      if (!like) return c;
      const levels = c.levels.map((l, n) => {
        const col = n + 1 - at.col + left;
        const level =
          n + 1 >= at.col && col >= Math.max(1, left) && col <= right ? like.levels[col - 1] : undefined;
        return level ? { ...level, id: l.id } : l;
      });
      const { title, description, weight, outcome } = like;
      return { ...c, ...(left === 0 && at.col === 0 ? { title, description, weight, outcome } : {}), levels };
    }),
  };
}
