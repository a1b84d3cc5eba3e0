import { spend } from './budget.ts';

/** Few declarations are the quickest looked through; of many there is an index. */
const FEW = 16;
const indexes = new WeakMap<readonly unknown[], Map<string, unknown>>();

/** The first declaration of that identifier. */
export function named<T extends { readonly id: string }>(list: readonly T[], id: string): T | undefined {
  if (list.length <= FEW) return list.find((d) => d.id === id);
  let index = indexes.get(list);
  if (!index) {
    spend(list.length >> 3);
    index = new Map([...list].reverse().map((d) => [d.id, d]));
    indexes.set(list, index);
  }
  return index.get(id) as T | undefined;
}
