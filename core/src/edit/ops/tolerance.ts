import type { Item } from '../../model/holding.ts';
import { tidyNumber } from '../../model/number.ts';
import type { ResponseDeclaration } from '../../model/scoring.ts';
import { recognise, shapeIn } from '../../scoring/recognise.ts';
import type { NumericShape, ScoringShape, Tolerance } from '../../scoring/shapes.ts';
import { withKey } from '../keys.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import { rescore } from '../rescore.ts';
import type { EditOf } from '../schema.ts';
import type { ItemOperation } from './operation.ts';
import { rewritable, scores, together } from './rewriting.ts';

/** The one response whose part of the scoring is of a kind. */
function partOfKind<K extends ScoringShape['kind']>(
  item: Item,
  shape: ScoringShape,
  kinds: readonly K[],
  edit: { readonly response?: string | undefined; readonly op: string },
): { response: ResponseDeclaration; part: Extract<ScoringShape, { kind: K }> } | Refused {
  const found = item.responses.flatMap((response) => {
    if (edit.response !== undefined && response.id !== edit.response) return [];
    const part = shapeIn(shape, response.id);
    const sole = shape.kind === 'sum-of-parts' || item.responses.length === 1 || edit.response !== undefined;
    const fits =
      part !== null && (kinds as readonly string[]).includes(part.kind) && (sole || scores(item, response));
    return fits ? [{ response, part: part as Extract<ScoringShape, { kind: K }> }] : [];
  });
  if (found.length === 1) return found[0]!;
  if (found.length > 1)
    return refused('response-needed', { known: found.map((f) => f.response.id).join(', ') });
  return refused('scoring-other', { op: edit.op, kind: shape.kind });
}

const spanOf = (t: Tolerance | null) =>
  t && { mode: t.mode, low: t.low, high: t.high, includesLow: t.includesLow, includesHigh: t.includesHigh };

export const TOLERANCE: ItemOperation<'tolerance'> = {
  on: 'item',
  now: (item, edit) => {
    const found = partOfKind(item, recognise(item).shape, ['numeric'], edit);
    return isRefused(found) ? found : spanOf(found.part.tolerance);
  },
  wanted: (edit, item) => {
    const found = partOfKind(item, recognise(item).shape, ['numeric'], edit);
    const wanted = isRefused(found) ? found : numericWith(found.part, edit.to);
    if (isRefused(found) || isRefused(wanted)) return undefined;
    // The same bounds are the same tolerance, whichever way they are written.
    return spanOf(sameSpan(found.part.tolerance, wanted.tolerance) ? found.part.tolerance : wanted.tolerance);
  },
  apply: (item, edit) => {
    const recognised = rewritable(item, false);
    if (isRefused(recognised)) return recognised;
    const found = partOfKind(item, recognised.shape, ['numeric'], edit);
    if (isRefused(found)) return found;
    const { response, part } = found;
    const wanted = numericWith(part, edit.to);
    if (isRefused(wanted)) return wanted;
    const shape = together(item, recognised.shape, response, wanted);
    const next = rescore(item, shape, withKey(recognised.key, response.id, [wanted.value]));
    if (isRefused(next)) return next;
    const made = shapeIn(recognise(next).shape, response.id);
    const held = made?.kind === 'numeric' && sameSpan(made.tolerance, wanted.tolerance);
    return held ? next : refused('scoring-not-as-asked');
  },
};

const sameSpan = (a: Tolerance | null, b: Tolerance | null): boolean =>
  a === null || b === null
    ? a === b
    : a.low === b.low &&
      a.high === b.high &&
      a.includesLow === b.includesLow &&
      a.includesHigh === b.includesHigh;

function numericWith(part: NumericShape, to: EditOf<'tolerance'>['to']): NumericShape | Refused {
  if (to === null) return { ...part, stated: true, tolerance: null };
  const tolerance: Tolerance = {
    mode: to.mode,
    low: to.low,
    high: to.high,
    includesLow: to.includesLow ?? true,
    includesHigh: to.includesHigh ?? true,
  };
  const { low, high } = tolerance;
  if (low > high || (low === high && !(tolerance.includesLow && tolerance.includesHigh)))
    return refused('bounds-order');
  const inside = part.value >= low && part.value <= high;
  if (part.stated && !inside)
    return refused('bounds-around', { value: String(part.value), low: String(low), high: String(high) });
  const value = inside ? part.value : tidyNumber((low + high) / 2);
  return { ...part, value, tolerance: low === high ? null : tolerance };
}
