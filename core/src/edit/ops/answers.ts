import type { ContentNode } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { responseIdsOf } from '../../model/options.ts';
import { own } from '../../model/own.ts';
import { interactionsOf, isInteraction, mapLists } from '../../model/visit.ts';
import { recognise } from '../../scoring/recognise.ts';
import type { ScoringShape } from '../../scoring/shapes.ts';
import { responseOf, withKey, worthOf } from '../keys.ts';
import { isRefused, refused } from '../refusal.ts';
import { rescore } from '../rescore.ts';
import type { ItemOperation } from './operation.ts';
import { mapParts } from './choices.ts';

/** One answer, or several: what makes two kinds of question of a list of choices. */
export const ANSWERS: ItemOperation<'answers'> = {
  on: 'item',
  now: (item, edit) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return response;
    const kind = interactionsOf(item).find((i) => responseIdsOf(i).includes(response.id))?.kind;
    if (kind !== 'choice' && kind !== 'hottext' && kind !== 'hotspot')
      return refused('scoring-other', { op: 'answers', kind: kind ?? 'without choices' });
    return response.cardinality === 'single' ? 'one' : 'several';
  },
  wanted: (edit) => edit.to,
  apply: (item, edit) => {
    const response = responseOf(item, edit.response);
    if (isRefused(response)) return response;
    const before = recognise(item);
    if (before.shape.kind === 'program') return refused('scoring-program');
    const said = new Set([...(own(before.key, response.id) ?? []), ...response.correct]);
    const key = [...said];
    if (edit.to === 'one' && key.length > 1) return refused('key-several', { count: key.length });
    const cardinality = edit.to === 'one' ? 'single' : 'multiple';
    const list = (nodes: readonly ContentNode[]): ContentNode[] =>
      nodes.map((given) => {
        const node = mapLists(given, list);
        const meant =
          isInteraction(node) && 'maxChoices' in node && responseIdsOf(node).includes(response.id);
        return meant
          ? { ...node, maxChoices: edit.to === 'one' ? 1 : 0, minChoices: Math.min(node.minChoices, 1) }
          : node;
      });
    const next: Item = {
      ...item,
      body: list(item.body),
      responses: item.responses.map((r) => (r.id === response.id ? { ...r, cardinality } : r)),
    };
    if (key.length === 0) return next;
    const points = worthOf(item, before, response);
    const all: ScoringShape = { kind: 'all-or-nothing', points, ordered: false };
    const wanted =
      before.shape.kind === 'sum-of-parts' ? mapParts(before.shape, [response.id], () => all) : all;
    return rescore(next, wanted, withKey(before.key, response.id, key), { before: item });
  },
};
