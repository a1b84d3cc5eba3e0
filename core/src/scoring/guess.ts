import type { ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { composed } from '../model/composed.ts';
import { near } from '../model/number.ts';
import { interactionFor } from '../model/options.ts';
import { rawScore } from './evaluate.ts';
import { inArea, parsePoint } from './geometry.ts';
import { literalsOf, type Literals } from './literals.ts';
import type { Recognisable } from './run.ts';
import { otherCase } from './candidates.ts';
import { candidatesOf, choiceIds, pairEnds } from './probe.ts';
import type { Best } from './best.ts';
import type { NumericShape, ScoringShape, Unit } from './shapes.ts';
import { scalarKey } from './value.ts';
import { own } from '../model/own.ts';

const EPSILON = 1e-9;
type Score = (value: readonly Scalar[]) => number;

/**
 * The shape one response's part of a program seems to have; what is returned has still to be run against it.
 */
export function guessShape(
  item: Recognisable,
  response: ResponseDeclaration,
  best: Best,
): ScoringShape | null {
  const score: Score = (value) => rawScore(item, { [response.id]: value }) * item.scale;
  const literals = literalsOf(item).get(response.id)!;
  const points = best.raw * item.scale;
  if (response.cardinality === 'ordered') return { kind: 'all-or-nothing', points, ordered: true };
  if (choiceIds(item, response.id).length > 0)
    return guessValues(item, response, 'choice', choiceIds(item, response.id), score, best);
  const ends = pairEnds(interactionFor(item, response.id));
  if (ends) return guessValues(item, response, 'pair', pairsKnown(response, literals), score, best);
  if (response.baseType === 'point') return guessAreas(item, response, score, best);
  if (response.baseType === 'float' || response.baseType === 'integer')
    return guessNumeric(item, response, literals, best);
  if (response.baseType === 'boolean' || response.baseType === 'file')
    return { kind: 'all-or-nothing', points, ordered: false };
  if (literals.patterns.length > 0 || literals.substrings.length > 0)
    return { kind: 'pattern', points, patterns: literals.patterns, substrings: literals.substrings };
  if (response.cardinality !== 'single' && literals.values.length > 1)
    return { kind: 'all-or-nothing', points, ordered: false };
  const answers: { text: string; points: number; caseSensitive: boolean }[] = [];
  for (const text of new Set(literals.values.map(String))) {
    const worth = score([text]);
    if (worth === 0) continue;
    answers.push({ text, points: worth, caseSensitive: capitalsMatter(text, worth, score) });
  }
  return answers.length > 0 ? { kind: 'accepted-answers', answers } : null;
}

/** Whether the same letters in the other case give less. @param score what a value gives; `worth` is what the text gives */
export function capitalsMatter(
  text: string,
  worth: number,
  score: (value: readonly Scalar[]) => number,
): boolean {
  const other = otherCase(text);
  return other !== text && !near(score([other]), worth);
}

const pairsKnown = (response: ResponseDeclaration, literals: Literals): string[] => [
  ...new Set([...literals.values, ...response.correct].map((v) => scalarKey(String(v), response.baseType))),
];

function guessValues(
  item: Recognisable,
  response: ResponseDeclaration,
  unit: Unit,
  ids: readonly string[],
  score: Score,
  best: Best,
): ScoringShape {
  const empty = score([]);
  const candidates = candidatesOf(item, best.answers).get(response.id)!.values;
  const positive = candidates.filter((set) => !near(score(set), 0));
  if (near(empty, 0) && positive.length === 1)
    return { kind: 'all-or-nothing', points: best.raw * item.scale, ordered: false };
  const values = Object.fromEntries(ids.map((id) => [id, singleValue(id, candidates, score)]));
  const keyed = (v: Scalar): string => scalarKey(v, response.baseType);
  const stranger = candidates.find((set) => set.length === 1 && !ids.includes(keyed(set[0]!)));
  const otherwise = stranger ? singleValue(String(stranger[0]), candidates, score) : 0;
  const sum = (set: readonly Scalar[]): number =>
    [...new Set(set.map(keyed))].reduce<number>((total, id) => total + (own(values, id) ?? otherwise), 0);
  const sums = candidates.map(sum);
  const scores = [empty, ...candidates.map(score)];
  const lowest = Math.min(...scores);
  const highest = Math.max(...scores);
  return {
    kind: 'per-choice',
    unit,
    values,
    otherwise,
    lower: sums.some((s) => s < lowest - EPSILON) ? lowest : null,
    upper: sums.some((s) => s > highest + EPSILON) ? highest : null,
  };
}

/** What one value adds: seen alone, or, where a lower bound hides it, beside others that score. */
function singleValue(id: string, candidates: readonly (readonly Scalar[])[], score: Score): number {
  const alone = score([id]);
  if (alone > 0) return alone;
  let least = alone;
  for (const set of candidates) {
    if (set.length < 2 || !set.includes(id)) continue;
    const before = score(set.filter((v) => v !== id));
    if (before > 0) least = Math.min(least, score(set) - before);
  }
  return least;
}

/** Areas with what each gives. One area that gives everything is all or nothing. */
function guessAreas(
  item: Recognisable,
  response: ResponseDeclaration,
  score: Score,
  best: Best,
): ScoringShape | null {
  const { areaMapping } = response;
  const points = best.raw * item.scale;
  const values = candidatesOf(item, best.answers).get(response.id)!.values;
  const distinct = new Set(values.map((v) => score(v).toPrecision(9)));
  if (!areaMapping || (areaMapping.entries.length === 1 && distinct.size <= 2))
    return { kind: 'all-or-nothing', points, ordered: false };
  const entries = areaMapping.entries.map((e): [string, number] => [`${e.shape} ${e.coords}`, e.value]);
  const factor = item.scale;
  return {
    kind: 'per-choice',
    unit: 'area',
    values: Object.fromEntries(entries.map(([k, v]) => [k, v * factor])),
    otherwise: areaMapping.defaultValue * factor,
    lower: areaMapping.lowerBound === null ? null : areaMapping.lowerBound * factor,
    upper: areaMapping.upperBound === null ? null : areaMapping.upperBound * factor,
  };
}

/** The numbers that get full credit while all else is at its best, whatever others may get. */
export function guessNumeric(
  item: Recognisable,
  response: ResponseDeclaration,
  literals: Literals,
  best: Best,
): NumericShape | null {
  const points = best.raw * item.scale;
  const full = (n: number): boolean =>
    near(rawScore(item, { ...best.answers, [response.id]: [n] }), best.raw);
  const values = candidatesOf(item, best.answers)
    .get(response.id)!
    .values.map((v) => v[0] as number)
    .sort((a, b) => a - b);
  const inside = values.filter(full);
  if (inside.length === 0) return null;
  const ends = [...literals.edges, ...literals.values.filter((v) => typeof v === 'number')];
  // The least number accepted lies at its end or above it: half way to the value, it may be nearer to that.
  const [least, most] = [inside[0]!, inside.at(-1)!];
  const below = ends.filter((end) => end <= least || near(end, least));
  const above = ends.filter((end) => end >= most || near(end, most));
  const low = below.length > 0 ? Math.max(...below) : nearest(ends, least);
  const high = above.length > 0 ? Math.min(...above) : nearest(ends, most);
  const declared =
    response.correct.find((v) => typeof v === 'number') ??
    literals.values.find((v) => typeof v === 'number' && full(v));
  const value = typeof declared === 'number' ? declared : (low + high) / 2;
  const stated = typeof declared === 'number';
  if (low === high) return { kind: 'numeric', points, value: low, stated, tolerance: null };
  const order = ['rounded', 'relative', 'absolute', 'range'] as const;
  const mode = order.find((m) => literals.modes.has(m)) ?? 'range';
  return {
    kind: 'numeric',
    points,
    value,
    stated,
    tolerance: { mode, low, high, includesLow: full(low), includesHigh: full(high) },
  };
}

const nearest = (ends: readonly number[], to: number): number =>
  ends.reduce((found, end) => (Math.abs(end - to) < Math.abs(found - to) ? end : found), ends[0] ?? to);

/** The score a shape gives for one response's values. */
export function predict(
  shape: ScoringShape,
  item: Recognisable,
  response: ResponseDeclaration,
  best: Best,
): (value: readonly Scalar[]) => number {
  const keyed = (v: Scalar): string => scalarKey(v, response.baseType);
  switch (shape.kind) {
    case 'all-or-nothing': {
      if (response.baseType === 'point' || response.baseType === 'file')
        return (value) => (near(rawScore(item, { [response.id]: value }), best.raw) ? shape.points : 0);
      const wanted = (own(best.answers, response.id) ?? []).map(keyed);
      if (!shape.ordered) wanted.sort();
      return (value) => {
        const given = value.map(keyed);
        if (!shape.ordered) given.sort();
        return given.join('\u0001') === wanted.join('\u0001') ? shape.points : 0;
      };
    }
    case 'per-choice': {
      const bounded = (sum: number): number => {
        const low = shape.lower === null ? sum : Math.max(shape.lower, sum);
        return shape.upper === null ? low : Math.min(shape.upper, low);
      };
      if (shape.unit === 'area')
        return (value) => bounded(areaSum(shape.values, shape.otherwise, value, item, response));
      return (value) =>
        value.length === 0
          ? bounded(0)
          : bounded(
              [...new Set(value.map(keyed))].reduce(
                (total, v) => total + (own(shape.values, v) ?? shape.otherwise),
                0,
              ),
            );
    }
    case 'accepted-answers':
      return ([v]) => {
        const given = composed(String(v));
        const hits = shape.answers.filter(
          (a) =>
            composed(a.text) === given ||
            (!a.caseSensitive && composed(a.text.toLowerCase()) === composed(given.toLowerCase())),
        );
        return (hits.find((a) => composed(a.text) === given) ?? hits[0])?.points ?? 0;
      };
    case 'numeric':
      return ([v]) => {
        if (typeof v !== 'number') return 0;
        const t = shape.tolerance;
        if (!t) return v === shape.value ? shape.points : 0;
        return (t.includesLow ? v >= t.low : v > t.low) && (t.includesHigh ? v <= t.high : v < t.high)
          ? shape.points
          : 0;
      };
    case 'pattern':
      // All or nothing on whatever the program's own pattern accepts.
      return (value) => (near(rawScore(item, { [response.id]: value }), best.raw) ? shape.points : 0);
    case 'manual':
    case 'none':
    case 'program':
    case 'sum-of-parts':
      return () => Number.NaN;
  }
}

function areaSum(
  values: Readonly<Record<string, number>>,
  otherwise: number,
  given: readonly Scalar[],
  item: Recognisable,
  response: ResponseDeclaration,
): number {
  const interaction = interactionFor(item, response.id);
  const size =
    interaction?.kind === 'positionObject'
      ? interaction.stage
      : interaction && 'picture' in interaction
        ? interaction.picture
        : { width: null, height: null };
  const areas = response.areaMapping?.entries ?? [];
  const hit = new Set<string>();
  let total = 0;
  for (const text of given) {
    const point = parsePoint(String(text));
    const area = point && areas.find((e) => inArea(e.shape, e.coords, point, size));
    const key = area ? `${area.shape} ${area.coords}` : null;
    if (key === null) total += otherwise;
    else if (!hit.has(key)) {
      hit.add(key);
      total += own(values, key) ?? 0;
    }
  }
  return total;
}
