import { hasTemplates, replicasOf } from '../../families/replicas.ts';
import type { Item, Section } from '../../model/holding.ts';
import { tidyNumber } from '../../model/number.ts';
import { isRefused, refused } from '../refusal.ts';
import type { WholeOperation } from './operation.ts';
import { freeId, isDrawn, severalInstead } from './several.ts';

/** Fixed items in the place of one with templates; where everybody was set it, one of them is drawn for each. */
export const REPLICAS: WholeOperation<'replicas'> = {
  on: 'whole',
  now: (editing, { node }) => {
    const item = editing.item(node);
    return isRefused(item) ? item : hasTemplates(item);
  },
  wanted: () => false,
  apply: (editing, { node, count, seed }) => {
    const item = editing.items.get(node)!;
    // A draw would meet one exercise several times.
    if (isDrawn(editing, node)) return refused('item-drawn', { item: node });
    const { replicas } = replicasOf(item, count, seed);
    if (replicas.length === 0) return refused('replicas-none');
    const made = replicas.map(({ item: one }) => ({ ...one, id: freeId(editing, one.id), origin: null }));
    severalInstead(editing, node, made, (section, ids) => withDraw(section, item, ids));
    return undefined;
  },
};

/** A section in whose place for the item one of several is drawn; what stands before and after it stays there. */
function withDraw(section: Section, item: Item, ids: readonly string[]): Section[] {
  const at = section.items.findIndex((r) => r.item === item.id);
  const [before, own, after] = [
    section.items.slice(0, at),
    section.items[at]!,
    section.items.slice(at + 1).filter((r) => r.item !== item.id),
  ];
  const drawn: Section = {
    id: `${section.id}-${item.id}`,
    title: section.title,
    shuffle: false,
    items: [],
    draw: {
      pick: 1,
      bank: null,
      pool: ids,
      weights: own.weight === 1 ? null : ids.map(() => own.weight),
      pointsEach: tidyNumber(item.points),
      withReplacement: false,
    },
    instructions: null,
  };
  if (before.length === 0 && after.length === 0 && section.draw === null)
    return [{ ...section, items: [], draw: drawn.draw }];
  // What is drawn or shuffled stays together: the new draw follows it.
  if (section.draw !== null || section.shuffle || after.length === 0)
    return [{ ...section, items: [...before, ...after] }, drawn];
  const rest: Section = {
    ...section,
    id: `${section.id}-after-${item.id}`,
    items: after,
    instructions: null,
  };
  return [...(before.length > 0 ? [{ ...section, items: before }] : []), drawn, rest];
}
