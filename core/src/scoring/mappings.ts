import type {
  AreaMapping,
  BaseType,
  Mapping,
  OutcomeDeclaration,
  ResponseDeclaration,
} from '../model/scoring.ts';
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
  spend(distinct.size);
  for (const [key, given] of distinct) {
    const entry = entryFor(key, typeof given === 'string', mapping, response.baseType);
    total += entry ? entry.value : mapping.defaultValue;
  }
  return float(bounded(total, mapping));
}

/** The first entry that a value fits. */
function entryFor(
  key: string,
  isText: boolean,
  mapping: Mapping,
  baseType: BaseType | null,
): Mapping['entries'][number] | undefined {
  const fits = (e: Mapping['entries'][number]): boolean => {
    const wanted = scalarKey(e.key, baseType);
    return (
      wanted === key ||
      (!e.caseSensitive && isText && composed(wanted.toLowerCase()) === composed(key.toLowerCase()))
    );
  };
  if (mapping.entries.length <= FEW) return mapping.entries.find(fits);
  const { exact, folded } = indexOf(mapping, baseType);
  const places = [exact.get(key), isText ? folded.get(composed(key.toLowerCase())) : undefined];
  const at = Math.min(...places.map((p) => p ?? Number.POSITIVE_INFINITY));
  return mapping.entries[at];
}

/** Few entries are the quickest looked through; of many there is an index. */
const FEW = 16;
interface MapIndex {
  /** The first entry of each key, and of each key that is not told apart by its letters' case. */
  readonly exact: ReadonlyMap<string, number>;
  readonly folded: ReadonlyMap<string, number>;
}
const indexes = new WeakMap<Mapping, MapIndex>();

function indexOf(mapping: Mapping, baseType: BaseType | null): MapIndex {
  let index = indexes.get(mapping);
  if (index) return index;
  spend(mapping.entries.length);
  const exact = new Map<string, number>();
  const folded = new Map<string, number>();
  mapping.entries.forEach((e, at) => {
    const key = scalarKey(e.key, baseType);
    const lower = composed(key.toLowerCase());
    if (!exact.has(key)) exact.set(key, at);
    if (!e.caseSensitive && !folded.has(lower)) folded.set(lower, at);
  });
  indexes.set(mapping, (index = { exact, folded }));
  return index;
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
