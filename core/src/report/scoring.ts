import type { Item } from '../model/holding.ts';
import type { ScoringShape, Tolerance } from '../scoring/shapes.ts';
import type { ScoringSaid } from '../compare/said.ts';
import { own } from '../model/own.ts';
import { shapeNames } from '../scoring/keyTexts.ts';
import { plainNumber } from '../model/number.ts';

const pts = (n: number): string => `${plainNumber(n)} ${Math.abs(n) === 1 ? 'point' : 'points'}`;

/** A scoring rule as a person would say it. */
export const describeShape = (item: Item, shape: ScoringShape): string =>
  describeScoring({ shape, points: item.points, names: shapeNames(item, shape) });

/** The same of a rule that stands apart from its item. */
export function describeScoring({ shape, points, names }: ScoringSaid): string {
  switch (shape.kind) {
    case 'manual':
      return points > 0 ? `Marked by a person, up to ${pts(points)}.` : 'Marked by a person.';
    case 'none':
      return 'Not scored.';
    case 'program':
      return 'A scoring program of its own; the table shows what it gives.';
    case 'all-or-nothing':
      return `${pts(shape.points)} for ${shape.ordered ? 'exactly the right order' : 'exactly the key'}, else 0.`;
    case 'per-choice':
      return perChoice(shape, names);
    case 'accepted-answers':
      return acceptedAnswers(shape);
    case 'numeric':
      return `${pts(shape.points)} for ${describeTolerance(shape.value, shape.tolerance, shape.stated)}.`;
    case 'pattern':
      return [
        `${pts(shape.points)} if the answer `,
        [
          ...shape.patterns.map((p) => `fits the pattern ${p}`),
          ...shape.substrings.map((s) => `contains “${s}”`),
        ].join(' or '),
        '.',
      ].join('');
    case 'sum-of-parts':
      return `The sum of ${shape.parts.length} parts. ${shape.parts.map((p, at) => `${at + 1}: ${describeScoring({ shape: p.shape, points, names })}`).join(' ')}`;
  }
}

/** "3.3, within 0.1 either way", "41 to 43", "3.3 exactly". */
function describeTolerance(value: number, tolerance: Tolerance | null, stated: boolean): string {
  if (!tolerance) return `${plainNumber(value)} exactly`;
  const { low, high, includesLow, includesHigh } = tolerance;
  const below = Number((value - low).toPrecision(9));
  const above = Number((high - value).toPrecision(9));
  const open =
    !includesLow && !includesHigh
      ? ', ends not included'
      : !includesLow
        ? ', lower end not included'
        : !includesHigh
          ? ', upper end not included'
          : '';
  if (stated && below === above)
    return `${plainNumber(value)}, within ${plainNumber(below)} either way${open}`;
  return `${plainNumber(low)} to ${plainNumber(high)}${open}`;
}

const UNITS = { choice: 'choices', pair: 'pairs', area: 'areas' } as const;

function perChoice(
  shape: Extract<ScoringShape, { kind: 'per-choice' }>,
  names: ScoringSaid['names'],
): string {
  const unit = UNITS[shape.unit];
  const name = (id: string): string => own(names, id) ?? id;
  const groups = new Map<number, string[]>();
  for (const [id, value] of Object.entries(shape.values))
    groups.set(value, [...(groups.get(value) ?? []), id]);
  const parts = [...groups]
    .filter(([value]) => value !== 0)
    .sort(([x], [y]) => y - x)
    .map(([value, ids]) =>
      value > 0
        ? `${pts(value)} for ${ids.length === 1 ? `“${name(ids[0]!)}”` : `each of ${ids.length} right ${unit}`}`
        : `${pts(-value)} off for ${ids.length === 1 ? `“${name(ids[0]!)}”` : `each of ${ids.length} wrong ${unit}`}`,
    );
  if (shape.otherwise < 0) parts.push(`${pts(-shape.otherwise)} off for anything else`);
  const bounds = [
    shape.lower !== null ? `never below ${plainNumber(shape.lower)}` : '',
    shape.upper !== null ? `never above ${plainNumber(shape.upper)}` : '',
  ].filter((t) => t !== '');
  return `${[...parts, ...bounds].join(', ')}.`;
}

function acceptedAnswers(shape: Extract<ScoringShape, { kind: 'accepted-answers' }>): string {
  const groups = new Map<number, string[]>();
  for (const answer of shape.answers)
    groups.set(answer.points, [...(groups.get(answer.points) ?? []), `“${answer.text}”`]);
  const parts = [...groups]
    .sort(([x], [y]) => y - x)
    .map(([points, texts]) => `${pts(points)} for ${texts.join(' or ')}`);
  const sensitive = shape.answers.filter((a) => a.caseSensitive).length;
  const caseText =
    sensitive === 0
      ? 'capitals do not matter'
      : sensitive === shape.answers.length
        ? 'capitals matter'
        : 'capitals matter for some';
  return `${parts.join(', ')}; ${caseText}.`;
}
