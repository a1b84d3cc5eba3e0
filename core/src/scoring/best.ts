import type { Item } from '../model/holding.ts';
import type { Scalar } from '../model/scoring.ts';
import { rawScore, unsupported, type Answers } from './evaluate.ts';
import { branchAnswers } from './literals.ts';
import { candidatesOf } from './probe.ts';

export interface Best {
  readonly answers: Answers;
  /** The highest raw score found. */
  readonly raw: number;
  /** True when no answer can score more: a bound was reached or every answer was tried. */
  readonly exact: boolean;
}

const ROUNDS = 2;
/** Candidates tried for one response while climbing; bounds the work on very long lists. */
const MAX_TRIED = 300;

let last: { readonly of: Scorable; readonly best: Best } | null = null;

type Scorable = Pick<Item, 'body' | 'responses' | 'outcomes' | 'scoring' | 'scoreOutcome' | 'standard'>;

/**
 * The highest raw score an item can give and answers that give it, found by running its program. The last
 * answer is remembered: points, checks and reports ask about one item in a row.
 */
export function bestOf(item: Item): Best {
  if (last && sameParts(last.of, item)) return last.best;
  const best = searchBest(item);
  last = { of: item, best };
  return best;
}

const sameParts = (a: Scorable, b: Scorable): boolean =>
  a.scoring === b.scoring &&
  a.body === b.body &&
  a.responses === b.responses &&
  a.outcomes === b.outcomes &&
  a.scoreOutcome === b.scoreOutcome &&
  a.standard === b.standard;

function searchBest(item: Item): Best {
  const bound = upperBound(item);
  let best: { answers: Answers; raw: number } = { answers: {}, raw: rawScore(item, {}) };
  const tryOne = (answers: Answers): boolean => {
    const raw = rawScore(item, answers);
    if (raw > best.raw) best = { answers, raw };
    return bound !== null && best.raw >= bound;
  };
  if (item.scoring.rules.length === 0) return { ...best, exact: true };
  const declared = Object.fromEntries(
    item.responses.filter((r) => r.correct.length > 0).map((r) => [r.id, r.correct]),
  );
  if (tryOne(declared)) return { ...best, exact: true };
  const branches = branchAnswers(item);
  for (const answers of branches) if (tryOne(answers)) return { ...best, exact: true };
  if (branches.length > 1 && tryOne(union(branches))) return { ...best, exact: true };

  const candidates = candidatesOf(item, best.answers);
  for (let round = 0; round < ROUNDS; round++) {
    const before = best.raw;
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

/** A score the program cannot pass, where its shape tells: a template, a map's bound, declared bounds that are enforced. */
function upperBound(item: Item): number | null {
  if (item.scoring.template === 'match_correct') return 1;
  if (item.scoring.template === 'map_response') return item.responses[0]?.mapping?.upperBound ?? null;
  if (item.standard === 'qti1.2')
    return item.outcomes.find((o) => o.id === item.scoreOutcome)?.normalMaximum ?? null;
  return null;
}

/** All branches' answers together: the full mark where points add up. Single responses keep their first value. */
function union(branches: readonly Answers[]): Answers {
  const out: Record<string, Scalar[]> = {};
  for (const answers of branches) {
    for (const [id, values] of Object.entries(answers)) {
      const had = (out[id] ??= []);
      for (const value of values) if (!had.includes(value)) had.push(value);
    }
  }
  return out;
}
