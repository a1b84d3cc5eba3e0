import type { Item } from '../model/holding.ts';
import type { ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { near } from '../model/number.ts';
import { interactionsOf } from '../model/visit.ts';
import { bestOf, type Best } from './best.ts';
import { rawScore, unsupported, type Answers } from './evaluate.ts';
import { literalsOf, type Literals } from './literals.ts';
import { candidatesOf, choiceIds, probesOf } from './probe.ts';

export type ScoringKind =
  | 'all-or-nothing' | 'per-choice' | 'accepted-answers' | 'numeric' | 'pattern' | 'manual' | 'sum-of-parts' | 'none' | 'program'; // prettier-ignore

export interface Tolerance {
  readonly mode: 'absolute' | 'relative' | 'range' | 'rounded';
  readonly low: number;
  readonly high: number;
  readonly includesLow: boolean;
  readonly includesHigh: boolean;
}

/** The human shape of a program, in points. Every shape but "program" has been run against the program on all probes. */
export type ScoringShape =
  | { readonly kind: 'manual' | 'none' | 'program' }
  | { readonly kind: 'all-or-nothing'; readonly points: number }
  | {
      readonly kind: 'per-choice';
      readonly values: Readonly<Record<string, number>>;
      readonly lower: number | null;
      readonly upper: number | null;
    }
  | {
      readonly kind: 'accepted-answers';
      readonly answers: readonly { text: string; points: number; caseSensitive: boolean }[];
    }
  | {
      readonly kind: 'numeric';
      readonly points: number;
      readonly value: number;
      /** Whether the source names the value, or it is the middle of a range. */ readonly stated: boolean;
      readonly tolerance: Tolerance | null;
    }
  | {
      readonly kind: 'pattern';
      readonly points: number;
      readonly patterns: readonly string[];
      readonly substrings: readonly string[];
    }
  | { readonly kind: 'sum-of-parts'; readonly parts: readonly { responseId: string; shape: ScoringShape }[] };

export interface Recognised {
  readonly shape: ScoringShape;
  readonly best: Best;
  /** Full-credit answers by response, in document order of choices; typed answers as they were found. */
  readonly key: Readonly<Record<string, readonly Scalar[]>>;
}

const EPSILON = 1e-9;

/** Reads an item's scoring as people would say it, and its key, by running the program. */
export function recognise(item: Item): Recognised {
  const best = bestOf(item);
  const trusted = item.scoring.untranslated.length === 0 && unsupported(item.scoring.rules).length === 0;
  if (item.scoring.rules.length === 0 || best.raw <= 0) {
    return {
      shape: {
        kind: item.scoring.rules.length > 0 && !trusted ? 'program' : isManual(item) ? 'manual' : 'none',
      },
      best,
      key: declaredKey(item),
    };
  }
  const key = Object.fromEntries(item.responses.map((r) => [r.id, keyOf(item, r, best)]));
  if (!trusted) return { shape: { kind: 'program' }, best, key };
  const scored = item.responses.filter((r) => (key[r.id] ?? []).length > 0);
  const shape =
    scored.length > 1 ? severalShape(item, scored, best) : scored[0] ? shapeOf(item, scored[0], best) : null;
  return { shape: shape ?? { kind: 'program' }, best, key };
}

/** Marked by a person: something to write, and no program that gives points for it. */
function isManual(item: Item): boolean {
  return (
    interactionsOf(item).some((i) => i.kind === 'extendedText') || item.outcomes.some((o) => o.externalScored)
  );
}

function declaredKey(item: Item): Record<string, readonly Scalar[]> {
  return Object.fromEntries(item.responses.map((r) => [r.id, r.baseType === 'identifier' ? r.correct : []]));
}

/** The full-credit values of one response while the others are at their best. */
export function keyOf(item: Item, response: ResponseDeclaration, best: Best): readonly Scalar[] {
  const run = (value: readonly Scalar[]): number => rawScore(item, { ...best.answers, [response.id]: value });
  if (near(run([]), best.raw)) return [];
  const ids = choiceIds(item, response.id);
  if (ids.length > 0 && response.cardinality !== 'single') {
    // Without what does not matter: a choice whose absence costs nothing is no part of the key.
    let kept = [...(best.answers[response.id] ?? [])];
    for (const value of [...kept]) {
      const without = kept.filter((v) => v !== value);
      if (without.length > 0 && near(run(without), best.raw)) kept = without;
    }
    return ids.filter((id) => kept.includes(id));
  }
  const literals = literalsOf(item).get(response.id)!;
  const tried: readonly Scalar[] =
    ids.length > 0 ? ids : [...literals.values, ...literals.edges, ...(best.answers[response.id] ?? [])];
  return [...new Set(tried)].filter((value) => near(run([value]), best.raw));
}

function shapeOf(item: Item, response: ResponseDeclaration, best: Best): ScoringShape | null {
  const shape = guessShape(item, response, best);
  if (!shape) return null;
  const predicted = predict(shape, item, response, best);
  const holds = probesOf(item, best.answers).answers.every((answers) =>
    near(predicted(answers[response.id] ?? []), rawScore(item, answers) * item.scale),
  );
  return holds ? shape : null;
}

function guessShape(item: Item, response: ResponseDeclaration, best: Best): ScoringShape | null {
  const ids = choiceIds(item, response.id);
  const score = (value: readonly Scalar[]): number => rawScore(item, { [response.id]: value }) * item.scale;
  const literals = literalsOf(item).get(response.id)!;
  const points = best.raw * item.scale;
  if (ids.length > 0) return guessChoice(item, response, ids, score, best);
  if (response.baseType === 'float' || response.baseType === 'integer')
    return guessNumeric(item, response, literals, best);
  if (literals.patterns.length > 0 || literals.substrings.length > 0) {
    return { kind: 'pattern', points, patterns: literals.patterns, substrings: literals.substrings };
  }
  const answers: { text: string; points: number; caseSensitive: boolean }[] = [];
  for (const text of new Set(literals.values.map(String))) {
    const worth = score([text]);
    if (worth === 0) continue;
    const other = text === text.toLowerCase() ? text.toUpperCase() : text.toLowerCase();
    answers.push({ text, points: worth, caseSensitive: other !== text && !near(score([other]), worth) });
  }
  return answers.length > 0 ? { kind: 'accepted-answers', answers } : null;
}

function guessChoice(
  item: Item,
  response: ResponseDeclaration,
  ids: readonly string[],
  score: (v: readonly Scalar[]) => number,
  best: Best,
): ScoringShape {
  const empty = score([]);
  const candidates = candidatesOf(item, best.answers).get(response.id)!.values;
  const positive = candidates.filter((set) => !near(score(set), 0));
  if (near(empty, 0) && positive.length === 1)
    return { kind: 'all-or-nothing', points: best.raw * item.scale };
  const values = Object.fromEntries(ids.map((id) => [id, choiceValue(id, candidates, score)]));
  const scores = [empty, ...candidates.map(score)];
  const sums = candidates.map((set) => set.reduce<number>((total, id) => total + values[String(id)]!, 0));
  const lowest = Math.min(...scores);
  const highest = Math.max(...scores);
  return {
    kind: 'per-choice',
    values,
    lower: sums.some((s) => s < lowest - EPSILON) ? lowest : null,
    upper: sums.some((s) => s > highest + EPSILON) ? highest : null,
  };
}

/** What one choice adds: seen alone, or, where a lower bound hides it, beside one that scores. */
function choiceValue(
  id: string,
  candidates: readonly (readonly Scalar[])[],
  score: (v: readonly Scalar[]) => number,
): number {
  const alone = score([id]);
  if (alone > 0) return alone;
  let least = alone;
  for (const set of candidates) {
    if (set.length < 2 || set.length > 3 || !set.includes(id)) continue;
    const rest = set.filter((v) => v !== id);
    const before = score(rest);
    if (before > 0) least = Math.min(least, score(set) - before);
  }
  return least;
}

function guessNumeric(
  item: Item,
  response: ResponseDeclaration,
  literals: Literals,
  best: Best,
): ScoringShape | null {
  const points = best.raw * item.scale;
  const full = (n: number): boolean => near(rawScore(item, { [response.id]: [n] }), best.raw);
  const values = candidatesOf(item, best.answers)
    .get(response.id)!
    .values.map((v) => v[0] as number)
    .sort((a, b) => a - b);
  const inside = values.filter(full);
  if (inside.length === 0) return null;
  const ends = [...literals.edges, ...literals.values.filter((v) => typeof v === 'number')];
  const low = nearest(ends, inside[0]!);
  const high = nearest(ends, inside.at(-1)!);
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
function predict(
  shape: ScoringShape,
  item: Item,
  response: ResponseDeclaration,
  best: Best,
): (value: readonly Scalar[]) => number {
  switch (shape.kind) {
    case 'all-or-nothing': {
      const wanted = new Set(best.answers[response.id] ?? []);
      return (value) =>
        value.length === wanted.size && value.every((v) => wanted.has(v)) ? shape.points : 0;
    }
    case 'per-choice':
      return (value) => {
        let sum = [...new Set(value)].reduce<number>((total, v) => total + (shape.values[String(v)] ?? 0), 0);
        if (shape.lower !== null) sum = Math.max(shape.lower, sum);
        if (shape.upper !== null) sum = Math.min(shape.upper, sum);
        return sum;
      };
    case 'accepted-answers':
      return ([v]) => {
        const hits = shape.answers.filter(
          (a) => a.text === v || (!a.caseSensitive && a.text.toLowerCase() === String(v).toLowerCase()),
        );
        return (hits.find((a) => a.text === v) ?? hits[0])?.points ?? 0;
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

/** Several responses: a sum of parts where the parts add up, all-or-nothing where only all together score. */
function severalShape(item: Item, scored: readonly ResponseDeclaration[], best: Best): ScoringShape | null {
  const probes = probesOf(item, best.answers).answers;
  const score = (answers: Answers): number => rawScore(item, answers) * item.scale;
  const full = best.raw * item.scale;
  const alone = (response: ResponseDeclaration, answers: Answers): number =>
    score({ [response.id]: answers[response.id] ?? [] });
  if (
    probes.every((answers) =>
      near(
        scored.reduce((sum, r) => sum + alone(r, answers), 0),
        score(answers),
      ),
    )
  ) {
    const parts = scored.map((response) => {
      const part: Best = {
        answers: { [response.id]: best.answers[response.id] ?? [] },
        raw: alone(response, best.answers) / item.scale,
        exact: best.exact,
      };
      return {
        responseId: response.id,
        shape: shapeOf({ ...item, responses: [response] }, response, part) ?? ({ kind: 'program' } as const),
      };
    });
    return { kind: 'sum-of-parts', parts };
  }
  return probes.every((answers) => near(score(answers), 0) || near(score(answers), full))
    ? { kind: 'all-or-nothing', points: full }
    : null;
}
