import { fromDocument, toDocument } from '../../content/document.ts';
import { bodyOf } from '../../content/tidy.ts';
import type { ContentNode, Interaction } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { responseIdsOf } from '../../model/options.ts';
import { interactionsOf, isInteraction, mapLists } from '../../model/visit.ts';
import { filesNow } from '../filesShown.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import type { EditOf } from '../schema.ts';
import { choiceIn, mapChoices, unknown } from './choices.ts';
import type { WholeOperation } from './operation.ts';
import { retold, roledAt } from './texts.ts';

type Place = Pick<EditOf<'content'>, 'at' | 'choice' | 'response' | 'on'>;

/** A text of an item: what stands there, and the item with another. */
interface Spot {
  readonly nodes: readonly ContentNode[];
  readonly put: (nodes: readonly ContentNode[]) => Item;
}

function spotOf(item: Item, place: Place): Spot | Refused {
  switch (place.at) {
    case 'body':
      return { nodes: item.body, put: (nodes) => ({ ...item, body: bodyOf(nodes) }) };
    case 'choice': {
      const choice = place.choice ?? '';
      const found = choiceIn(item, choice);
      return found
        ? {
            nodes: found.content,
            put: (content) =>
              mapChoices(item, (list) => list.map((c) => (c.id === choice ? { ...c, content } : c))),
          }
        : unknown(item, choice);
    }
    case 'feedback': {
      const found = roledAt(item, place.on ?? 'general');
      if (isRefused(found)) return found;
      if (!found) return refused('feedback-none', { on: place.on ?? 'general' });
      return { nodes: found.content, put: (nodes) => retold(item, found, nodes) };
    }
    case 'prompt':
    case 'text':
      return insideOf(item, place);
  }
}

/** What an interaction asks, and the text it is answered in. */
function insideOf(item: Item, { at, response }: Place): Spot | Refused {
  const offered = interactionsOf(item).filter(
    (i) =>
      (response === undefined || responseIdsOf(i).includes(response)) &&
      (at === 'prompt' ? 'prompt' in i : i.kind === 'gapMatch' || i.kind === 'hottext'),
  );
  const [only] = offered;
  if (offered.length !== 1 || !only) return refused('content-place', { at });
  const nodes = at === 'prompt' && 'prompt' in only ? only.prompt : 'content' in only ? only.content : [];
  const put = (to: readonly ContentNode[]): Item => {
    const list = (all: readonly ContentNode[]): ContentNode[] =>
      all.map((given) => (given === only ? changed(only, at, to) : mapLists(given, list)));
    return { ...item, body: list(item.body) };
  };
  return { nodes, put };
}

const changed = (i: Interaction, at: string, to: readonly ContentNode[]): ContentNode =>
  at === 'prompt' && 'prompt' in i ? { ...i, prompt: to } : 'content' in i ? { ...i, content: to } : i;

/** What has to stay where it can be answered. */
const answered = (node: ContentNode): boolean =>
  isInteraction(node) || node.kind === 'gap' || node.kind === 'hottextChoice';

/** A text with its mark-up, as a document of the allow-list. */
export const CONTENT: WholeOperation<'content'> = {
  on: 'whole',
  now: (editing, edit) => {
    const item = editing.item(edit.node);
    const spot = isRefused(item) ? item : spotOf(item, edit);
    return isRefused(spot) ? spot : toDocument(spot.nodes).html;
  },
  wanted: (edit) => edit.to,
  apply: (editing, edit): Refused | undefined => {
    const item = editing.items.get(edit.node)!;
    const spot = spotOf(item, edit);
    if (isRefused(spot)) return spot;
    const { slots } = toDocument(spot.nodes);
    const { nodes, lost } = fromDocument(edit.to, slots);
    if (lost.some((at) => answered(slots[at]!)))
      return refused('slots-changed', { count: slots.filter(answered).length });
    const next = spot.put(nodes);
    editing.items.set(edit.node, { ...next, files: filesNow(next, item, editing.files) });
    return undefined;
  },
};
