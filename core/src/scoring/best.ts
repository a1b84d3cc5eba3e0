import type { Scalar } from '../model/scoring.ts';
import { interactionFor } from '../model/options.ts';
import { areaProbes } from './geometry.ts';
import { brokenOff, explore, spend } from './budget.ts';
import { rawScore, type Answers } from './evaluate.ts';
import { sameProgram, TEMPLATE_RESPONSE, type Recognisable } from './run.ts';
import { unsupported } from './supported.ts';
import { scoreBound } from './bound.ts';
import { branchAnswers, placedAnswers } from './branches.ts';
import { possibleAnswers } from './possible.ts';
import { candidatesOf } from './probe.ts';

export interface Best {
  readonly answers: Answers;
  /** The highest raw score found. */
  readonly raw: number;
  /** True when no answer can score more: a bound was reached or every answer was tried. */
  readonly exact: boolean;
  /** Set where a run, or the search itself, was broken off for the steps it took: what was found proves nothing. */
  readonly cut?: true;
}

const ROUNDS = 2;
/** An order is climbed to by exchanging neighbours and moving single steps. */
const ORDER_ROUNDS = 12;
const EPSILON = 1e-9;
/** Candidates tried for one response while climbing; bounds the work on very long lists. */
const MAX_TRIED = 300;

let last: { readonly of: Recognisable; readonly best: Best } | null = null;

/**
 * The highest raw score an item can give and answers that give it, found by running its program. The last
 * answer is remembered: points, checks and reports ask about one item in a row.
 */
export function bestOf(item: Recognisable): Best {
  if (last && last.of.standard === item.standard && sameProgram(last.of, item)) return last.best;
  const costly = cutBefore.get(item.scoring);
  if (costly) return costly;
  const before = brokenOff();
  let far: Best = { answers: {}, raw: 0, exact: false };
  const found = explore(
    () => searchBest(item, (better) => (far = better)),
    () => far,
  );
  const best: Best = brokenOff() > before ? { ...found, exact: false, cut: true } : found;
  if (best.cut) cutBefore.set(item.scoring, best);
  last = { of: item, best };
  return best;
}

/** The same found anew, out of the steps of something larger: where they do not do, that is broken off. */
export const bestWithin = (item: Recognisable): Best => searchBest(item, () => undefined);

/** What took too long once is not tried again. */
const cutBefore = new WeakMap<Recognisable['scoring'], Best>();

/** @param better told of each answer that scores more than those before */
function searchBest(item: Recognisable, better: (best: Best) => unknown): Best {
  const bound = upperBound(item);
  let best: { answers: Answers; raw: number } = { answers: {}, raw: rawScore(item, {}) };
  const take = (answers: Answers, raw: number): void => {
    best = { answers, raw };
    better({ ...best, exact: false });
  };
  const reached = (): boolean => bound !== null && best.raw >= bound - EPSILON;
  const tryOne = (answers: Answers): boolean => {
    if (!possibleAnswers(item, answers)) return false;
    const raw = rawScore(item, answers);
    if (raw > best.raw) take(answers, raw);
    return reached();
  };
  if (item.scoring.rules.length === 0) return { ...best, exact: true };
  const declared = Object.fromEntries(
    item.responses.filter((r) => r.correct.length > 0).map((r) => [r.id, r.correct]),
  );
  // What an author declares as right is believed, even where the interaction's limits forbid it.
  const right = rawScore(item, declared);
  if (right > best.raw) take(declared, right);
  if (reached()) return { ...best, exact: true };
  const mapped = mappedBest(item);
  if (mapped && tryOne(mapped.answers)) return { ...best, exact: true };
  const placed = placedAnswers(item);
  if (placed && tryOne(placed)) return { ...best, exact: true };
  const branches = branchAnswers(item);
  for (const answers of branches) if (tryOne(answers)) return { ...best, exact: true };
  if (branches.length > 1 && tryOne(union(branches))) return { ...best, exact: true };
  // One after the other, keeping what adds: some branches take points off.
  for (const answers of branches.slice(0, MAX_TRIED))
    if (tryOne(union([best.answers, answers]))) return { ...best, exact: true };

  const ordered = item.responses.some((r) => r.cardinality === 'ordered');
  let candidates = candidatesOf(item, best.answers);
  for (let round = 0; round < (ordered ? ORDER_ROUNDS : ROUNDS); round++) {
    const before = best.raw;
    if (ordered && round > 0) candidates = candidatesOf(item, best.answers);
    for (const [id, { values }] of candidates) {
      for (const value of values.slice(0, MAX_TRIED)) {
        if (tryOne({ ...best.answers, [id]: value })) return { ...best, exact: true };
      }
    }
    if (best.raw === before) break;
  }
  const exhaustive =
    item.responses.length === 1 &&
    [...candidates.values()].every((c) => c.exhaustive && c.values.length <= MAX_TRIED);
  return { ...best, exact: exhaustive && unsupported(item.scoring.rules).length === 0 };
}

