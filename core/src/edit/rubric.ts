import { levelOfText, levelText } from '../model/levelText.ts';
import type { Criterion, Rubric, RubricLevel } from '../model/rubric.ts';

/**
 * Changes of a rubric as of a sheet: rows are criteria, column 0 is the criterion itself and each further one
 * a level. Every function gives a new rubric and leaves the one it was given; places outside of the sheet are
 * left alone.
 */

export interface Cell {
  readonly row: number;
  /** 0 is the criterion; level n stands in column n + 1. */
  readonly col: number;
}
/** A rectangle of cells, both corners within it. */
export interface Block {
  readonly from: Cell;
  readonly to: Cell;
}

export const columnsIn = (r: Pick<Rubric, 'criteria'>): number =>
  1 + Math.max(0, ...r.criteria.map((c) => c.levels.length));

const emptyLevel = (id: string): RubricLevel => ({
  id,
  title: '',
  points: null,
  description: '',
  feedback: '',
});

/**
 * A rubric to begin with: one criterion of three levels, all named so that it can be seen what is to be
 * changed.
 */
export const newRubric = (id: string, title: string): Rubric => ({
  id,
  title,
  description: '',
  mode: 'points',
  criteria: [
    {
      ...blank(`${id}-c1`),
      title: 'Criterion 1',
      levels: ['In full', 'In part', 'Not yet'].map((name, n) => ({
        ...emptyLevel(`${id}-l${n + 1}`),
        title: name,
        points: { low: 2 - n, high: 2 - n },
      })),
    },
  ],
  attachedTo: [],
  metadata: [],
  origin: null,
});
const blank = (id: string): Criterion => ({
  id,
  title: '',
  description: '',
  weight: null,
  outcome: null,
  levels: [],
});

/** Identifiers that nothing in the rubric has yet. */
function freshIds(r: Rubric): () => string {
  const taken = new Set(r.criteria.flatMap((c) => [c.id, ...c.levels.map((l) => l.id)]));
  let n = 0;
  return () => {
    do n++;
    while (taken.has(`${r.id}-x${n}`));
    return `${r.id}-x${n}`;
  };
}

const mapCriterion = (r: Rubric, row: number, change: (c: Criterion) => Criterion): Rubric => ({
  ...r,
  criteria: r.criteria.map((c, at) => (at === row ? change(c) : c)),
});

type CriterionChange = Partial<Pick<Criterion, 'title' | 'description' | 'weight' | 'outcome'>>;
type LevelChange = Partial<Omit<RubricLevel, 'id'>>;

export const setCriterion = (r: Rubric, row: number, change: CriterionChange): Rubric =>
  mapCriterion(r, row, (c) => ({ ...c, ...change }));

/** Sets a level; one beyond the last of its criterion is made, and those between. */
export function setLevel(r: Rubric, { row, col }: Cell, change: LevelChange): Rubric {
  if (col < 1) return r;
  const fresh = freshIds(r);
  return mapCriterion(r, row, (c) => {
    const levels = [...c.levels];
    while (levels.length < col) levels.push(emptyLevel(fresh()));
    levels[col - 1] = { ...levels[col - 1]!, ...change };
    return { ...c, levels };
  });
}

/**
 * A new criterion with the levels' names and points of the one before it, at a row from 0 to the number of
 * rows.
 */
export function insertCriterion(r: Rubric, row: number): Rubric {
  const fresh = freshIds(r);
  const like = r.criteria[row - 1] ?? r.criteria[row];
  const levels = (like?.levels ?? []).map((l) => ({ ...l, id: fresh(), description: '', feedback: '' }));
  const made: Criterion = { ...blank(fresh()), weight: r.mode === 'percentage' ? 0 : null, levels };
  return { ...r, criteria: [...r.criteria.slice(0, row), made, ...r.criteria.slice(row)] };
}

export function duplicateCriterion(r: Rubric, row: number): Rubric {
  const c = r.criteria[row];
  if (!c) return r;
  const fresh = freshIds(r);
  const copy: Criterion = { ...c, id: fresh(), levels: c.levels.map((l) => ({ ...l, id: fresh() })) };
  return { ...r, criteria: [...r.criteria.slice(0, row + 1), copy, ...r.criteria.slice(row + 1)] };
}

export const removeCriterion = (r: Rubric, row: number): Rubric => ({
  ...r,
  criteria: r.criteria.filter((_, at) => at !== row),
});

export const moveCriterion = (r: Rubric, from: number, to: number): Rubric => ({
  ...r,
  criteria: moved(r.criteria, from, to),
});

