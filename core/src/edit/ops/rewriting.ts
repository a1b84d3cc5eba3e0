import type { Item } from '../../model/holding.ts';
import { own } from '../../model/own.ts';
import type { ResponseDeclaration } from '../../model/scoring.ts';
import { bestOf } from '../../scoring/best.ts';
import { concrete } from '../../scoring/concrete.ts';
import { recognise, type Recognised } from '../../scoring/recognise.ts';
import type { ScoringShape } from '../../scoring/shapes.ts';
import { withPart } from '../keys.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import type { Op } from '../schema.ts';
import type { ItemOperation } from './operation.ts';

/** An item whose scoring can be written anew, or why it cannot. */
export function rewritable(item: Item, replace: boolean | undefined): Recognised | Refused {
  if (item.templates.length > 0) return refused('parameters-drawn');
  const recognised = recognise(item);
  if (replace) return recognised;
  if (recognised.shape.kind === 'program' || item.adaptive) return refused('scoring-program');
  return recognised;
}

/** Where only all answers together score, another key for one of them leaves that as it is. */
export function together(
  item: Item,
  shape: ScoringShape,
  response: ResponseDeclaration,
  part: ScoringShape,
): ScoringShape {
  const joint = shape.kind === 'all-or-nothing' && item.responses.length > 1;
  return joint
    ? shape
    : withPart(item, shape.kind === 'program' ? { kind: 'none' } : shape, response.id, part);
}

export const scores = (item: Item, response: ResponseDeclaration): boolean =>
  (own(recognise(item).key, response.id) ?? []).length > 0;

/**
 * An operation that writes scoring anew, for items that are worth nothing too: what they would give is asked of
 * them as if a unit were a point, and they are worth nothing afterwards.
 */
export const ofScoring = <O extends Op>(operation: ItemOperation<O>): ItemOperation<O> => {
  const { now, wanted, apply } = operation;
  return {
    on: 'item',
    now: (item, edit) => now(worthSomething(item), edit),
    ...(wanted ? { wanted: (edit, item) => wanted(edit, worthSomething(item)) } : {}),
    apply: (item, edit) => {
      const lifted = worthSomething(item);
      const next = apply(lifted, edit);
      return isRefused(next) || lifted === item ? next : { ...next, points: 0, scale: 0 };
    },
  };
};

function worthSomething(item: Item): Item {
  if (item.points !== 0 || item.scale !== 0) return item;
  const { raw } = bestOf(concrete(item));
  return raw > 0 ? { ...item, scale: 1, points: raw } : item;
}
