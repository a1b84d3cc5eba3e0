import type { Choice, Interaction } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { interactionsOf } from '../../model/visit.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import { about, mapChoices } from './choices.ts';
import type { ItemOperation } from './operation.ts';

type Listed = Extract<Interaction, { choices: readonly Choice[] }>;

/** The one list of choices of a response, or of the item. */
function listOf(item: Item, response: string | undefined): Listed | Refused {
  const offering = interactionsOf(item).filter((i): i is Listed => 'choices' in i && about(i, response));
  return offering.length === 1 ? offering[0]! : refused('choice-place');
}

/** Choices in another order; what is right goes by their ids, and stays. */
export const CHOICE_ORDER: ItemOperation<'choice-order'> = {
  on: 'item',
  now: (item, { response }) => {
    const list = listOf(item, response);
    return isRefused(list) ? list : list.choices.map((c) => c.id);
  },
  wanted: (edit) => edit.to,
  apply: (item, { to, response }) => {
    const list = listOf(item, response);
    if (isRefused(list)) return list;
    const by = new Map<string, Choice>(list.choices.map((c) => [c.id, c]));
    const next = to.flatMap((id) => by.get(id) ?? []);
    const all = to.length === by.size && next.length === by.size && new Set(to).size === to.length;
    if (!all) return refused('order-other');
    return mapChoices(item, (choices, interaction) => (interaction === list ? next : choices));
  },
};
