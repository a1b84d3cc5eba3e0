import { pointsOf } from '../../model/levelText.ts';
import { columnsOf, foldCell, type Columns, type LevelColumns } from './columns.ts';

/** What each column of a table says, as somebody can look at it and set it. */

const ONE = ['rubric', 'criterion', 'criterionDescription', 'weight', 'outcome'] as const;
const LEVEL = ['title', 'points', 'description', 'feedback'] as const;
type LevelPart = (typeof LEVEL)[number];

/**
 * `skip`; one of the criterion's own fields; `title`, `points` … of a long table's level; `title 1`, `points
 * 1` … of a wide
 * one's; `named`: a level that the header names, in a grid.
 */
export type ColumnRole = 'skip' | 'named' | (typeof ONE)[number] | LevelPart | `${LevelPart} ${number}`;

const NO_LEVEL: LevelColumns = { title: -1, points: -1, description: -1, feedback: -1, header: '' };
const numbered = (role: string): { part: LevelPart; n: number } | null => {
  const found = /^(title|points|description|feedback) (\d+)$/u.exec(role);
  return found ? { part: found[1] as LevelPart, n: Number(found[2]) } : null;
};
export const isColumnRole = (text: string): text is ColumnRole =>
  text === 'skip' ||
  text === 'named' ||
  [...ONE, ...LEVEL].some((r) => r === text) ||
  numbered(text) !== null;

/** The role of each of a number of columns. */
export function rolesOf(columns: Columns, count: number): ColumnRole[] {
  const roles = Array.from({ length: count }, (): ColumnRole => 'skip');
  const set = (at: number, role: ColumnRole): void => {
    if (at >= 0 && at < count) roles[at] = role;
  };
  for (const one of ONE) set(columns[one], one);
  for (const [n, level] of columns.levels.entries()) {
    if (columns.layout === 'grid') set(level.description, 'named');
    else for (const part of LEVEL) set(level[part], columns.layout === 'wide' ? `${part} ${n + 1}` : part);
  }
  return roles;
}

export type RolesTrouble = 'no-criterion' | 'no-level' | 'twice' | 'mixed';

/**
 * The columns that roles speak of, or why they make no rubric.
 * @param header cells that name a grid's levels
 */
export function columnsFrom(roles: readonly ColumnRole[], header: readonly string[]): Columns | RolesTrouble {
  const given = roles.filter((r) => r !== 'skip' && r !== 'named');
  if (new Set(given).size < given.length) return 'twice';
  const at = (role: ColumnRole): number => roles.indexOf(role);
  if (at('criterion') < 0) return 'no-criterion';
  const wide = roles.flatMap((r, n) => (numbered(r) ? [{ ...numbered(r)!, at: n }] : []));
  const long = LEVEL.some((part) => at(part) >= 0);
  const named = roles.flatMap((r, n) => (r === 'named' ? [n] : []));
  const kinds = [wide.length > 0, long, named.length > 0].filter(Boolean).length;
  if (kinds !== 1) return kinds === 0 ? 'no-level' : 'mixed';
  const common = {
    rubric: at('rubric'),
    criterion: at('criterion'),
    criterionDescription: at('criterionDescription'),
    weight: at('weight'),
    outcome: at('outcome'),
  };
  if (long)
    return {
      ...common,
      layout: 'long',
      levels: [
        {
          ...NO_LEVEL,
          title: at('title'),
          points: at('points'),
          description: at('description'),
          feedback: at('feedback'),
        },
      ],
    };
  if (named.length > 0)
    return {
      ...common,
      layout: 'grid',
      levels: named.map((n) => ({
        ...NO_LEVEL,
        description: n,
        header: (header[n] ?? '').trim() || `Level ${named.indexOf(n) + 1}`,
      })),
    };
  const groups = new Map<number, LevelColumns>();
  for (const { part, n, at: column } of wide)
    groups.set(n, { ...(groups.get(n) ?? NO_LEVEL), [part]: column });
  return { ...common, layout: 'wide', levels: [...groups].sort((a, b) => a[0] - b[0]).map(([, g]) => g) };
}

/** A reading of tables with this header that somebody has confirmed. */
export interface TableLayout {
  /** The header's cells, folded. */
  readonly header: readonly string[];
  readonly roles: readonly ColumnRole[];
}

export const layoutHeader = (row: readonly string[]): string[] => row.map(foldCell);

export interface Proposal {
  /** The row that names the columns, from 0; -1 where none does. */
  readonly headerRow: number;
  readonly roles: readonly ColumnRole[];
  /** From what it was told: a layout confirmed before, the words of the header, or the values alone. */
  readonly by: 'remembered' | 'header' | 'values';
}

