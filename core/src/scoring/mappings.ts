import type { AreaMapping, Mapping, OutcomeDeclaration, ResponseDeclaration } from '../model/scoring.ts';
import { composed } from '../model/composed.ts';
import { inArea, parsePoint, type Size } from './geometry.ts';
import { spend } from './budget.ts';
import { asNumber, float, held, scalarKey, type Value } from './value.ts';

/** A sum within a mapping's bounds. */
export const bounded = (
  total: number,
  { lowerBound, upperBound }: Pick<Mapping, 'lowerBound' | 'upperBound'>,
): number => {
  const low = lowerBound === null ? total : Math.max(lowerBound, total);
  return upperBound === null ? low : Math.min(upperBound, low);
};

/** The sum over the distinct values given, then the bounds (QTI 2.1, "mapResponse"). NULL maps to 0. */
export function mapResponse(answer: Value, mapping: Mapping, response: ResponseDeclaration): Value {
  const distinct = new Map((answer?.values ?? []).map((v) => [scalarKey(v, response.baseType), v]));
  let total = 0;
  spend((distinct.size * mapping.entries.length) >> 3);
  for (const [key, given] of distinct) {
    const entry = mapping.entries.find((e) => {
      const wanted = scalarKey(e.key, response.baseType);
      return (
        wanted === key ||
        (!e.caseSensitive &&
          typeof given === 'string' &&
          composed(wanted.toLowerCase()) === composed(key.toLowerCase()))
      );
    });
    total += entry ? entry.value : mapping.defaultValue;
  }
  return float(bounded(total, mapping));
}

/** Each area counts at most once; the default once for every point in none (QTI 2.1, "mapResponsePoint"). */
export function mapPoints(answer: Value, mapping: AreaMapping, size: Size): Value {
  const hit = new Set<number>();
  let total = 0;
  spend(
    ((answer?.values.length ?? 0) * mapping.entries.reduce((n, e) => n + 1 + (e.coords.length >> 4), 0)) >> 3,
  );
  for (const given of answer?.values ?? []) {
    const point = parsePoint(String(given));
    const at = point ? mapping.entries.findIndex((e) => inArea(e.shape, e.coords, point, size)) : -1;
    if (at < 0) total += mapping.defaultValue;
    else if (!hit.has(at)) {
      hit.add(at);
      total += mapping.entries[at]!.value;
    }
  }
  return float(bounded(total, mapping));
}

/** What an outcome's table gives for a value (QTI 2.1, "lookupTable"). */
export function lookup(outcome: OutcomeDeclaration | undefined, value: Value): Value {
  const table = outcome?.lookup;
  const n = asNumber(value);
  if (!outcome || !table) return null;
  spend(table.entries.length >> 3);
  const entry =
    n === null
      ? undefined
      : table.kind === 'match'
        ? table.entries.find((e) => e.source === n)
        : table.entries.find((e) => (e.includeBoundary ? n >= e.source : n > e.source));
  const target = entry ? entry.target : table.defaultValue;
  return target === null ? null : held(outcome.cardinality, outcome.baseType, [target]);
}
