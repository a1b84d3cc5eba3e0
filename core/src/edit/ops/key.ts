import type { Interaction } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { own } from '../../model/own.ts';
import { isInteraction, mapLists } from '../../model/visit.ts';
import { responseIdsOf } from '../../model/options.ts';
import type { ResponseDeclaration, Scalar } from '../../model/scoring.ts';
import type { ContentNode } from '../../model/content.ts';
import { literalsOf } from '../../scoring/literals.ts';
import { choiceIds } from '../../scoring/probe.ts';
import { recognise, shapeIn, type Recognised } from '../../scoring/recognise.ts';
import { keyed, keyValues, partForKey, responseOf, withKey } from '../keys.ts';
import { isRefused, refused } from '../refusal.ts';
import { rescore } from '../rescore.ts';
import type { ItemOperation } from './operation.ts';
import { rewritable, together } from './rewriting.ts';

/** As many picks as the key has can be made. */
function roomForKey(item: Item, response: ResponseDeclaration, count: number): Item {
  const list = (nodes: readonly ContentNode[]): ContentNode[] => nodes.map(visit);
  const visit = (given: ContentNode): ContentNode => {
    const node = mapLists(given, list);
    if (!isInteraction(node) || !responseIdsOf(node).includes(response.id)) return node;
    return limited(node, count);
  };
  return response.cardinality === 'single' ? item : { ...item, body: list(item.body) };
}

function limited(node: Interaction, count: number): Interaction {
  const least = (n: number): number => Math.min(n, count);
  const most = (n: number): number => (n === 0 ? 0 : Math.max(n, count));
  if ('maxChoices' in node)
    return { ...node, maxChoices: most(node.maxChoices), minChoices: least(node.minChoices) };
  if ('maxAssociations' in node)
    return {
      ...node,
      maxAssociations: most(node.maxAssociations),
      minAssociations: least(node.minAssociations),
    };
  return node;
}

export const KEY: ItemOperation<'key'> = {
  on: 'item',
  now: (item, edit) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return response;
    const { key, shape } = recognise(item);
    const part = shapeIn(shape, response.id);
    return part?.kind === 'numeric' ? [part.value] : (own(key, response.id) ?? []);
  },
  wanted: (edit, item) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response) || namesUnknown(item, response)) return undefined;
    const values = keyValues(item, response, edit.to);
    // A key that is only declared, and scores nothing, is not there yet.
    return isRefused(values) || !keyed(recognise(item).shape) ? undefined : values;
  },
  apply: (item, edit) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return response;
    const recognised = rewritable(item, edit.replace ?? nobodyIsRight(item, response));
    if (isRefused(recognised)) return recognised;
    const wanted = keyValues(item, response, edit.to);
    if (isRefused(wanted)) return wanted;
    if (sameKey(recognised, response, wanted) && !namesUnknown(item, response)) return item;
    if (fewerInOrder(item, recognised, response, wanted))
      return refused('key-value', { value: wanted.join(', '), wants: 'all choices, in their order' });
    const part = partForKey(item, recognised, response, wanted);
    if (isRefused(part)) return part;
    const roomy = roomForKey(item, response, wanted.length);
    const shape = together(item, recognised.shape, response, part);
    return rescore(roomy, shape, withKey(recognised.key, response.id, wanted), { before: item });
  },
};

/** Whether the scoring speaks of choices that are not there: it has to be written anew even for the same key. */
function namesUnknown(item: Item, response: ResponseDeclaration): boolean {
  const ids = choiceIds(item, response.id);
  return (
    ids.length > 0 &&
    literalsOf(item)
      .get(response.id)!
      .values.some((v) => !ids.includes(String(v)))
  );
}

/** Whether an order of all choices would become one of some of them. */
const fewerInOrder = (
  item: Item,
  { key }: Recognised,
  { id, cardinality }: ResponseDeclaration,
  wanted: readonly Scalar[],
): boolean => {
  const all = choiceIds(item, id).length;
  const before = (own(key, id) ?? []).length;
  return cardinality === 'ordered' && wanted.length < all && (before === 0 || before === all);
};

/** Whether what would be right is not there to be picked: such a program is no loss. */
const nobodyIsRight = (item: Item, response: ResponseDeclaration): boolean =>
  namesUnknown(item, response) && (own(recognise(item).key, response.id) ?? []).length === 0;

function sameKey(
  { key, shape, numbers }: Recognised,
  response: ResponseDeclaration,
  wanted: readonly Scalar[],
): boolean {
  const part = own(numbers, response.id) ?? shapeIn(shape, response.id);
  if (!keyed(shape) || shape.kind === 'program') return false;
  if (part?.kind === 'numeric') return part.stated && part.value === wanted[0];
  const sorted = (list: readonly Scalar[]): string =>
    (response.cardinality === 'ordered' ? list.map(String) : list.map(String).sort()).join('\u0001');
  return sorted(own(key, response.id) ?? []) === sorted(wanted);
}
