import type { Holding, Item } from '../model/holding.ts';
import { nameOf } from '../model/plainText.ts';
import { canSay, sayItem, type SaidItem } from './say.ts';

export interface SaidBank {
  readonly title: string;
  readonly items: readonly SaidItem[];
}

/** Fields of fewer items than this share are none of the bank's, and a reader would not learn them. */
const RECURS = 0.2;
const NAME = /^\p{L}[\p{L}\p{M}\p{Nd}'’./-]{0,23}(?: [\p{L}\p{Nd}][\p{L}\p{M}\p{Nd}'’./-]{0,23}){0,2}$/u;
const LONGEST_VALUE = 100;

/** Fields that a document can say so that they are read again: their names recur, their values are short. */
export function saidFields(holding: Holding): ReadonlySet<string> {
  const counts = new Map<string, number>();
  const long = new Set<string>();
  for (const item of holding.items)
    for (const { label, value } of item.metadata) {
      counts.set(label, (counts.get(label) ?? 0) + 1);
      if (value.length > LONGEST_VALUE || value.includes('\n')) long.add(label);
    }
  const enough = Math.max(2, holding.items.length * RECURS);
  const names = [...counts].filter(([label, n]) => n >= enough && NAME.test(label) && !long.has(label));
  return new Set(names.map(([label]) => label));
}

/** The banks of a holding; items that are in none are one more. Each item stands once. */
export function banksOf(holding: Holding, says: (item: Item) => boolean = canSay): SaidBank[] {
  const byId = new Map(holding.items.map((i) => [i.id, i]));
  const done = new Set<string>();
  const fields = saidFields(holding);
  const take = (ids: readonly string[]): SaidItem[] =>
    ids.flatMap((id) => {
      const item = byId.get(id);
      if (!item || done.has(id)) return [];
      done.add(id);
      if (!says(item)) return [];
      const said = sayItem(item);
      return [{ ...said, fields: said.fields.filter((f) => fields.has(f.label)) }];
    });
  const banks = holding.banks.map((bank) => ({ title: bank.title, items: take(bank.items) }));
  const rest = {
    title: holding.title || nameOf(holding.items[0]!),
    items: take(holding.items.map((i) => i.id)),
  };
  return [...banks, rest].filter((b) => b.items.length > 0);
}
