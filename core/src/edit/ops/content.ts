import { fromDocument, toDocument } from '../../content/document.ts';
import { bodyOf } from '../../content/tidy.ts';
import type { ContentNode, Interaction } from '../../model/content.ts';
import type { Item, ItemFile } from '../../model/holding.ts';
import { responseIdsOf } from '../../model/options.ts';
import { interactionsOf, isInteraction, mapLists, walk } from '../../model/visit.ts';
import { picturesOf } from '../../model/options.ts';
import { feedbackRoles } from '../../scoring/feedbackRoles.ts';
import type { Editing } from '../editing.ts';
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
    editing.items.set(edit.node, { ...next, files: filesOf(next, item, editing) });
    return undefined;
  },
};

const ADDRESS = /^(?:[a-z][a-z0-9+.-]*:|\/\/|#)/iu;

/**
 * The files an item refers to now: those it still shows, those that no text has shown, and files of the package
 * that it shows since.
 */
function filesOf(item: Item, before: Item, editing: Editing): readonly ItemFile[] {
  const [shown, were] = [addressesIn(item), addressesIn(before)];
  const kept = before.files.filter((f) => shown.has(f.path) || !were.has(f.path));
  const known = new Set(kept.map((f) => f.path));
  const more = [...shown].filter((path) => !known.has(path) && editing.files.has(path));
  return [...kept, ...more.map((path) => ({ path, present: true }))];
}

/** Addresses within the package that an item's texts and pictures lead to. */
function addressesIn(item: Item): ReadonlySet<string> {
  const found = new Set<string>();
  const texts = [
    ...item.stimuli.flatMap((s) => s.content),
    ...item.body,
    ...item.feedback.flatMap((f) => f.content),
  ];
  walk(texts, (n) => {
    if (n.kind !== 'element') return;
    for (const name of ['src', 'href', 'poster'] as const) {
      const address = n.attrs[name];
      if (address !== undefined && address !== '' && !ADDRESS.test(address)) found.add(address);
    }
  });
  for (const i of interactionsOf(item)) for (const p of picturesOf(i)) found.add(p.src);
  return found;
}
