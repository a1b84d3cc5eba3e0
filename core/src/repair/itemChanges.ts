import type { Edit } from '../edit/schema.ts';
import { isReplaceable, NEAREST, type Replaceable } from '../edit/nearestKinds.ts';
import { hasTemplates } from '../families/replicas.ts';
import type { Item } from '../model/holding.ts';
import { interactionsOf, walk } from '../model/visit.ts';

/** Where an item stands, and whether the target has draws. */
export interface Where {
  /** In the pool of a draw. */
  readonly drawn: boolean;
  /** In a quiz, for everybody. */
  readonly fixed: boolean;
  readonly draws: boolean;
}

/**
 * Changes worth trying on an item for a target that loses something of it, the ones that change least first. Whether
 * one helps, and whom it lets score otherwise, is found by making it.
 */
export function itemChanges(item: Item, where: Where): readonly (readonly Edit[])[] {
  const node = item.id;
  const kinds = new Set(interactionsOf(item).map((i) => i.kind));
  let feedback = item.feedback.length > 0;
  walk(item.body, (n) => void (feedback ||= n.kind === 'feedback'));
  const told: Edit[] = feedback ? [{ op: 'feedback-plain', node }] : [];
  const hints = item.feedback.some((f) => f.kind !== 'general');
  const separate: Edit = { op: 'separate', node };
  const several = item.responses.length > 1 || kinds.has('match') || kinds.has('gapMatch');
  const texts = item.responses.some(
    (r) => r.baseType === 'float' || r.baseType === 'integer' || r.baseType === 'string',
  );
  const simple: Edit = { op: 'scoring', node, to: 'all-or-nothing' };
  // What was pressed or played in an item goes with what it led to.
  const shown = [...kinds].filter(isReplaceable).filter((k) => NEAREST[k] === 'text');
  const plain: Edit[] = shown.map((from) => kindEdit(node, from));
  return [
    ...(item.stimuli.length > 0 ? [[{ op: 'passage-in', node } as const]] : []),
    ...(told.length > 0 ? [told] : []),
    ...(hints ? [[{ op: 'feedback-plain', node, hints: true } as const]] : []),
    ...(hasTemplates(item) ? fixedParameters(node, where) : []),
    ...(plain.length > 0 ? [plain, [...plain, ...told], [...plain, ...told, simple]] : []),
    ...[...kinds].filter(isReplaceable).flatMap((k) => asOtherKind(node, k, where.drawn)),
    ...(several && !where.drawn ? [[separate], [{ ...separate, replace: true }]] : []),
    [simple],
    ...(texts ? [[{ op: 'scoring', node, to: 'accepted-answers' } as const]] : []),
  ];
}

/** Replicas made in the place of one item. */
const REPLICAS = 5;

/** Several fixed items, one of which is drawn, where a draw can be said; else the one that the first seed makes. */
function fixedParameters(node: string, { drawn, fixed, draws }: Where): Edit[][] {
  const one: Edit[] = [{ op: 'parameters-fix', node, seed: 1 }];
  const several: Edit[] = [{ op: 'replicas', node, count: REPLICAS, seed: '1' }];
  return drawn ? [one] : fixed && !draws ? [one, several] : [several, one];
}

const kindEdit = (node: string, from: Replaceable): Edit => ({ op: 'kind', node, from, to: NEAREST[from] });

/** The ways from a kind to others: the nearest one, the one nearest to that, and an item for each of its rows. */
function asOtherKind(node: string, kind: Replaceable, drawn: boolean): Edit[][] {
  const ways: Edit[][] = [];
  let way: Edit[] = [];
  let at: string = kind;
  while (isReplaceable(at) && NEAREST[at] !== 'text') {
    way = [...way, kindEdit(node, at)];
    at = NEAREST[at];
    ways.push(way);
  }
  if (!drawn && (at === 'match' || at === 'gapMatch'))
    ways.push([...way, { op: 'separate', node }], [...way, { op: 'separate', node, replace: true }]);
  // In order in part: the whole order, then typed.
  if (at === 'textEntry' && kind !== 'slider')
    ways.push([{ op: 'scoring', node, to: 'all-or-nothing' }, ...way]);
  return ways;
}
