import type { Item } from '../model/holding.ts';
import { near, parseNumber, withoutTail } from '../model/number.ts';
import { interactionFor } from '../model/options.ts';
import { own } from '../model/own.ts';
import type { ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { clean } from '../scoring/operators/comparison.ts';
import { choiceIds, pairEnds } from '../scoring/probe.ts';
import { mostOf } from '../scoring/programFor.ts';
import { recognise, shapeIn, type Recognised } from '../scoring/recognise.ts';
import type { Key, ScoringShape } from '../scoring/shapes.ts';
import { isRefused, refused, type Refused } from './refusal.ts';

export type PerChoice = Extract<ScoringShape, { kind: 'per-choice' }>;
export type Accepted = Extract<ScoringShape, { kind: 'accepted-answers' }>;

/** The response an edit is about: the one it names, else the only one there is. */
export function responseOf(item: Item, given: string | undefined): ResponseDeclaration | Refused {
  const asked = item.responses.filter((r) => {
    const kind = interactionFor(item, r.id)?.kind;
    return kind !== undefined && kind !== 'media' && kind !== 'endAttempt';
  });
  const known = item.responses.map((r) => r.id).join(', ');
  if (given !== undefined)
    return (
      item.responses.find((r) => r.id === given) ?? refused('response-unknown', { response: given, known })
    );
  return asked.length === 1 ? asked[0]! : refused('response-needed', { known });
}

/** Right answers as a response takes them: known choices, pairs of known ends, numbers, texts. */
export function keyValues(
  item: Item,
  response: ResponseDeclaration,
  given: readonly Scalar[],
): readonly Scalar[] | Refused {
  if (given.length === 0) return refused('key-empty');
  const ids = choiceIds(item, response.id);
  const ends = pairEnds(interactionFor(item, response.id));
  const out: Scalar[] = [];
  for (const v of given) {
    const one = keyValue(response, ids, ends, v);
    if (isRefused(one)) return one;
    if (!out.includes(one)) out.push(one);
  }
  const typed = response.baseType === 'string' && ids.length === 0;
  if (response.cardinality === 'single' && out.length > 1 && !typed)
    return refused('key-several', { count: out.length });
  return response.cardinality === 'multiple' && ids.length > 0 ? ids.filter((id) => out.includes(id)) : out;
}

function keyValue(
  response: ResponseDeclaration,
  ids: readonly string[],
  ends: ReturnType<typeof pairEnds>,
  given: Scalar,
): Scalar | Refused {
  const wants = (what: string): Refused => refused('key-value', { value: String(given), wants: what });
  if (ids.length > 0)
    return ids.includes(String(given))
      ? String(given)
      : refused('choice-unknown', { choice: String(given), known: ids.join(', ') });
  if (ends) {
    const [a = '', b = '', ...more] = String(given).split(' ');
    if (more.length === 0 && ends.left.includes(a) && ends.right.includes(b)) return `${a} ${b}`;
    return wants('two choices, one after the other, with a blank between');
  }
  switch (response.baseType) {
    case 'float':
    case 'integer':
    case 'duration': {
      const n = typeof given === 'number' ? given : parseNumber(String(given));
      if (n === null || !Number.isFinite(n)) return wants('a number');
      return response.baseType === 'integer' && !Number.isInteger(n) ? wants('a whole number') : n;
    }
    case 'boolean':
      return given === true || given === 'true'
        ? true
        : given === false || given === 'false'
          ? false
          : wants('true or false');
    case 'point':
    case 'file':
      return wants('nothing: what is right is an area or a file');
    default:
      return String(given).trim() === '' ? wants('a text') : String(given);
  }
}

/** What a part of an item is worth: what it gives now, else an equal share of the item's points. */
export function worthOf(item: Item, { shape }: Recognised, response: ResponseDeclaration): number {
  const part = shapeIn(shape, response.id);
  const now = part && keyed(shape) ? mostOf(part, response.cardinality === 'single') : 0;
  if (now > 0) return now;
  const parts = shape.kind === 'sum-of-parts' ? shape.parts.length + 1 : 1;
  return (item.points > 0 ? item.points : 1) / parts;
}

/** Whether a shape says what is right. */
export const keyed = (shape: ScoringShape): boolean => shape.kind !== 'none' && shape.kind !== 'manual';

/** One part of a shape replaced, or put beside the others, so that all of them still give the item's points. */
export function withPart(
  item: Item,
  shape: ScoringShape,
  responseId: string,
  part: ScoringShape,
): ScoringShape {
  const others = partsBeside(item, shape, responseId);
  if (others.length === 0 && shape.kind !== 'sum-of-parts') return part;
  const known = others.some((p) => p.responseId === responseId);
  const parts = known
    ? others.map((p) => (p.responseId === responseId ? { responseId, shape: part } : p))
    : item.responses.flatMap((r) =>
        r.id === responseId ? [{ responseId, shape: part }] : others.filter((p) => p.responseId === r.id),
      );
  const whole: ScoringShape = { kind: 'sum-of-parts', parts };
  const most = mostOf(whole, true);
  return known || most <= 0 || item.points <= 0 ? whole : scaleShape(whole, item.points / most);
}

/** The parts a new one stands beside: those of a sum, or the one that has been scored so far. */
function partsBeside(
  item: Item,
  shape: ScoringShape,
  responseId: string,
): readonly { responseId: string; shape: ScoringShape }[] {
  if (shape.kind === 'sum-of-parts') return shape.parts;
  if (!keyed(shape) || item.responses.length < 2) return [];
  const others = item.responses.filter((r) => r.id !== responseId);
  const { key } = recognise(item);
  // What is right may be declared, or stand in the program alone.
  const scored =
    others.find((r) => (own(key, r.id) ?? []).length > 0) ??
    others.find((r) => r.correct.length > 0 || r.mapping !== null || r.areaMapping !== null);
  return scored ? [{ responseId: scored.id, shape }] : [];
}

/** The same shape for so many times the points. */
export function scaleShape(shape: ScoringShape, times: number): ScoringShape {
  const scaled = (n: number): number => withoutTail(n * times);
  const bound = (n: number | null): number | null => (n === null ? null : scaled(n));
  switch (shape.kind) {
    case 'all-or-nothing':
    case 'numeric':
    case 'pattern':
      return { ...shape, points: scaled(shape.points) };
    case 'accepted-answers':
      return { ...shape, answers: shape.answers.map((a) => ({ ...a, points: scaled(a.points) })) };
    case 'per-choice':
      return {
        ...shape,
        values: Object.fromEntries(Object.entries(shape.values).map(([k, v]) => [k, scaled(v)])),
        otherwise: scaled(shape.otherwise),
        lower: bound(shape.lower),
        upper: bound(shape.upper),
      };
    case 'sum-of-parts':
      return {
        ...shape,
        parts: shape.parts.map((p) => ({ ...p, shape: scaleShape(p.shape, times) })),
      };
    default:
      return shape;
  }
}

/** A part of an item's shape for another key, worth as much as before. */
export function partForKey(
  item: Item,
  recognised: Recognised,
  response: ResponseDeclaration,
  wanted: readonly Scalar[],
): ScoringShape | Refused {
  const part = shapeIn(recognised.shape, response.id);
  const points = worthOf(item, recognised, response);
  if (response.baseType === 'float' || response.baseType === 'integer')
    return numberPart(part, Number(wanted[0]), points);
  const pickable =
    choiceIds(item, response.id).length > 0 || pairEnds(interactionFor(item, response.id)) !== null;
  if (pickable || response.baseType === 'boolean') {
    if (part?.kind === 'per-choice') return valuesForKey(part, response, wanted, points);
    return { kind: 'all-or-nothing', points, ordered: response.cardinality === 'ordered' };
  }
  if (response.cardinality !== 'single') return { kind: 'all-or-nothing', points, ordered: false };
  if (part?.kind === 'pattern') return refused('scoring-other', { op: 'key', kind: 'pattern' });
  return textPart(part, wanted.map(String), points);
}

function numberPart(part: ScoringShape | null, to: number, points: number): ScoringShape {
  if (part?.kind !== 'numeric') return { kind: 'numeric', points, value: to, stated: true, tolerance: null };
  const moved = to - part.value;
  const { tolerance } = part;
  return {
    ...part,
    value: to,
    stated: true,
    tolerance: tolerance && {
      ...tolerance,
      mode: tolerance.mode === 'rounded' ? 'absolute' : tolerance.mode,
      low: clean(tolerance.low + moved),
      high: clean(tolerance.high + moved),
    },
  };
}

function textPart(part: ScoringShape | null, wanted: readonly string[], points: number): Accepted {
  const before = part?.kind === 'accepted-answers' ? part.answers : [];
  const sensitive = before.filter((a) => a.caseSensitive).length * 2 > before.length;
  const partial = before.filter((a) => !near(a.points, points) && !wanted.includes(a.text));
  return {
    kind: 'accepted-answers',
    answers: [
      ...wanted.map((text) => ({
        text,
        points,
        caseSensitive: before.find((a) => a.text === text)?.caseSensitive ?? sensitive,
      })),
      ...partial,
    ],
  };
}

/** What most of several values are; the first of them where none is met twice. */
export function commonest(values: readonly number[], otherwise: number): number {
  const counts = new Map<number, number>();
  for (const v of values) counts.set(v, (counts.get(v) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? otherwise;
}

/** Values by choice for another key: right ones share the points as they did, wrong ones get what wrong ones got. */
function valuesForKey(
  part: PerChoice,
  response: ResponseDeclaration,
  wanted: readonly Scalar[],
  points: number,
): PerChoice {
  const single = response.cardinality === 'single';
  const best = Math.max(0, ...Object.values(part.values));
  const right = (v: number): boolean => (single ? near(v, best) : v > 0);
  const was = Object.entries(part.values);
  const wrong = Math.min(
    0,
    commonest(
      was.filter(([, v]) => !right(v)).map(([, v]) => v),
      0,
    ),
  );
  const share = commonest(
    was.filter(([, v]) => right(v)).map(([, v]) => v),
    points,
  );
  const keys = wanted.map(String);
  const values = Object.fromEntries(
    [...new Set([...was.map(([id]) => id), ...keys])].map((id) => {
      const before = own(part.values, id);
      const isRight = before !== undefined && right(before);
      if (keys.includes(id)) return [id, isRight ? before : share];
      return [id, isRight || before === undefined ? wrong : before];
    }),
  );
  return worthAgain({ ...part, values }, single, points);
}

/** Values whose right ones give these points again, in the same proportions; an upper bound goes along. */
export function worthAgain(part: PerChoice, single: boolean, points: number): PerChoice {
  const free = mostOf({ ...part, upper: null }, single);
  if (free <= 0) return part;
  const times = points / free;
  const values = Object.fromEntries(
    Object.entries(part.values).map(([id, v]) => [id, v > 0 ? withoutTail(v * times) : v]),
  );
  return { ...part, values, upper: part.upper === null ? null : points };
}

/** The key of an item with that of one response replaced. */
export function withKey(key: Key, responseId: string, wanted: readonly Scalar[]): Key {
  const out = new Map(Object.entries(key));
  out.set(responseId, wanted);
  return Object.fromEntries(out);
}

/** An item one of whose responses takes other values; nothing is right of it until it is scored anew. */
export const retyped = (
  item: Item,
  responseId: string,
  as: Partial<Pick<ResponseDeclaration, 'cardinality' | 'baseType'>>,
): Item => ({
  ...item,
  responses: item.responses.map((r) =>
    r.id === responseId ? { ...r, ...as, correct: [], mapping: null } : r,
  ),
});
