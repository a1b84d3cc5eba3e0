import type { ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { distinctLists, type Candidates } from './candidates.ts';

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
  const pairs = ends.left.flatMap((a, at) =>
    ends.right
      .slice(ends.directed ? 0 : at + 1)
      .filter((b) => ends.directed || a !== b)
      .map((b) => `${a} ${b}`),
  );
  const singles = [...new Set([...known.map(String), ...pairs])].slice(0, MAX_SINGLE_PAIRS);
  if (response.cardinality === 'single')
    return { values: singles.map((p) => [p]), exhaustive: singles.length === pairs.length };
  const right = key.map(String);
  const positive = (response.mapping?.entries ?? []).filter((e) => e.value > 0).map((e) => String(e.key));
  const taken = new Set(right.flatMap((p) => p.split(' ')));
  const wrong = right.flatMap((pair) => {
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
      ...right.map((gone) => right.filter((p) => p !== gone)),
      ...wrong,
      ...exchanged(right),
      ...more,
      ends.left.map((a) => `${a} ${ends.right[0]}`),
    ]),
    exhaustive: false,
  };
}

/** Neighbouring pairs with their targets exchanged: what is left where every end is used once. */
const exchanged = (right: readonly string[]): string[][] =>
  right.slice(1).map((pair, before) => {
    const [a, x] = right[before]!.split(' ');
    const [b, y] = pair.split(' ');
    return right.map((p, at) => (at === before ? `${a} ${y}` : at === before + 1 ? `${b} ${x}` : p));
  });