/** Rows before the header, a title for instance, that are passed over. */
export const HEADER_WITHIN = 10;

/** Proposes what the columns of a table say. @param known layouts that were confirmed before */
export function proposeColumns(
  rows: readonly (readonly string[])[],
  known: readonly TableLayout[] = [],
): Proposal {
  const count = Math.max(0, ...rows.map((r) => r.length));
  for (const [at, row] of rows.slice(0, HEADER_WITHIN).entries()) {
    const header = layoutHeader(row).join('\n');
    const layout = known.find((k) => k.header.join('\n') === header);
    if (layout) return { headerRow: at, roles: padded(layout.roles, count), by: 'remembered' };
  }
  const named = rows.slice(0, HEADER_WITHIN).findIndex((r) => columnsOf(r) !== null);
  if (named >= 0) return { headerRow: named, roles: rolesOf(columnsOf(rows[named]!)!, count), by: 'header' };
  return { ...byValues(rows, count), by: 'values' };
}

const padded = (roles: readonly ColumnRole[], count: number): ColumnRole[] =>
  Array.from({ length: count }, (_, n) => roles[n] ?? 'skip');

/** Up to so many words, on average, name a level. */
const NAME_WORDS = 3;

const isNumber = (cell: string): boolean => {
  let read = cell.trim() !== '';
  pointsOf(cell.replace(/%$/u, ''), () => (read = false));
  return read;
};

/**
 * The first column of text is the criterion; a number right after it, its weight. Then a number closes a
 * level's name, and a longer text after that describes it. Names of criteria that repeat or are left out
 * below each other make a long table.
 */
function byValues(rows: readonly (readonly string[])[], count: number): Omit<Proposal, 'by'> {
  const filled = rows.flatMap((r, at) => (r.some((c) => c.trim() !== '') ? [at] : []));
  const first = filled[0] ?? 0;
  const cells = (n: number, from: number): string[] =>
    filled.filter((at) => at >= from).map((at) => (rows[at]![n] ?? '').trim());
  const numeric = Array.from({ length: count }, (_, n) => {
    const said = cells(n, filled.length > 1 ? first + 1 : first).filter((c) => c !== '');
    return said.length > 0 && said.filter(isNumber).length * 2 > said.length;
  });
  // A row of words over columns of numbers names them.
  const words = numeric.some(
    (is, n) => is && !isNumber(rows[first]?.[n] ?? '') && (rows[first]?.[n] ?? '').trim() !== '',
  );
  const body = words ? first + 1 : first;
  const roles = Array.from({ length: count }, (): ColumnRole => 'skip');
  const criterion = numeric.findIndex((is, n) => !is && cells(n, body).some((c) => c !== ''));
  if (criterion < 0) return { headerRow: -1, roles };
  roles[criterion] = 'criterion';
  const names = cells(criterion, body);
  const long = names.some((c, at) => at > 0 && (c === '' || c === names[at - 1]));
  const rest = Array.from({ length: count }, (_, n) => n).filter(
    (n) => n > criterion && cells(n, body).some((c) => c !== ''),
  );
  const wordy = (n: number): boolean => {
    const said = cells(n, body).filter((c) => c !== '');
    return said.reduce((sum, c) => sum + c.split(/\s+/u).length, 0) > said.length * NAME_WORDS;
  };
  const [next, after] = rest;
  if (next !== undefined && numeric[next] && after !== undefined && !numeric[after])
    roles[rest.shift()!] = 'weight';
  if (long) {
    const parts = { title: rest.find((n) => !numeric[n]), points: rest.find((n) => numeric[n]) };
    const description = rest.filter((n) => n !== parts.title && n !== parts.points)[0];
    for (const [part, n] of Object.entries({ ...parts, description }))
      if (n !== undefined) roles[n] = part as LevelPart;
  } else if (!rest.some((n) => numeric[n])) {
    // No points apart: each column is a level, and its cells describe it.
    for (const [at, n] of rest.entries()) roles[n] = `description ${at + 1}`;
  } else {
    let level = 0;
    for (const [at, n] of rest.entries()) {
      const [before, following] = [rest[at - 1], rest[at + 1]];
      if (numeric[n])
        roles[n] =
          `points ${(level = before !== undefined && roles[before]?.endsWith(` ${level}`) && !roles[before]!.startsWith('points') ? level : level + 1)}`;
      // A name is short; what is longer says what the level asks for.
      else if (following !== undefined && numeric[following])
        roles[n] = `${wordy(n) ? 'description' : 'title'} ${++level}`;
      else roles[n] = `description ${level || ++level}`;
    }
  }
  return { headerRow: words ? first : -1, roles };
}
