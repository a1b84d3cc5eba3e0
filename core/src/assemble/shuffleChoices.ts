import type { Choice, ContentNode, Interaction } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { choicesOf } from '../model/options.ts';
import { interactionsOf, isInteraction, mapLists } from '../model/visit.ts';

/** An order of the choices that may move. */
export type OrderOf = (place: string, loose: readonly Choice[]) => readonly Choice[];

/**
 * An item with its choices in a settled order: those of interactions that shuffle, but for the ones that are fixed
 * in their place (QTI 2.1, "shuffle" and "fixed"). It no longer shuffles them.
 */
export function withSettledChoices(item: Item, order: OrderOf): Item {
  let count = 0;
  const settled = (interaction: Interaction): Interaction => {
    const place = `${item.id} ${count++}`;
    if (!('shuffle' in interaction) || !interaction.shuffle) return interaction;
    const next = { ...interaction, shuffle: false };
    if ('choices' in next) return { ...next, choices: moved(next.choices, place, order) };
    return {
      ...next,
      left: moved(next.left, `${place} left`, order),
      right: moved(next.right, `${place} right`, order),
    };
  };
  const list = (nodes: readonly ContentNode[]): ContentNode[] =>
    nodes.map((node) => {
      const inside = mapLists(node, list);
      return isInteraction(inside) ? settled(inside) : inside;
    });
  return { ...item, body: list(item.body) };
}

function moved(choices: readonly Choice[], place: string, order: OrderOf): Choice[] {
  const loose = [
    ...order(
      place,
      choices.filter((c) => !c.fixed),
    ),
  ];
  return choices.map((c) => (c.fixed ? c : loose.shift()!));
}

/** All that can be picked in an item, in the order in which it stands. */
export const choiceOrder = (item: Pick<Item, 'body'>): string[] => choicesOf(item).map((c) => c.id);

/** How many choices of an item stand where they do in every delivery. */
export function unmovable(item: Pick<Item, 'body'>): number {
  const movable = interactionsOf(item).reduce((sum, interaction) => {
    if (!('shuffle' in interaction) || !interaction.shuffle) return sum;
    const lists = 'choices' in interaction ? [interaction.choices] : [interaction.left, interaction.right];
    // One alone among fixed ones has nowhere to go.
    const loose = lists.map((l) => l.filter((c) => !c.fixed).length);
    return sum + loose.reduce((n, count) => n + (count > 1 ? count : 0), 0);
  }, 0);
  return choicesOf(item).length - movable;
}
