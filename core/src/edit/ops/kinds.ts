import type { ContentNode, Interaction } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { element, text } from '../../model/make.ts';
import { optionSets, responseIdsOf } from '../../model/options.ts';
import { own } from '../../model/own.ts';
import { interactionsOf, isInteraction, mapLists } from '../../model/visit.ts';
import { concrete } from '../../scoring/concrete.ts';
import { recognise } from '../../scoring/recognise.ts';
import type { ScoringShape } from '../../scoring/shapes.ts';
import { refused } from '../refusal.ts';
import { rescore } from '../rescore.ts';
import type { ItemOperation } from './operation.ts';

/** Kinds that ask the same in another way, scored by the same program. */
export const KIND: ItemOperation<'kind'> = {
  on: 'item',
  now: (item, { from }) => {
    const kinds = interactionsOf(item).map((i) => i.kind);
    return (kinds as readonly string[]).includes(from) ? from : null;
  },
  apply: (item, { from, to }) => {
    const at = interactionsOf(item).filter((i) => i.kind === from);
    if (at.length === 0) return refused('scoring-other', { op: `kind ${to}`, kind: from });
    const more: ContentNode[] = [];
    const list = (nodes: readonly ContentNode[]): ContentNode[] =>
      nodes.flatMap((given) => {
        const made = isInteraction(given) ? asked(given, from) : null;
        if (!made) return [mapLists(given, list)];
        more.push(...made.after);
        return list(made.here);
      });
    return { ...item, body: [...list(item.body), ...more] };
  },
};

/** What stands in the place of an interaction, and what comes after everything else. */
function asked(node: Interaction, from: string): { here: ContentNode[]; after: ContentNode[] } | null {
  if (node.kind !== from) return null;
  const choice = (
    choices: Extract<Interaction, { kind: 'choice' }>['choices'],
    max: number,
    shuffle: boolean,
  ): ContentNode => ({
    kind: 'choice',
    responseId: responseIdsOf(node)[0]!,
    prompt: [],
    shuffle,
    maxChoices: max,
    minChoices: 0,
    choices,
  });
  switch (node.kind) {
    case 'inlineChoice':
      return { here: [text('____')], after: [choice(node.choices, 1, node.shuffle)] };
    case 'hottext': {
      const [options = []] = optionSets(node);
      const choices = options.map((o) => ({ id: o.id, content: o.content, fixed: false }));
      return {
        here: [...node.prompt, ...unmarked(node.content)],
        after: [choice(choices, node.maxChoices, false)],
      };
    }
    case 'slider':
      return {
        here: [
          ...node.prompt,
          element('p', [
            { kind: 'textEntry', responseId: node.responseId, expectedLength: 8, placeholder: null },
          ]),
        ],
        after: [],
      };
    default:
      return null;
  }
}

/** Words that could be picked, as words. */
const unmarked = (nodes: readonly ContentNode[]): ContentNode[] =>
  nodes.flatMap((n) => (n.kind === 'hottextChoice' ? [...n.content] : [mapLists(n, unmarked)]));

/** Shared passages go into the item itself. */
export const PASSAGE_IN: ItemOperation<'passage-in'> = {
  on: 'item',
  now: (item) => item.stimuli.length > 0,
  wanted: () => false,
  apply: (item) => ({
    ...item,
    body: [...item.stimuli.flatMap((s) => s.content), ...item.body],
    stimuli: [],
  }),
};

/** The item as one seed makes it, the same for everybody. */
export const PARAMETERS_FIX: ItemOperation<'parameters-fix'> = {
  on: 'item',
  now: (item) => item.templates.length > 0,
  wanted: () => false,
  apply: (item, { seed }) => concrete(item, seed),
};

/** All or nothing, or accepted texts instead of a number: scores change. */
export const SIMPLER: ItemOperation<'scoring'> = {
  on: 'item',
  now: (item) => recognise(item).shape.kind,
  wanted: (edit) => edit.to,
  apply: (item, { to }) => {
    if (item.templates.length > 0) return refused('parameters-drawn');
    const recognised = recognise(item);
    const { key } = recognised;
    const scored = item.responses.filter((r) => (own(key, r.id) ?? []).length > 0);
    if (scored.length === 0) return refused('key-empty');
    const points = item.points > 0 ? item.points : 1;
    if (to === 'all-or-nothing') {
      const ordered = scored.length === 1 && scored[0]!.cardinality === 'ordered';
      return rescore(item, { kind: 'all-or-nothing', points, ordered }, key);
    }
    const [response] = scored;
    if (scored.length > 1 || !response || recognised.shape.kind !== 'numeric')
      return refused('scoring-other', { op: to, kind: recognised.shape.kind });
    const typed: Item = {
      ...item,
      responses: item.responses.map((r) =>
        r === response ? { ...r, baseType: 'string', correct: [], mapping: null } : r,
      ),
    };
    const texts = numberTexts(recognised.shape.value);
    const shape: ScoringShape = {
      kind: 'accepted-answers',
      answers: texts.map((t) => ({ text: t, points, caseSensitive: false })),
    };
    return rescore(typed, shape, { [response.id]: texts });
  },
};

/** How people write a number: with a point, and with a comma. */
const numberTexts = (n: number): string[] => [...new Set([String(n), String(n).replace('.', ',')])];
