import type { Item } from '../model/holding.ts';
import { plainNumber } from '../model/number.ts';
import { choicesOf, plain } from '../model/visit.ts';
import type { Recognised } from '../scoring/recognise.ts';
import type { ScoringShape } from '../scoring/recognise.ts';

/** The key as text: choices by what they say, numbers as a value or "low..high", every full-credit answer for text. */
export function keyTexts(item: Item, recognised: Recognised): string[] {
  if (recognised.shape.kind === 'manual') return [];
  return item.responses.flatMap((response) => {
    const values = recognised.key[response.id] ?? [];
    const choices = choicesOf(item).filter((c) => values.includes(c.id));
    if (choices.length > 0) return choices.map((c) => plain(c.content) || c.id);
    const shape = partShape(recognised.shape, response.id);
    if (shape?.kind === 'numeric') return [numericText(shape)];
    if (shape?.kind === 'pattern' && shape.patterns.length > 0) return shape.patterns.map((p) => `/${p}/`);
    if (shape?.kind === 'pattern') return shape.substrings.map((s) => `/${s}/`);
    return values.map((v) => (typeof v === 'number' ? plainNumber(v) : String(v)));
  });
}

/** The shape of one response: the item's own, or its part of a sum. */
export function partShape(shape: ScoringShape, responseId: string): ScoringShape | null {
  if (shape.kind !== 'sum-of-parts') return shape;
  return shape.parts.find((p) => p.responseId === responseId)?.shape ?? null;
}

/** The value the source names, else the range. */
function numericText(shape: Extract<ScoringShape, { kind: 'numeric' }>): string {
  if (!shape.tolerance || shape.stated) return plainNumber(shape.value);
  return `${plainNumber(shape.tolerance.low)}..${plainNumber(shape.tolerance.high)}`;
}
