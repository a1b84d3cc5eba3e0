import type { Item } from '../../model/holding.ts';
import { own } from '../../model/own.ts';
import type { ResponseDeclaration } from '../../model/scoring.ts';
import { recognise, type Recognised } from '../../scoring/recognise.ts';
import type { ScoringShape } from '../../scoring/shapes.ts';
import { withPart } from '../keys.ts';
import { refused, type Refused } from '../refusal.ts';

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
