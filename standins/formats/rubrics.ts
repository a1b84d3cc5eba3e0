import { randomUUID } from 'node:crypto';
import Papa from 'papaparse';
import { z } from 'zod';

/** How a system takes and gives rubrics: a table, or CASE. */
export type RubricForm = 'csv' | 'case1.0';

interface HeldLevel {
  /** CASE's identifier, kept where it came with one. */
  readonly id: string;
  readonly title: string;
  readonly points: { readonly low: number; readonly high: number } | null;
  readonly description: string;
  readonly feedback: string;
}
interface HeldCriterion {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  readonly weight: number | null;
  /** Whether the weight is a share of a hundred. */
  readonly percent: boolean;
  readonly outcome: string | null;
  readonly levels: readonly HeldLevel[];
}
export interface HeldRubric {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  readonly criteria: readonly HeldCriterion[];
  /** What CASE's `extensions` held; others' business, given back as it came. */
  readonly extensions: unknown;
  /** Ids of items, things and assignments. */
  readonly attachedTo: readonly string[];
}

/** What a rubric is worth: weight times the best level, of every criterion. */
export const rubricWorth = (rubric: HeldRubric): number =>
  rubric.criteria.reduce((sum, c) => {
    const best = Math.max(0, ...c.levels.map((l) => l.points?.high ?? 0));
    return sum + (c.percent ? 1 : (c.weight ?? 1)) * best;
  }, 0);

/** Reads the rubrics that were sent in. @throws Error with words for the one who sent them */
export function readRubrics(form: RubricForm, content: string): HeldRubric[] {
  return form === 'csv' ? readTable(content) : readCase(content);
}

export function writeRubric(form: RubricForm, rubric: HeldRubric): string {
  return form === 'csv' ? writeTable(rubric) : writeCase(rubric);
}

/** "4", "4 to 5": a number, or the ends of a range. */
function pointsIn(cell: string): HeldLevel['points'] {
  const numbers = [...cell.matchAll(/\d+(?:\.\d+)?/gu)].map(([n]) => Number(n));
  return numbers.length === 0 ? null : { low: Math.min(...numbers), high: Math.max(...numbers) };
}

const pointsCell = (points: HeldLevel['points']): string =>
  points === null ? '' : points.low === points.high ? String(points.high) : `${points.low} to ${points.high}`;

