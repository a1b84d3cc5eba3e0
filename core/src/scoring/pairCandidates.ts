import type { ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { spend } from './budget.ts';
import { distinctLists, LISTED, type Candidates } from './candidates.ts';

const MAX_SINGLE_PAIRS = 60;
const MAX_MORE = 20;

export interface PairEnds {
  readonly left: readonly string[];
  readonly right: readonly string[];
  readonly directed: boolean;
}

/**
 * Each pair alone; the right pairs, one wrong at a time, two exchanged, one left out, one more; and everything
 * to one target.
 */
export function pairCandidates(
  response: ResponseDeclaration,
  ends: PairEnds,
  known: readonly Scalar[],
  key: readonly Scalar[],
): Candidates {
  const most = response.cardinality === 'single' ? MAX_SINGLE_PAIRS + 1 : key.length + MAX_SINGLE_PAIRS;
  const pairs = firstPairs(ends, most);
  const singles = [...new Set([...known.map(String), ...pairs])].slice(0, MAX_SINGLE_PAIRS);
  if (response.cardinality === 'single')
    return { values: singles.map((p) => [p]), exhaustive: singles.length === pairs.length };
  const right = key.map(String);
  spend((4 * Math.min(LISTED, right.length) * right.length) >> 3);
  const some = right.slice(0, LISTED);
  const positive = (response.mapping?.entries ?? []).filter((e) => e.value > 0).map((e) => String(e.key));
  const taken = new Set(right.flatMap((p) => p.split(' ')));
  const wrong = some.flatMap((pair) => {
    const [a] = pair.split(' ');
    const free = ends.right.find((b) => b !== a && !taken.has(b));
    const any = ends.right.find((b) => b !== a && !right.includes(`${a} ${b}`));
    return [...new Set([free, any])].flatMap((b) =>
      b === undefined ? [] : [right.map((p) => (p === pair ? `${a} ${b}` : p))],
    );
  });
  const more = pairs
    .filter((p) => !right.includes(p))
    .slice(0, MAX_MORE)
    .map((p) => [...right, p]);
  return {
    values: distinctLists([
      right,
      positive,
      ...singles.map((p) => [p]),
      ...some.map((gone) => right.filter((p) => p !== gone)),
      ...wrong,
      ...exchanged(right),
      ...more,
      ends.left.map((a) => `${a} ${ends.right[0]}`),
    ]),
    exhaustive: false,
  };
}

/** Pairs in order, no more than so many. */
function firstPairs({ left, right, directed }: PairEnds, most: number): string[] {
  const pairs: string[] = [];
  for (const [at, a] of left.entries())
    for (let n = directed ? 0 : at + 1; n < right.length; n++) {
      if (!directed && a === right[n]) continue;
      if (pairs.length >= most) return pairs;
      pairs.push(`${a} ${right[n]!}`);
    }
  return pairs;
}

/** Neighbouring pairs with their targets exchanged: what is left where every end is used once. */
const exchanged = (right: readonly string[]): string[][] =>
  right.slice(1, LISTED).map((pair, before) => {
    const [a, x] = right[before]!.split(' ');
    const [b, y] = pair.split(' ');
    return right.map((p, at) => (at === before ? `${a} ${y}` : at === before + 1 ? `${b} ${x}` : p));
  });
