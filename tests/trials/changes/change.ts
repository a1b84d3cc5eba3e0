import type { Maker } from '../make.ts';
import type { Ask, Choice, ItemSpec } from '../spec.ts';

/** A change of one item; null where the item is not of a kind that can be so changed. */
export interface ItemChange {
  readonly name: string;
  /** One of these must be said; each entry is a set of facets that belong together. */
  readonly facets: readonly string[];
  /** May be said besides. */
  readonly also?: readonly string[];
  /** Must come with an answer that scores, or is shown, something else. */
  readonly example?: boolean;
  readonly apply: (item: ItemSpec, make: Maker) => ItemSpec | null;
}

type AskOf<K extends Ask['kind']> = Ask & { readonly kind: K };

export function onAsk<K extends Ask['kind']>(
  kind: K,
  change: (ask: AskOf<K>, make: Maker, item: ItemSpec) => AskOf<K> | null,
): ItemChange['apply'] {
  return (item, make) => {
    if (item.ask.kind !== kind) return null;
    const ask = change(item.ask as AskOf<K>, make, item);
    return ask && { ...item, ask };
  };
}

const LOOKALIKE: Readonly<Record<string, string>> = {
  a: 'а',
  e: 'е',
  o: 'о',
  c: 'с',
  p: 'р',
  а: 'a',
  е: 'e',
  о: 'o',
  с: 'c',
  α: 'a',
  ο: 'o',
  ν: 'v',
};

/** The same to the eye, another letter to everything else. */
export function lookalike(text: string): string | null {
  const at = [...text].findIndex((c) => LOOKALIKE[c] !== undefined);
  if (at < 0) return null;
  const letters = [...text];
  letters[at] = LOOKALIKE[letters[at]!]!;
  return letters.join('');
}

export const swap = <T>(list: readonly T[], a: number, b: number): T[] => {
  const out = [...list];
  [out[a], out[b]] = [out[b]!, out[a]!];
  return out;
};

export const setChoice = (choices: readonly Choice[], at: number, change: Partial<Choice>): Choice[] =>
  choices.map((c, n) => (n === at ? { ...c, ...change } : c));

/** Whether a text has letters of two cases. */
export const cased = (text: string): boolean => text.toLowerCase() !== text.toUpperCase();
