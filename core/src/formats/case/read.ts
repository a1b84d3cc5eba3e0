// {"CFPackage": {"CFRubrics": [{"identifier": "…", "title": "Logbook", "CFRubricCriteria": [{"category":
// "Fixes", "CFRubricCriterionLevels": [{"quality": "Good", "score": 2}]}]}]}}
import { z } from 'zod';
import { finding, type Finding } from '../../model/finding.ts';
import type { MetaField } from '../../model/holding.ts';
import type { Criterion, Rubric, RubricLevel, RubricMode } from '../../model/rubric.ts';

/**
 * Shapes of 1EdTech CASE 1.0 and 1.1 rubrics, liberal in what is left out; from memory of the published
 * standard.
 */
const text = z.string().nullish();
const number = z
  .union([z.number(), z.string()])
  .nullish()
  .transform((v) => (v === null || v === undefined || v === '' ? null : Number(v)))
  .transform((v) => (v !== null && Number.isFinite(v) ? v : null));
const Level = z.looseObject({
  identifier: text,
  description: text,
  quality: text,
  score: number,
  feedback: text,
  position: number,
});
const CriterionShape = z.looseObject({
  identifier: text,
  category: text,
  description: text,
  CFItemURI: z.union([z.string(), z.looseObject({ uri: text, identifier: text })]).nullish(),
  weight: number,
  position: number,
  CFRubricCriterionLevels: z.array(Level).nullish(),
});
const RubricShape = z.looseObject({
  identifier: text,
  title: text,
  description: text,
  CFRubricCriteria: z.array(CriterionShape).nullish(),
});

const KNOWN = new Set([
  'identifier',
  'uri',
  'title',
  'description',
  'lastChangeDateTime',
  'CFRubricCriteria',
  'extensions',
]);

/**
 * Reads the rubrics of a CASE document: a package of the framework, a list, or one rubric alone.
 * @param claim gives each rubric an id of its own
 */
export function readCase(
  source: string,
  path: string,
  claim: (id: string) => string,
  add: (found: Finding) => void,
): Rubric[] {
  let parsed: unknown;
  try {
    parsed = JSON.parse(source.replace(/^\uFEFF/u, ''));
  } catch (error) {
    add(finding('json-malformed', 'error', { path }, { detail: (error as Error).message }));
    return [];
  }
  const found = rubricsIn(parsed);
  if (found.length === 0) add(finding('rubrics-none', 'warning', { path }, {}));
  return found.flatMap((given, at): Rubric[] => {
    const shape = RubricShape.safeParse(given);
    if (!shape.success) {
      add(
        finding(
          'rubric-unread',
          'error',
          { path },
          { at: at + 1, detail: z.prettifyError(shape.error).split('\n')[0]! },
        ),
      );
      return [];
    }
    return [rubricOf(shape.data, path, claim)];
  });
}

/** Rubrics stand in the package, beside it, in a list, or alone. */
function rubricsIn(parsed: unknown): unknown[] {
  if (Array.isArray(parsed)) return parsed.flatMap(rubricsIn);
  if (parsed === null || typeof parsed !== 'object') return [];
  const held = parsed as Record<string, unknown>;
  if (Object.hasOwn(held, 'CFRubricCriteria')) return [held];
  for (const key of ['CFRubrics', 'CFRubric', 'CFPackage'])
    if (Object.hasOwn(held, key)) {
      const inner = held[key];
      if (key === 'CFPackage') return rubricsIn(inner);
      return Array.isArray(inner) ? inner : [inner];
    }
  return [];
}

/** By position where it is given, else as they stand. */
function inOrder<T extends { position?: number | null }>(list: readonly T[] | null | undefined): T[] {
  return (list ?? [])
    .map((x, at) => ({ x, at }))
    .sort((a, b) => (a.x.position ?? a.at + 1) - (b.x.position ?? b.at + 1) || a.at - b.at)
    .map(({ x }) => x);
}

function rubricOf(r: z.infer<typeof RubricShape>, path: string, claim: (id: string) => string): Rubric {
  const id = claim(r.identifier || r.title || 'rubric');
  const criteria = inOrder(r.CFRubricCriteria).map((c, at): Criterion => {
    const levels = inOrder(c.CFRubricCriterionLevels).map((l, n): RubricLevel =>
      levelOf(l, `${id}-${at + 1}-${n + 1}`),
    );
    const outcome =
      typeof c.CFItemURI === 'string' ? c.CFItemURI : (c.CFItemURI?.uri ?? c.CFItemURI?.identifier ?? null);
    return {
      id: c.identifier || `${id}-${at + 1}`,
      title: c.category || c.description || '',
      description: c.category ? (c.description ?? '') : '',
      weight: c.weight,
      outcome: outcome || null,
      levels,
    };
  });
  const metadata = Object.entries(r)
    .filter(([key, v]) => !KNOWN.has(key) && (typeof v === 'string' || typeof v === 'number'))
    .map(([label, value]): MetaField => ({ label, value: String(value) }));
  const own = extensionsOf(r);
  return {
    id,
    title: r.title ?? '',
    description: r.description ?? '',
    mode: own.mode ?? (criteria.some((c) => c.levels.some((l) => l.points !== null)) ? 'points' : 'unscored'),
    criteria: criteria.map((c) => ({
      ...c,
      levels: c.levels.map((l) => {
        const low = own.lows.get(l.id);
        return low !== undefined && l.points ? { ...l, points: { low, high: l.points.high } } : l;
      }),
    })),
    attachedTo: [],
    ...(own.freeComments === null ? {} : { freeComments: own.freeComments }),
    metadata,
    origin: { kind: 'line', path, line: 1 },
  };
}

const levelOf = (
  l: NonNullable<z.infer<typeof CriterionShape>['CFRubricCriterionLevels']>[number],
  id: string,
): RubricLevel => ({
  id: l.identifier || id,
  title: l.quality ?? '',
  points: l.score === null ? null : { low: l.score, high: l.score },
  description: l.description ?? '',
  feedback: l.feedback ?? '',
});

/**
 * CASE has a place for extensions, in which what it has no field for is kept: the mode, the lower ends of
 * ranges, whether there are free comments.
 */
const Extensions = z.object({
  extensions: z.object({
    alforja: z.object({
      mode: z.enum(['points', 'percentage', 'unscored']).optional(),
      lows: z.record(z.string(), z.number()).optional(),
      freeComments: z.boolean().optional(),
    }),
  }),
});
function extensionsOf(r: unknown): {
  mode: RubricMode | null;
  lows: ReadonlyMap<string, number>;
  freeComments: boolean | null;
} {
  const own = Extensions.safeParse(r);
  if (!own.success) return { mode: null, lows: new Map(), freeComments: null };
  const { mode, lows, freeComments } = own.data.extensions.alforja;
  return {
    mode: mode ?? null,
    lows: new Map(Object.entries(lows ?? {})),
    freeComments: freeComments ?? null,
  };
}