/** A new level in every criterion, before the column; in criteria that have fewer levels, at their end. */
export function insertLevel(r: Rubric, col: number): Rubric {
  const fresh = freshIds(r);
  return eachLevels(r, (levels) => {
    const at = Math.min(Math.max(0, col - 1), levels.length);
    return [...levels.slice(0, at), emptyLevel(fresh()), ...levels.slice(at)];
  });
}

export function duplicateLevel(r: Rubric, col: number): Rubric {
  const fresh = freshIds(r);
  return eachLevels(r, (levels) =>
    levels.flatMap((l, at) => (at === col - 1 ? [l, { ...l, id: fresh() }] : [l])),
  );
}

export const removeLevel = (r: Rubric, col: number): Rubric =>
  eachLevels(r, (levels) => levels.filter((_, at) => at !== col - 1));

export const moveLevel = (r: Rubric, from: number, to: number): Rubric =>
  eachLevels(r, (levels) => moved(levels, from - 1, to - 1));

const eachLevels = (r: Rubric, change: (l: readonly RubricLevel[]) => readonly RubricLevel[]): Rubric => ({
  ...r,
  criteria: r.criteria.map((c) => ({ ...c, levels: change(c.levels) })),
});

function moved<T>(list: readonly T[], from: number, to: number): readonly T[] {
  if (from < 0 || to < 0 || from >= list.length || to >= list.length) return list;
  const rest = list.filter((_, at) => at !== from);
  return [...rest.slice(0, to), list[from]!, ...rest.slice(to)];
}

/**
 * Fills cells from a block of texts, the first of them at a cell; criteria and levels that are not there yet
 * are made. In the first column a text is a criterion's title, with its description in further lines;
 * elsewhere see `levelOfText`.
 */
export function pasteTexts(r: Rubric, at: Cell, texts: readonly (readonly string[])[]): Rubric {
  let now = r;
  for (const [down, line] of texts.entries()) {
    const row = at.row + down;
    if (row >= now.criteria.length) now = insertCriterion(now, now.criteria.length);
    for (const [right, text] of line.entries()) {
      const cell = { row: Math.min(row, now.criteria.length - 1), col: at.col + right };
      now =
        cell.col === 0
          ? setCriterion(now, cell.row, criterionOfText(text))
          : setLevel(now, cell, levelOfText(text));
    }
  }
  return now;
}

function criterionOfText(text: string): CriterionChange {
  const [title = '', ...more] = text.trim().split(/\r?\n/u);
  const description = more.join('\n').trim();
  return { title: title.trim(), ...(description === '' ? {} : { description }) };
}

/** The cells of a block as texts that people can read, and that `pasteTexts` reads again. */
export function textsOf(r: Rubric, block: Block): string[][] {
  const { top, bottom, left, right } = cornersOf(block);
  return r.criteria.slice(top, bottom + 1).map((c) =>
    Array.from({ length: right - left + 1 }, (_, n) => {
      const col = left + n;
      const level = c.levels[col - 1];
      return col === 0
        ? [c.title, c.description].filter((t) => t !== '').join('\n')
        : level
          ? levelText(level)
          : '';
    }),
  );
}

/** Empties the cells of a block; criteria and levels stay. */
export function clearBlock(r: Rubric, block: Block): Rubric {
  const { top, bottom, left, right } = cornersOf(block);
  return {
    ...r,
    criteria: r.criteria.map((c, row) => {
      if (row < top || row > bottom) return c;
      const levels = c.levels.map((l, at) => (at + 1 >= left && at + 1 <= right ? emptyLevel(l.id) : l));
      return { ...c, ...(left === 0 ? { title: '', description: '' } : {}), levels };
    }),
  };
}

export function cornersOf({ from, to }: Block): { top: number; bottom: number; left: number; right: number } {
  const [top, bottom] = [Math.min(from.row, to.row), Math.max(from.row, to.row)];
  const [left, right] = [Math.min(from.col, to.col), Math.max(from.col, to.col)];
  return { top, bottom, left, right };
}

/** A rubric whose criteria and levels each have an id of their own: edits name what they are about by it. */
export function distinctIds(r: Rubric): Rubric {
  const seen = new Set<string>();
  const distinct = (id: string): string => {
    let free = id;
    for (let n = 2; seen.has(free); n++) free = `${id}-${n}`;
    seen.add(free);
    return free;
  };
  return {
    ...r,
    criteria: r.criteria.map((c) => ({
      ...c,
      id: distinct(c.id),
      levels: c.levels.map((l) => ({ ...l, id: distinct(l.id) })),
    })),
  };
}
