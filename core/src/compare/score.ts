import type { Item } from '../model/holding.ts';
import { composed } from '../model/composed.ts';
import { choicesOf, interactionFor } from '../model/options.ts';
import { pairEnds } from '../scoring/probe.ts';
import { scalarKey } from '../scoring/value.ts';
import { near, tidyNumber } from '../model/number.ts';
import { keyTexts, shapeNames } from '../scoring/keyTexts.ts';
import { rawScore, type Answers } from '../scoring/evaluate.ts';
import type { NumericShape, ScoringShape } from '../scoring/shapes.ts';
import { sameLater, sameSeeds } from './sessions.ts';
import { exampleOf, smallest, type AnswersOfBoth, type Scored } from './answers.ts';
import { difference } from './differences.ts';
import type { PointsSaid, ScoringSaid } from './said.ts';
import type { Translation } from './translate.ts';
import type { Difference, Example } from './types.ts';

/**
 * Runs both programs on the same answers, translated through the matched choices, and says which facet a
 * difference belongs to. Scores are compared as shares of the maximum, so that points are a facet of their
 * own.
 */
export function compareScores(answers: AnswersOfBoth): Difference[] {
  const { source: a, arrived: b, translation } = answers;
  const differences: Difference[] = [];
  if (!near(a.given.points, b.given.points)) {
    const example = exampleFor(a.recognised.best.answers, answers);
    differences.push(difference('points', pointsSaid(a.given), pointsSaid(b.given), example));
  }
  const found = firstDifference(answers);
  if (found.kind === 'same') return [...differences, ...undeclared(a, b, translation)];
  const facets = found.kind === 'structure' ? (['scoring'] as const) : facetsOf(a, b, translation);
  const example = found.kind === 'answer' ? found.example : null;
  for (const facet of facets)
    differences.push(
      facet === 'key'
        ? difference(facet, keySaid(a), keySaid(b), example)
        : difference(facet, scoringSaid(a), scoringSaid(b), example),
    );
  return differences;
}

/** What is said of two items whose programs could not be run for all it takes: that they score alike is not proved. */
export function unproven(source: Item, arrived: Item): Difference[] {
  const said = (item: Item): ScoringSaid => ({
    shape: { kind: 'program' },
    points: tidyNumber(item.points),
    names: {},
  });
  return [difference('scoring', said(source), said(arrived))];
}

type Found = { kind: 'same' } | { kind: 'structure' } | { kind: 'answer'; example: Example };

/** The smallest answer that scores a different share of the maximum. */
function firstDifference(answers: AnswersOfBoth): Found {
  const { source: a, arrived: b, pairs } = answers;
  const share = (side: Scored, given: Answers): number => {
    const raw = rawScore(side.item, given);
    return side.recognised.best.raw > 0 ? raw / side.recognised.best.raw : raw;
  };
  const differing = pairs.filter(({ left, right }) => !near(share(a, left), share(b, right)));
  if (differing.length === 0) {
    const doubtful = (s: Scored): boolean =>
      s.item.scoring.untranslated.length > 0 || s.recognised.best.cut === true;
    const sameRules = JSON.stringify(a.item.scoring) === JSON.stringify(b.item.scoring);
    const other = (doubtful(a) || doubtful(b)) && !sameRules;
    return other || !sameLater(answers) || !sameSeeds(answers) ? { kind: 'structure' } : { kind: 'same' };
  }
  return { kind: 'answer', example: exampleOf(smallest(differing), a, b) };
}

function exampleFor(answers: Answers, { source, arrived, translation }: AnswersOfBoth): Example | null {
  const right = translation.forward(answers);
  if (!right || Object.keys(answers).length === 0) return null;
  const example = exampleOf({ left: answers, right }, source, arrived);
  return near(example.from, example.to) ? null : example;
}

/** A key that is only declared, not scored, is compared as it is declared. */
function undeclared(a: Scored, b: Scored, translation: Translation): Difference[] {
  if (a.recognised.best.raw > 0 || b.recognised.best.raw > 0) return [];
  const from = keySet(a, translation);
  const to = keySet(b, null);
  if (from === to) return [];
  return [difference('key', keySaid(a), keySaid(b))];
}

const paired = (item: Item, id: string): boolean => pairEnds(interactionFor(item, id)) !== null;

/** Sorted, unless it is the order that is asked for; pairs without direction by their ends. */
function inOrder(item: Item, id: string, values: readonly string[]): readonly string[] {
  const response = item.responses.find((r) => r.id === id);
  if (response?.cardinality === 'ordered') return values;
  return values.map((v) => scalarKey(v, response?.baseType ?? null)).sort();
}

/** Full-credit choices and values as one comparable text, in the arrived item's identifiers. */
function keySet(side: Scored, translation: Translation | null): string {
  const end = (id: string): string => translation?.choices.get(id) ?? id;
  const answers = Object.entries(side.recognised.key).map(([id, values]) =>
    inOrder(
      side.item,
      id,
      values.map((v) => (paired(side.item, id) ? String(v).split(' ').map(end).join(' ') : end(String(v)))),
    ).join('\u0001'),
  );
  return answers.join('\u0002');
}

/** What a difference of scores can be. */
type ScoreFacet = 'key' | 'scoring' | 'tolerance' | 'case-sensitivity';

