// Criterion,Weight,Level 1,Points 1,Description 1,Level 2,Points 2,Description 2
// Fixes,1,Good,2,within 0.2 NM,Poor,0,no fix
import { fromTextCell } from '../../model/formulaCells.ts';
import { finding, type Finding } from '../../model/finding.ts';
import { headerLevel, pointsOf, tailPoints } from '../../model/levelText.ts';
import type { Criterion, Rubric, RubricLevel } from '../../model/rubric.ts';
import { columnsOf, type Columns } from './columns.ts';
import { HEADER_WITHIN } from './roles.ts';

type Points = RubricLevel['points'];

interface DraftCriterion extends Omit<Criterion, 'levels'> {
  readonly levels: RubricLevel[];
  readonly percent: boolean;
}
interface DraftRubric {
  readonly title: string;
  readonly line: number;
  readonly criteria: Map<string, DraftCriterion>;
}

/**
 * Reads rubrics from the rows of a table, in a wide, a long or a grid layout.
 * @param given columns that somebody has confirmed, and the row that named them (-1: none); null finds them
 * from the header
 */
export function readRubricTable(
  rows: readonly (readonly string[])[],
  file: { readonly path: string; readonly title: string },
  claim: (id: string) => string,
  add: (found: Finding) => void,
  given: { readonly columns: Columns; readonly headerRow: number } | null = null,
): { rubrics: Rubric[]; columns: Columns | null } {
  const { path } = file;
  const header = given?.headerRow ?? rows.slice(0, HEADER_WITHIN).findIndex((r) => columnsOf(r) !== null);
  const columns = given?.columns ?? (header >= 0 ? columnsOf(rows[header]!) : null);
  if (!columns) {
    add(finding('rubric-header-missing', 'error', { path, line: 1 }, {}));
    return { rubrics: [], columns: null };
  }
  const drafts = new Map<string, DraftRubric>();
  let last = { rubric: '', criterion: '' };
  for (const [at, row] of rows.entries()) {
    if (at <= header || row.every((c) => c.trim() === '')) continue;
    const line = at + 1;
    const cell = (n: number): string => (n < 0 ? '' : plainCell(row[n] ?? ''));
    // A cell left empty goes on with what stands above it, as in merged cells.
    const rubric = cell(columns.rubric) || last.rubric || file.title;
    const criterion = cell(columns.criterion) || (columns.layout === 'long' ? last.criterion : '');
    if (criterion === '') {
      add(finding('rubric-row-unread', 'warning', { path, line }, {}));
      continue;
    }
    last = { rubric, criterion };
    const draft = drafts.get(rubric) ?? { title: rubric, line, criteria: new Map() };
    drafts.set(rubric, draft);
    const points = (text: string): Points =>
      pointsOf(text, () => add(finding('rubric-points-unread', 'warning', { path, line }, { text })));
    // "Complete with units, 10": where no column and no header gives points, and every cell of the row ends so.
    const tails = columns.levels.map((c) =>
      c.points < 0 && headerLevel(c.header).points === null ? tailPoints(cell(c.description)) : null,
    );
    const tailed = columns.levels.every((c, n) => cell(c.description) === '' || tails[n] !== null);
    const levels = columns.levels.flatMap((c, n): RubricLevel[] => {
      const named =
        c.header === '' ? { title: cell(c.title), points: points(cell(c.points)) } : headerLevel(c.header);
      const said = cell(c.description);
      // Under a level that the header names without its points, a number alone is just these.
      const alone = c.header !== '' && named.points === null ? pointsOf(said, () => undefined) : null;
      const tail = tailed ? tails[n] : null;
      const worth = alone ?? tail?.points ?? null;
      const level = {
        title: named.title,
        points: named.points ?? worth,
        id: '',
        description: alone ? '' : (tail?.text ?? said),
        feedback: cell(c.feedback),
      };
      const empty =
        c.header === '' && level.title === '' && level.points === null && level.description === '';
      return empty ? [] : [level];
    });
    const known = columns.layout === 'long' ? draft.criteria.get(criterion) : undefined;
    if (known) known.levels.push(...levels);
    else {
      const weight = cell(columns.weight);
      const key = draft.criteria.has(criterion) ? `${criterion} ${line}` : criterion;
      draft.criteria.set(key, {
        id: '',
        title: criterion,
        description: cell(columns.criterionDescription),
        weight:
          weight === ''
            ? null
            : (pointsOf(weight.replace(/%$/u, ''), () =>
                add(finding('rubric-points-unread', 'warning', { path, line }, { text: weight })),
              )?.high ?? null),
        percent: weight.endsWith('%'),
        outcome: cell(columns.outcome) || null,
        levels,
      });
    }
  }
  if (drafts.size === 0) add(finding('rubrics-none', 'warning', { path }, {}));
  return { rubrics: [...drafts.values()].map((d) => settled(d, path, claim)), columns };
}

function settled(
  { title, line, criteria }: DraftRubric,
  path: string,
  claim: (id: string) => string,
): Rubric {
  const id = claim(title);
  const list = [...criteria.values()];
  const scored = list.some((c) => c.levels.some((l) => l.points !== null));
  return {
    id,
    title,
    description: '',
    mode: !scored ? 'unscored' : list.length > 0 && list.every((c) => c.percent) ? 'percentage' : 'points',
    criteria: list.map(({ percent: _, ...c }, at) => ({
      ...c,
      id: `${id}-${at + 1}`,
      levels: c.levels.map((l, n) => ({ ...l, id: `${id}-${at + 1}-${n + 1}` })),
    })),
    attachedTo: [],
    metadata: [],
    origin: { kind: 'line', path, line },
  };
}

/** A sign that the writer put before what a spreadsheet would take for a formula. */
const plainCell = (cell: string): string => fromTextCell(cell.trim());