/**
 * A score the program cannot pass, where its shape tells: a template, a map's bound, declared bounds that are
 * enforced.
 */
function upperBound(item: Recognisable): number | null {
  if (item.scoring.template === 'match_correct') return 1;
  const mapped = mappedBest(item);
  if (mapped) return mapped.most;
  const written = scoreBound(item);
  const declared =
    item.standard === 'qti1.2'
      ? (item.outcomes.find((o) => o.id === item.scoreOutcome)?.normalMaximum ?? null)
      : null;
  return written === null ? declared : declared === null ? written : Math.min(written, declared);
}

/**
 * The most a standard mapping can give, and the answer that gives it: what is worth something, and nothing
 * else.
 */
function mappedBest(item: Recognisable): { answers: Answers; most: number } | null {
  const { template } = item.scoring;
  if (template !== 'map_response' && template !== 'map_response_point') return null;
  const response = item.responses.find((r) => r.id === TEMPLATE_RESPONSE) ?? item.responses[0];
  if (!response) return null;
  const interaction = interactionFor(item, response.id);
  const limit = response.cardinality === 'single' ? 1 : pickLimit(interaction);
  const worth =
    template === 'map_response'
      ? (response.mapping?.entries ?? []).map((e): [Scalar, number] => [e.key, e.value])
      : (response.areaMapping?.entries ?? []).flatMap((e): [Scalar, number][] => {
          const size =
            interaction && 'picture' in interaction ? interaction.picture : { width: null, height: null };
          const [inside] = areaProbes(e.shape, e.coords, size).inside;
          return inside ? [[inside.join(' '), e.value]] : [];
        });
  const distinct = new Map([...worth].reverse());
  const best = [...distinct]
    .filter(([, v]) => v > 0)
    .sort((a, b) => b[1] - a[1])
    .slice(0, limit);
  const bounds = template === 'map_response' ? response.mapping : response.areaMapping;
  if (!bounds || best.length === 0) return null;
  const sum = best.reduce((total, [, v]) => total + v, 0);
  return {
    answers: { [response.id]: best.map(([key]) => key) },
    most: bounds.upperBound === null ? sum : Math.min(sum, bounds.upperBound),
  };
}

/** How many values one answer may have. */
function pickLimit(interaction: ReturnType<typeof interactionFor>): number {
  if (!interaction) return Infinity;
  if ('maxChoices' in interaction && interaction.maxChoices > 0) return interaction.maxChoices;
  if ('maxAssociations' in interaction && interaction.maxAssociations > 0) return interaction.maxAssociations;
  return Infinity;
}

/**
 * All branches' answers together: the full mark where points add up. Single responses keep their first value.
 */
function union(branches: readonly Answers[]): Answers {
  const out = new Map<string, Set<Scalar>>();
  for (const answers of branches) {
    for (const [id, values] of Object.entries(answers)) {
      const had = out.get(id) ?? new Set<Scalar>();
      spend(values.length >> 3);
      for (const value of values) had.add(value);
      out.set(id, had);
    }
  }
  return Object.fromEntries([...out].map(([id, values]) => [id, [...values]]));
}
