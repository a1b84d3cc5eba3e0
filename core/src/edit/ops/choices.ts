import type { Choice, ContentNode, Interaction } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { text } from '../../model/make.ts';
import { choicesOf, optionSets, responseIdsOf } from '../../model/options.ts';
import { plain } from '../../model/plainText.ts';
import { interactionsOf, isInteraction, mapLists } from '../../model/visit.ts';
import type { ScoringShape } from '../../scoring/shapes.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import { withText } from '../retext.ts';
import type { ItemOperation } from './operation.ts';

type Listed = Extract<Interaction, { choices: readonly Choice[] }>;

/** Every choice with a text of its own, and a new list of those of an interaction. */
export function mapChoices(
  item: Item,
  map: (list: readonly Choice[], interaction: Interaction) => readonly Choice[],
): Item {
  const list = (nodes: readonly ContentNode[]): ContentNode[] => nodes.map(visit);
  const visit = (given: ContentNode): ContentNode => {
    const node = mapLists(given, list);
    // Told by the node as it stands in the item: what is inside it has been renewed.
    if (!isInteraction(given) || !isInteraction(node)) return node;
    if ('choices' in node) return { ...node, choices: map((given as Listed).choices, given) } as ContentNode;
    if (node.kind === 'match' && given.kind === 'match')
      return { ...node, left: map(given.left, given), right: map(given.right, given) };
    return node;
  };
  return { ...item, body: list(item.body) };
}

const known = (item: Item): string =>
  choicesOf(item)
    .map((c) => c.id)
    .join(', ');

export const unknown = (item: Item, choice: string): Refused =>
  refused('choice-unknown', { choice, known: known(item) });

/** The interaction that offers a choice. */
export const holderOf = (item: Item, choice: string): Interaction | undefined =>
  interactionsOf(item).find((i) => optionSets(i).some((set) => set.some((o) => o.id === choice)));

export function choiceIn(item: Item, id: string): Choice | null {
  for (const i of interactionsOf(item)) {
    const lists = i.kind === 'match' ? [i.left, i.right] : 'choices' in i ? [i.choices] : [];
    for (const list of lists) {
      const found = list.find((c) => c.id === id);
      if (found) return found;
    }
  }
  return null;
}

export const CHOICE_TEXT: ItemOperation<'choice-text'> = {
  on: 'item',
  now: (item, { choice }) => {
    const found = choicesOf(item).find((c) => c.id === choice);
    return found ? (found.content.length > 0 ? plain(found.content) : found.label) : unknown(item, choice);
  },
  wanted: (edit) => edit.to.replace(/\s+/gu, ' ').trim(),
  apply: (item, { choice, to }) => {
    if (choiceIn(item, choice)) {
      let trouble: Refused | null = null;
      const next = mapChoices(item, (list) =>
        list.map((c) => {
          if (c.id !== choice) return c;
          const content = choiceContent(c.content, to);
          if (isRefused(content)) trouble = content;
          return isRefused(content) ? c : { ...c, content };
        }),
      );
      return trouble ?? next;
    }
    const list = (nodes: readonly ContentNode[]): ContentNode[] => nodes.map(renamed);
    const renamed = (given: ContentNode): ContentNode => {
      const node = mapLists(given, list);
      if (node.kind === 'hottextChoice' && node.id === choice) {
        const content = withText(node.content, to);
        return isRefused(content) ? node : { ...node, content };
      }
      return 'hotspots' in node
        ? { ...node, hotspots: node.hotspots.map((h) => (h.id === choice ? { ...h, label: to } : h)) }
        : node;
    };
    return { ...item, body: list(item.body) };
  },
};

/** A text that stood alone stands alone; a choice that was a picture gets its words beside it. */
function choiceContent(content: readonly ContentNode[], to: string): readonly ContentNode[] | Refused {
  if (plain(content) === '' && content.length > 0) return [...content, text(to.trim())];
  return content.length === 0 ? [text(to.trim())] : withText(content, to);
}

export const CHOICE_FIXED: ItemOperation<'choice-fixed'> = {
  on: 'item',
  now: (item, { choice }) => choicesOf(item).find((c) => c.id === choice)?.fixed ?? unknown(item, choice),
  wanted: (edit) => edit.to,
  apply: (item, { choice, to }) =>
    choiceIn(item, choice)
      ? mapChoices(item, (list) => list.map((c) => (c.id === choice ? { ...c, fixed: to } : c)))
      : unknown(item, choice),
};

export const SHUFFLE: ItemOperation<'shuffle'> = {
  on: 'item',
  now: (item, edit) => {
    const all = shuffled(item, edit.response);
    return all.length === 0
      ? refused('scoring-other', { op: 'shuffle', kind: 'without choices' })
      : all.every((s) => s)
        ? true
        : all.some((s) => s)
          ? null
          : false;
  },
  wanted: (edit) => edit.to,
  apply: (item, edit) => {
    const list = (nodes: readonly ContentNode[]): ContentNode[] =>
      nodes.map((given) => {
        const node = mapLists(given, list);
        const meant = isInteraction(node) && 'shuffle' in node && about(node, edit.response);
        return meant ? ({ ...node, shuffle: edit.to } as ContentNode) : node;
      });
    return { ...item, body: list(item.body) };
  },
};

export const about = (i: Interaction, response: string | undefined): boolean =>
  response === undefined || responseIdsOf(i).includes(response);

const shuffled = (item: Item, response: string | undefined): boolean[] =>
  interactionsOf(item).flatMap((i) => ('shuffle' in i && about(i, response) ? [i.shuffle] : []));

/** The parts of a shape that belong to some responses, changed; all of it where it is no sum. */
export function mapParts(
  shape: ScoringShape,
  responses: readonly string[],
  map: (part: ScoringShape) => ScoringShape,
): ScoringShape {
  if (shape.kind !== 'sum-of-parts') return map(shape);
  return {
    ...shape,
    parts: shape.parts.map((p) => (responses.includes(p.responseId) ? { ...p, shape: map(p.shape) } : p)),
  };
}
