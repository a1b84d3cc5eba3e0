/**
 * Which columns of a rubric's table say what; found from the header, shown for confirmation, and settable.
 */
type Layout = 'wide' | 'long' | 'grid';

/** Column numbers from 0; -1 where there is none. */
export interface Columns {
  readonly layout: Layout;
  readonly rubric: number;
  readonly criterion: number;
  readonly criterionDescription: number;
  readonly weight: number;
  readonly outcome: number;
  /**
   * In a long table one level a row; in a wide one a group of columns a level; in a grid a column a level,
   * named by its header.
   */
  readonly levels: readonly LevelColumns[];
}
export interface LevelColumns {
  readonly title: number;
  readonly points: number;
  readonly description: number;
  readonly feedback: number;
  /** What a grid's header says of the level; empty elsewhere. */
  readonly header: string;
}

const NAMES = {
  rubric: /^rubric(?: (?:title|name))?$/u,
  criterion: /^(?:criteri(?:on|a)|aspect)(?: (?:title|name))?$/u,
  criterionDescription: /^(?:criterion|long) (?:description|details?)$/u,
  weight: /^weight(?:ing)?(?: ?%)?$/u,
  outcome: /^(?:outcome|standard|cfitemuri)$/u,
} as const;
const LEVEL = /^(?:level|rating|grade)(?: (?:title|name|label))?$/u;
const POINTS = /^(?:points|score|pts|marks?)$/u;
const DESCRIPTION = /^(?:level )?(?:description|details?)$/u;
const FEEDBACK = /^feedback$/u;

export const foldCell = (cell: string): string =>
  cell
    .replace(/^\uFEFF/u, '')
    .trim()
    .toLowerCase()
    .replace(/[\s_-]+/gu, ' ');

/** Reads a header; null where it names no criterion. */
export function columnsOf(header: readonly string[]): Columns | null {
  const cells = header.map(foldCell);
  const at = (pattern: RegExp): number => cells.findIndex((c) => pattern.test(c));
  const criterion = at(NAMES.criterion);
  if (criterion < 0) return null;
  const common = {
    rubric: at(NAMES.rubric),
    criterion,
    weight: at(NAMES.weight),
    outcome: at(NAMES.outcome),
  };
  const numbered = groups(cells);
  if (numbered.length > 0) {
    const own = at(NAMES.criterionDescription);
    return {
      ...common,
      layout: 'wide',
      criterionDescription: own >= 0 ? own : at(DESCRIPTION),
      levels: numbered,
    };
  }
  const title = at(LEVEL);
  if (title >= 0) {
    const level = {
      title,
      points: at(POINTS),
      description: at(DESCRIPTION),
      feedback: at(FEEDBACK),
      header: '',
    };
    return {
      ...common,
      layout: 'long',
      criterionDescription: at(NAMES.criterionDescription),
      levels: [level],
    };
  }
  // A grid as it is pasted from a page: every further column is a level.
  const taken = new Set([common.rubric, criterion, common.weight, common.outcome]);
  const described = at(NAMES.criterionDescription) >= 0 ? at(NAMES.criterionDescription) : at(DESCRIPTION);
  taken.add(described);
  const levels = cells.flatMap((_, n) =>
    taken.has(n) || cells[n] === ''
      ? []
      : [{ title: -1, points: -1, description: n, feedback: -1, header: header[n]!.trim() }],
  );
  return levels.length > 0 ? { ...common, layout: 'grid', criterionDescription: described, levels } : null;
}

/**
 * "level 1, points 1, description 1" and "level 1, level 1 points, level 1 description" alike, by their
 * number.
 */
function groups(cells: readonly string[]): LevelColumns[] {
  const found = new Map<number, { -readonly [K in keyof LevelColumns]: LevelColumns[K] }>();
  for (const [n, cell] of cells.entries()) {
    const number = /^(.*?) ?(?<!\d)(\d{1,4})(?: (.+))?$/u.exec(cell);
    if (!number) continue;
    const what = (number[3] ?? number[1]!).trim();
    const kind = POINTS.test(what)
      ? 'points'
      : FEEDBACK.test(what)
        ? 'feedback'
        : DESCRIPTION.test(what)
          ? 'description'
          : LEVEL.test(what) || /^(?:title|name|label)$/u.test(what)
            ? 'title'
            : null;
    if (kind === null) continue;
    const group = found.get(Number(number[2])) ?? {
      title: -1,
      points: -1,
      description: -1,
      feedback: -1,
      header: '',
    };
    if (group[kind] < 0) group[kind] = n;
    found.set(Number(number[2]), group);
  }
  return [...found].sort((a, b) => a[0] - b[0]).map(([, group]) => group);
}