/** A spreadsheet's sign that a cell is text and no formula. */
const unguarded = (cell: string): string => cell.replace(/^'(?='*[=+\-@\t\r])/u, '');
const guarded = (cell: string): string => (/^'*[=+\-@\t\r]/u.test(cell) ? `'${cell}` : cell);

/** A row a criterion, its levels beside one another. */
function readTable(source: string): HeldRubric[] {
  const { data } = Papa.parse<string[]>(source.replace(/^\uFEFF/u, ''), { skipEmptyLines: 'greedy' });
  const [head = [], ...rows] = data.map((row) => row.map((cell) => unguarded(cell.trim())));
  const columns = new Map(head.map((name, at) => [name.toLowerCase(), at]));
  if (!columns.has('criterion')) throw new Error('The table has no column “criterion”.');
  const cell = (row: readonly string[], name: string): string => row[columns.get(name) ?? -1] ?? '';
  const numbers = [...columns.keys()].flatMap((name) => /^(?:level|points) (\d+)$/u.exec(name)?.[1] ?? []);
  const criterion = (row: readonly string[]): HeldCriterion => {
    const weight = cell(row, 'weight');
    const levels = [...new Set(numbers)].map((n): HeldLevel => ({
      id: randomUUID(),
      title: cell(row, `level ${n}`),
      points: pointsIn(cell(row, `points ${n}`)),
      description: cell(row, `description ${n}`),
      feedback: cell(row, `feedback ${n}`),
    }));
    return {
      id: randomUUID(),
      title: cell(row, 'criterion'),
      description: cell(row, 'description'),
      weight: weight === '' ? null : parseFloat(weight),
      percent: weight.endsWith('%'),
      outcome: cell(row, 'outcome') || null,
      levels: levels.filter((l) => l.title !== '' || l.points !== null || l.description !== ''),
    };
  };
  return [...new Set(rows.map((row) => cell(row, 'rubric')))].map((title) => ({
    id: '',
    title,
    description: '',
    criteria: rows.filter((row) => cell(row, 'rubric') === title).map(criterion),
    extensions: null,
    attachedTo: [],
  }));
}

function writeTable(rubric: HeldRubric): string {
  const count = Math.max(1, ...rubric.criteria.map((c) => c.levels.length));
  const numbers = Array.from({ length: count }, (_, at) => at);
  const head = [
    'Rubric',
    'Criterion',
    'Description',
    'Weight',
    'Outcome',
    ...numbers.flatMap((n) =>
      ['Level', 'Points', 'Description', 'Feedback'].map((name) => `${name} ${n + 1}`),
    ),
  ];
  const rows = rubric.criteria.map((c) => [
    rubric.title,
    c.title,
    c.description,
    c.weight === null ? '' : `${c.weight}${c.percent ? '%' : ''}`,
    c.outcome ?? '',
    ...numbers.flatMap((n) => {
      const l = c.levels[n];
      return l ? [l.title, pointsCell(l.points), l.description, l.feedback] : ['', '', '', ''];
    }),
  ]);
  return Papa.unparse([head, ...rows.map((row) => row.map(guarded))]);
}

/** The parts of CASE 1.0 that are read here ("CFRubric", "CFRubricCriterion", "CFRubricCriterionLevel"; from memory). */
const Level = z.object({
  identifier: z.string().optional(),
  quality: z.string().default(''),
  description: z.string().default(''),
  feedback: z.string().default(''),
  score: z.number().nullish(),
  position: z.number().optional(),
});
const Criterion = z.object({
  identifier: z.string().optional(),
  category: z.string().default(''),
  description: z.string().default(''),
  weight: z.number().nullish(),
  position: z.number().optional(),
  CFItemURI: z.string().nullish(),
  CFRubricCriterionLevels: z.array(Level).default([]),
});
const Rubric = z.object({
  title: z.string().default(''),
  description: z.string().default(''),
  CFRubricCriteria: z.array(Criterion).default([]),
  extensions: z.unknown().optional(),
});
const Package = z.union([
  z.object({ CFRubrics: z.array(Rubric) }),
  z.object({ CFPackage: z.object({ CFRubrics: z.array(Rubric) }) }).transform((p) => p.CFPackage),
]);

const inOrder = <T extends { readonly position?: number | undefined }>(list: readonly T[]): T[] =>
  [...list].sort((a, b) => (a.position ?? 0) - (b.position ?? 0));

function readCase(source: string): HeldRubric[] {
  const read = Package.safeParse(JSON.parse(source));
  if (!read.success) throw new Error(`That is no CASE package with rubrics: ${z.prettifyError(read.error)}`);
  return read.data.CFRubrics.map((rubric) => ({
    id: '',
    title: rubric.title,
    description: rubric.description,
    extensions: rubric.extensions ?? null,
    attachedTo: [],
    criteria: inOrder(rubric.CFRubricCriteria).map((c) => ({
      id: c.identifier ?? randomUUID(),
      title: c.category,
      description: c.description,
      weight: c.weight ?? null,
      percent: false,
      outcome: c.CFItemURI ?? null,
      levels: inOrder(c.CFRubricCriterionLevels).map((l) => ({
        id: l.identifier ?? randomUUID(),
        title: l.quality,
        points: typeof l.score === 'number' ? { low: l.score, high: l.score } : null,
        description: l.description,
        feedback: l.feedback,
      })),
    })),
  }));
}

function writeCase(rubric: HeldRubric): string {
  const CFRubricCriteria = rubric.criteria.map((c, at) => ({
    identifier: c.id,
    category: c.title,
    description: c.description,
    ...(c.weight === null ? {} : { weight: c.weight }),
    ...(c.outcome === null ? {} : { CFItemURI: c.outcome }),
    position: at + 1,
    CFRubricCriterionLevels: c.levels.map((l, n) => ({
      identifier: l.id,
      quality: l.title,
      description: l.description,
      feedback: l.feedback,
      ...(l.points === null ? {} : { score: l.points.high }),
      position: n + 1,
    })),
  }));
  const { id, title, description, extensions } = rubric;
  const CFRubric = {
    identifier: id,
    title,
    description,
    CFRubricCriteria,
    ...(extensions === null ? {} : { extensions }),
  };
  return JSON.stringify({ CFPackage: { CFRubrics: [CFRubric] } });
}
