import { HeldItem, type Packed } from '../model/heldItem.ts';
import type { Item } from '../model/holding.ts';
import { number } from '../model/make.ts';
import { mapRule } from '../model/mapRule.ts';
import type { Expr, ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { near } from '../model/number.ts';
import { Recent } from '../model/recent.ts';
import { interactionsOf } from '../model/visit.ts';
import { bestOf, bestWithin, type Best } from './best.ts';
import { brokenOff, explore } from './budget.ts';
import { concrete } from './concrete.ts';
import { rawScore, type Answers } from './evaluate.ts';
import { unsupported } from './supported.ts';
import { guessNumeric, guessShape, predict } from './guess.ts';
import { literalsOf } from './literals.ts';
import { bounded } from './mappings.ts';
import { choiceIds, probesOf } from './probe.ts';
import type { Recognisable } from './run.ts';
import type { Key, NumericShape, ScoringKind, ScoringShape } from './shapes.ts';
import { OfSkeletons, ownAnswers, ownName, strippedOf, type Stripped } from './skeleton.ts';
import { own, put } from '../model/own.ts';

export interface Recognised {
  readonly shape: ScoringShape;
  readonly best: Best;
  /** Full-credit answers by response, in document order of choices; typed answers as they were found. */
  readonly key: Key;
  /** Numbers that get full credit, by response, where the whole scoring says more than that. */
  readonly numbers: Readonly<Record<string, NumericShape>>;
  /** Set where something was broken off for the steps it took: with more of them more may be found. */
  readonly cut?: true;
}

/** What was found of the latest items: trees never change, so it holds. */
const known = new Recent<Item, Recognised>();

/**
 * Reads an item's scoring as people would say it, and its key, by running the program. A parameterised item
 * is taken with seed 1.
 */
export function recognise(given: Item): Recognised {
  const before = known.get(given);
  if (before) return before;
  const found = recognisedBefore(given) ?? recognisedAnew(given);
  known.set(given, found);
  return found;
}

/** Where it lies beside items what running them came to, so that whoever looks into them need not find it out again. */
export interface PackedRecognised extends Packed {
  /** Null where it does not lie there. */
  readonly recognised: (at: number) => Recognised | null;
}

const isRecognised = (packed: Packed): packed is PackedRecognised => 'recognised' in packed;

function recognisedBefore(given: Item): Recognised | null {
  if (!HeldItem.isOne(given)) return null;
  const { packed, at } = HeldItem.place(given);
  return isRecognised(packed) ? packed.recognised(at) : null;
}

function recognisedAnew(given: Item): Recognised {
  const before = brokenOff();
  const item = concrete(given);
  const found = recognisedMake(item) ?? recognisedAlone(item);
  return brokenOff() > before ? { ...found, cut: true } : found;
}

function recognisedAlone(item: Recognisable): Recognised {
  const best = bestOf(item);
  const program = (): Recognised => ({
    shape: { kind: 'program' },
    best,
    key: declaredKey(item),
    numbers: {},
  });
  return best.cut ? program() : explore(() => runAndRecognise(item, best), program);
}

const ofMakes = new OfSkeletons<Recognised>();

/** What was recognised of the item's make, in its own names. */
function recognisedMake(item: Recognisable): Recognised | null {
  const stripped = strippedOf(item);
  if (!stripped) return null;
  const { skeleton } = stripped;
  const found = ofMakes.of(skeleton, () => runAndRecognise(skeleton, bestWithin(skeleton)));
  return (
    found && {
      shape: ownShape(stripped, found.shape),
      best: { ...found.best, answers: ownAnswers(stripped, found.best.answers) },
      key: ownAnswers(stripped, found.key),
      numbers: found.numbers,
    }
  );
}

/** Only values and parts of a shape have names in them: what is picked is neither typed nor a number. */
function ownShape(stripped: Stripped, shape: ScoringShape): ScoringShape {
  const named = <T>(record: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(Object.entries(record).map(([plain, value]) => [ownName(stripped, plain), value]));
  switch (shape.kind) {
    case 'per-choice':
      return { ...shape, values: named(shape.values) };
    case 'sum-of-parts':
      return {
        ...shape,
        parts: shape.parts.map((p) => ({
          responseId: ownName(stripped, p.responseId),
          shape: ownShape(stripped, p.shape),
        })),
      };
    default:
      return shape;
  }
}

function runAndRecognise(item: Recognisable, best: Best): Recognised {
  const trusted = item.scoring.untranslated.length === 0 && unsupported(item.scoring.rules).length === 0;
  if (item.scoring.rules.length === 0 || best.raw <= 0) {
    return {
      shape: {
        kind: item.scoring.rules.length > 0 && !trusted ? 'program' : markedByHand(item) ? 'manual' : 'none',
      },
      best,
      key: declaredKey(item),
      numbers: {},
    };
  }
  const key = Object.fromEntries(item.responses.map((r) => [r.id, keyOf(item, r, best)]));
  if (!trusted) return { shape: { kind: 'program' }, best, key, numbers: {} };
  const scored = item.responses.filter((r) => (own(key, r.id) ?? []).length > 0);
  const shape =
    scored.length > 1 ? severalShape(item, scored, best) : scored[0] ? shapeOf(item, scored[0], best) : null;
  return { shape: shape ?? { kind: 'program' }, best, key, numbers: numbersOf(item, shape, best, key) };
}

/** Only of responses whose shape is not a number's own. */
function numbersOf(
  item: Recognisable,
  shape: ScoringShape | null,
  best: Best,
  key: Key,
): Recognised['numbers'] {
  const found: Record<string, NumericShape> = {};
  for (const response of item.responses) {
    if (response.baseType !== 'float' && response.baseType !== 'integer') continue;
    if (response.cardinality !== 'single' || (own(key, response.id) ?? []).length === 0) continue;
    if (shape && shapeIn(shape, response.id)?.kind === 'numeric') continue;
    const full = guessNumeric(item, response, literalsOf(item).get(response.id)!, best);
    if (full) put(found, response.id, full);
  }
  return found;
}

/** The shape of one response: the item's own, or its part of a sum. */
export function shapeIn(shape: ScoringShape, responseId: string): ScoringShape | null {
  if (shape.kind !== 'sum-of-parts') return shape;
  return shape.parts.find((p) => p.responseId === responseId)?.shape ?? null;
}

/** The kind as the command line names it: rows of one match are values per pair, not parts. */
export function kindOfShape(item: Pick<Item, 'body'>, shape: ScoringShape): ScoringKind {
  if (shape.kind !== 'sum-of-parts') return shape.kind;
  const match = interactionsOf(item).find((i) => i.kind === 'match' && i.rows !== null);
  const rows = match?.kind === 'match' && match.rows ? Object.values(match.rows) : [];
  return rows.length > 0 && shape.parts.every((p) => rows.includes(p.responseId))
    ? 'per-choice'
    : 'sum-of-parts';
}

/** Kinds that a person marks, unless a program gives points for them. */
export const MARKED_BY_HAND: ReadonlySet<string> = new Set(['extendedText', 'upload', 'drawing']);

/** Marked by a person: something to write or to hand in, and no program that gives points for it. */
export function markedByHand(item: Pick<Item, 'body' | 'outcomes'>): boolean {
  return (
    interactionsOf(item).some((i) => MARKED_BY_HAND.has(i.kind)) ||
    item.outcomes.some((o) => o.externalScored)
  );
}

function declaredKey(item: Recognisable): Key {
  const shown = (r: ResponseDeclaration): boolean => r.baseType !== 'string' || r.mapping !== null;
  return Object.fromEntries(item.responses.map((r) => [r.id, shown(r) ? r.correct : []]));
}

/** The full-credit values of one response while the others are at their best. */
export function keyOf(item: Recognisable, response: ResponseDeclaration, best: Best): readonly Scalar[] {
  const run = (value: readonly Scalar[]): number => rawScore(item, { ...best.answers, [response.id]: value });
  if (near(run([]), best.raw)) return [];
  const found = own(best.answers, response.id) ?? [];
  const ids = choiceIds(item, response.id);
  if (response.cardinality === 'ordered') return found;
  if (response.cardinality === 'multiple') {
    // Without what does not matter: a value whose absence costs nothing is no part of the key.
    let kept = [...found];
    for (const value of [...kept]) {
      const without = kept.filter((v) => v !== value);
      if (without.length > 0 && near(run(without), best.raw)) kept = without;
    }
    return ids.length > 0 ? ids.filter((id) => kept.includes(id)) : kept;
  }
  if (response.baseType === 'point') return response.correct.length > 0 ? response.correct : found;
  const literals = literalsOf(item).get(response.id)!;
  const tried: readonly Scalar[] = ids.length > 0 ? ids : [...literals.values, ...literals.edges, ...found];
  return [...new Set(tried)].filter((value) => near(run([value]), best.raw));
}

function shapeOf(item: Recognisable, response: ResponseDeclaration, best: Best): ScoringShape | null {
  const shape = guessShape(item, response, best);
  if (!shape) return null;
  const predicted = predict(shape, item, response, best);
  const holds = probesOf(item, best.answers).answers.every((answers) =>
    near(predicted(own(answers, response.id) ?? []), rawScore(item, answers) * item.scale),
  );
  return holds ? shape : null;
}

/** Several responses: a sum of parts where the parts add up, all-or-nothing where only all together score. */
function severalShape(
  item: Recognisable,
  scored: readonly ResponseDeclaration[],
  best: Best,
): ScoringShape | null {
  const probes = probesOf(item, best.answers).answers;
  const score = (answers: Answers): number => rawScore(item, answers) * item.scale;
  const full = best.raw * item.scale;
  const alone = (response: ResponseDeclaration, answers: Answers): number =>
    score({ [response.id]: own(answers, response.id) ?? [] });
  const addsUp = (answers: Answers): boolean =>
    near(
      scored.reduce((sum, r) => sum + alone(r, answers), 0),
      score(answers),
    );
  if (probes.every(addsUp)) {
    const parts = scored.map((response) => {
      const part: Best = {
        answers: { [response.id]: own(best.answers, response.id) ?? [] },
        raw: alone(response, best.answers) / item.scale,
        exact: best.exact,
      };
      return {
        responseId: response.id,
        shape: shapeOf(answeredBy(item, response), response, part) ?? ({ kind: 'program' } as const),
      };
    });
    return { kind: 'sum-of-parts', parts };
  }
  return probes.every((answers) => near(score(answers), 0) || near(score(answers), full))
    ? { kind: 'all-or-nothing', points: full, ordered: false }
    : null;
}

/** An item that asks for one of its responses only; what the others map to when they are not answered stands. */
function answeredBy(item: Recognisable, response: ResponseDeclaration): Recognisable {
  const unanswered = (e: Expr): Expr => {
    if (e.op === 'call') return { ...e, args: e.args.map(unanswered) };
    if ((e.op !== 'mapResponse' && e.op !== 'mapResponsePoint') || e.id === response.id) return e;
    const other = item.responses.find((r) => r.id === e.id);
    const bounds = e.op === 'mapResponse' ? other?.mapping : other?.areaMapping;
    return bounds ? number(bounded(0, bounds)) : e;
  };
  const rules = item.scoring.rules.map((r) => mapRule(r, unanswered));
  return { ...item, responses: [response], scoring: { ...item.scoring, rules } };
}
