import type { ContainerReport, Difference } from './types.ts';

/** Pairs one to one: each rule takes what the rules before it have left. */
export function pairByRules<T>(
  left: readonly T[],
  right: readonly T[],
  rules: readonly ((a: T, b: T) => boolean)[],
): Map<T, T> {
  const pairs = new Map<T, T>();
  const taken = new Set<T>();
  for (const rule of rules)
    for (const a of left) {
      const b = pairs.has(a) ? undefined : right.find((x) => !taken.has(x) && rule(a, x));
      if (b === undefined) continue;
      pairs.set(a, b);
      taken.add(b);
    }
  return pairs;
}

/** A report for each thing of either side: its partner and what differs, or that it is missing or extra. */
export function pairUp<T extends { readonly id: string }>(
  kind: ContainerReport['kind'],
  left: readonly T[],
  right: readonly T[],
  rules: readonly ((a: T, b: T) => boolean)[],
  differences: (a: T, b: T) => Difference[],
): ContainerReport[] {
  const pairs = pairByRules(left, right, rules);
  const taken = new Set(pairs.values());
  return [
    ...left.map((a): ContainerReport => {
      const b = pairs.get(a);
      if (!b) return { kind, source: a.id, arrived: null, state: 'missing', differences: [] };
      const found = differences(a, b);
      const state = found.length > 0 ? 'altered' : 'intact';
      return { kind, source: a.id, arrived: b.id, state, differences: found };
    }),
    ...right
      .filter((b) => !taken.has(b))
      .map((b): ContainerReport => ({ kind, source: null, arrived: b.id, state: 'extra', differences: [] })),
  ];
}
