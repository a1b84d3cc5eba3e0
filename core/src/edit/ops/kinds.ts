import type { ContentNode, Interaction } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { mapRule } from '../../model/mapRule.ts';
import { responseIdsOf } from '../../model/options.ts';
import { tidyNumber } from '../../model/number.ts';
import type { Expr } from '../../model/scoring.ts';
import { interactionsOf, isInteraction, mapLists } from '../../model/visit.ts';
import { bestOf } from '../../scoring/best.ts';
import { concrete } from '../../scoring/concrete.ts';
import { insteadOf } from '../nearest.ts';
import { NEAREST, type Instead } from '../nearestKinds.ts';
import { refused, type Refused } from '../refusal.ts';
import type { ItemOperation } from './operation.ts';

/** Kinds that ask the same in another way; scores stay. */
export const KIND: ItemOperation<'kind'> = {
  on: 'item',
  now: (item, { from }) => (ofKind(item, from).length > 0 ? from : null),
  apply: (item, { from, to }) => {
    const count = ofKind(item, from).length;
    if (count === 0 || NEAREST[from] !== to)
      return refused('scoring-other', { op: `kind ${to}`, kind: from });
    let next: Item | Refused = item;
    for (let n = 0; n < count && !('refused' in next); n++) next = replaced(next, ofKind(next, from)[0]!);
    return next;
  },
};

const ofKind = (item: Item, kind: string): readonly Interaction[] =>
  interactionsOf(item).filter((i) => i.kind === kind);

/** The item with another interaction in the place of one. */
function replaced(item: Item, old: Interaction): Item | Refused {
  const made = insteadOf(item, old);
  if (!made) return refused('scoring-other', { op: 'kind', kind: old.kind });
  const asked: Item = { ...item, body: inPlace(item.body, old, made) };
  const scored = made.scored ? made.scored(asked, item) : asked;
  if (!scored) return refused('scoring-program');
  const asks = new Set(interactionsOf(scored).flatMap(responseIdsOf));
  const gone = responseIdsOf(old).filter((id) => !asks.has(id));
  return gone.length === 0 ? scored : worthWhatIsLeft(unanswered(scored, gone), item);
}

function inPlace(nodes: readonly ContentNode[], old: Interaction, made: Instead): ContentNode[] {
  const list = (given: readonly ContentNode[]): ContentNode[] =>
    given.flatMap((n) => (n === old ? [...made.here] : isInteraction(n) ? [n] : [mapLists(n, list)]));
  return [...list(nodes), ...made.after];
}

/** What was given for pressing or playing alone can be had no more, so the item is not worth it either. */
function worthWhatIsLeft(item: Item, before: Item): Item {
  const [was, is] = [before, item].map((i) => bestOf(concrete(i)).raw);
  return is! < was! ? { ...item, points: tidyNumber(is! * item.scale) } : item;
}

/** The item without responses that nothing asks for any more; to its rules they are never answered. */
function unanswered(item: Item, gone: readonly string[]): Item {
  const never = (e: Expr): Expr => {
    if (e.op === 'call') return { ...e, args: e.args.map(never) };
    return e.op !== 'baseValue' && e.op !== 'null' && gone.includes(e.id) ? { op: 'null' } : e;
  };
  const { template: _written, ...scoring } = item.scoring;
  return {
    ...item,
    responses: item.responses.filter((r) => !gone.includes(r.id)),
    scoring: { ...scoring, rules: item.scoring.rules.map((r) => mapRule(r, never)) },
  };
}

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