function facetsOf(a: Scored, b: Scored, translation: Translation): ScoreFacet[] {
  const left = a.recognised.shape;
  const right = b.recognised.shape;
  const numeric = numericParts(left, right) ?? fullNumbers(a, b);
  if (numeric) return numericFacets(numeric);
  const typed = choicesOf(a.item).length === 0;
  if (typed && textual(left) && textual(right)) {
    if (keySet(a, null) === keySet(b, null))
      return [sameButCase(left, right) ? 'case-sensitivity' : 'scoring'];
    if (foldedKey(a) === foldedKey(b)) return ['case-sensitivity'];
    return ['key'];
  }
  if (left.kind === 'pattern' && right.kind === 'pattern') return patternFacets(left, right);
  const facets: ScoreFacet[] = [];
  if (keySet(a, translation) !== keySet(b, null)) facets.push('key');
  if (facets.length === 0 || left.kind !== right.kind) facets.push('scoring');
  return facets;
}

type Numeric = NumericShape;

function numericParts(left: ScoringShape, right: ScoringShape): [Numeric, Numeric][] | null {
  if (left.kind === 'numeric' && right.kind === 'numeric') return [[left, right]];
  if (
    left.kind !== 'sum-of-parts' ||
    right.kind !== 'sum-of-parts' ||
    left.parts.length !== right.parts.length
  )
    return null;
  const pairs = left.parts.map((p, at) => [p.shape, right.parts[at]!.shape] as const);
  return pairs.every(
    (p): p is readonly [Numeric, Numeric] => p[0].kind === 'numeric' && p[1].kind === 'numeric',
  )
    ? pairs.map(([x, y]) => [x, y])
    : null;
}

/** One number on both sides, at least one of which gives part of its points to others too. */
function fullNumbers(a: Scored, b: Scored): [Numeric, Numeric][] | null {
  const full = ({ recognised: { shape, numbers } }: Scored): Numeric | null => {
    if (shape.kind === 'numeric') return shape;
    const all = Object.values(numbers);
    return all.length === 1 ? all[0]! : null;
  };
  const [left, right] = [full(a), full(b)];
  return left && right ? [[left, right]] : null;
}

/** The same value with another span around it is the tolerance; another value is the key; both are both. */
function numericFacets(pairs: readonly [Numeric, Numeric][]): ScoreFacet[] {
  const facets = new Set<ScoreFacet>();
  for (const [x, y] of pairs) {
    const span = (n: Numeric): [number, number] =>
      n.tolerance ? [n.tolerance.low, n.tolerance.high] : [n.value, n.value];
    const [xl, xh] = span(x);
    const [yl, yh] = span(y);
    const nested = (xl <= yl && yh <= xh) || (yl <= xl && xh <= yh);
    const sameWidth = near(xh - xl, yh - yl);
    if (!nested) facets.add('key');
    if (!sameWidth || (nested && JSON.stringify(x.tolerance) !== JSON.stringify(y.tolerance)))
      facets.add('tolerance');
  }
  return facets.size > 0 ? [...facets] : ['scoring'];
}

type Pattern = Extract<ScoringShape, { kind: 'pattern' }>;

/** What an answer has to hold is the key; the same in other capitals, or with capitals told apart, is the case. */
function patternFacets(left: Pattern, right: Pattern): ScoreFacet[] {
  const wanted = (p: Pattern, fold: (text: string) => string): string =>
    [...p.patterns.map((x) => `/${x}/`), ...p.substrings]
      .map((x) => composed(fold(x)))
      .sort()
      .join('\u0001');
  const lower = (text: string): string => text.toLowerCase();
  return [wanted(left, lower) === wanted(right, lower) ? 'case-sensitivity' : 'key'];
}

const textual = (shape: ScoringShape): boolean =>
  shape.kind === 'accepted-answers' ||
  shape.kind === 'all-or-nothing' ||
  (shape.kind === 'sum-of-parts' && shape.parts.every((p) => p.shape.kind === 'accepted-answers'));

const answersIn = (shape: ScoringShape): { text: string; points: number; caseSensitive: boolean }[] =>
  shape.kind === 'accepted-answers'
    ? [...shape.answers]
    : shape.kind === 'sum-of-parts'
      ? shape.parts.flatMap((p) => answersIn(p.shape))
      : [];

/** Whether two lists of accepted answers give the same points once case is out of the question. */
function sameButCase(left: ScoringShape, right: ScoringShape): boolean {
  const worth = (shape: ScoringShape): string[] => {
    const all = answersIn(shape);
    const most = Math.max(0, ...all.map((x) => x.points));
    return all.map((x) => `${composed(x.text.toLowerCase())}=${(x.points / most).toFixed(9)}`).sort();
  };
  const flags = (shape: ScoringShape): string =>
    answersIn(shape)
      .map((x) => `${composed(x.text.toLowerCase())}:${x.caseSensitive}`)
      .sort()
      .join();
  return worth(left).join() === worth(right).join() && flags(left) !== flags(right);
}

const foldedKey = (side: Scored): string =>
  JSON.stringify(
    Object.values(side.recognised.key).map((values) =>
      [...new Set(values.map((v) => composed(String(v).toLowerCase())))].sort(),
    ),
  );

const pointsSaid = ({ points: worth }: Item): PointsSaid => ({
  points: tidyNumber(worth),
  percentage: false,
});
const keySaid = (side: Scored): string[] => keyTexts(side.item, side.recognised);

const scoringSaid = ({ item, recognised: { shape } }: Scored): ScoringSaid => ({
  shape,
  points: tidyNumber(item.points),
  names: shapeNames(item, shape),
});
