import type { Item } from '../model/holding.ts';
import { call, value, variable } from '../model/make.ts';
import type { BaseType, Expr, ResponseDeclaration, Scalar } from '../model/scoring.ts';
import { clean, toleranceRange } from './operators/comparison.ts';
import { choiceIds } from './probe.ts';
import type { NumericShape, Tolerance } from './shapes.ts';

/** Conditions on one response, in the few forms that QTI 1.2, 2 and 3 all have. */

const literal = (response: ResponseDeclaration, v: Scalar): Expr =>
  value(response.baseType ?? 'identifier', v);

/** Whether an answer of several values holds one, or an answer of one is it. */
export const holdsValue = (response: ResponseDeclaration, v: Scalar): Expr =>
  response.cardinality === 'single'
    ? call('match', [variable(response.id), literal(response, v)])
    : call('member', [literal(response, v), variable(response.id)]);

export const allOf = (tests: readonly Expr[]): Expr => (tests.length === 1 ? tests[0]! : call('and', tests));
export const anyOf = (tests: readonly Expr[]): Expr => (tests.length === 1 ? tests[0]! : call('or', tests));

/**
 * Exactly these values and no others: one of them for an answer of one value, each in its place for an order,
 * all of them and none of the other choices else.
 */
export function exactly(
  item: Pick<Item, 'body'>,
  response: ResponseDeclaration,
  key: readonly Scalar[],
): Expr {
  if (response.cardinality === 'single') return anyOf(key.map((v) => holdsValue(response, v)));
  if (response.cardinality === 'ordered')
    return allOf(
      key.map((v, at) =>
        call('match', [call('index', [variable(response.id)], { n: String(at + 1) }), literal(response, v)]),
      ),
    );
  const others = choiceIds(item, response.id).filter((id) => !key.includes(id));
  return allOf([
    ...key.map((v) => holdsValue(response, v)),
    ...others.map((id) => call('not', [holdsValue(response, id)])),
  ]);
}

/** The answer is this text. */
export const isText = (response: ResponseDeclaration, text: string, caseSensitive: boolean): Expr =>
  call('stringMatch', [variable(response.id), value('string', text)], {
    caseSensitive: String(caseSensitive),
    substring: 'false',
  });

/** The answer is a number that gets full marks. */
export function isNumber(
  response: ResponseDeclaration,
  shape: Pick<NumericShape, 'value' | 'tolerance'>,
): Expr {
  const type: BaseType = response.baseType === 'integer' ? 'integer' : 'float';
  const answer = variable(response.id);
  const { tolerance } = shape;
  if (!tolerance) return call('equal', [value(type, shape.value), answer], { toleranceMode: 'exact' });
  const attrs = spanAround(shape.value, tolerance);
  if (attrs) return call('equal', [value(type, shape.value), answer], attrs);
  return call('and', [
    call(tolerance.includesLow ? 'gte' : 'gt', [answer, value('float', tolerance.low)]),
    call(tolerance.includesHigh ? 'lte' : 'lt', [answer, value('float', tolerance.high)]),
  ]);
}

/**
 * QTI's attributes for a span around a value (QTI 2.1, "equal": absolute in the answer's unit, relative in per
 * cent); null where they would not give exactly these bounds, which are what counts.
 */
export function spanAround(around: number, tolerance: Tolerance): Record<string, string> | null {
  const { mode, low, high } = tolerance;
  if (mode !== 'absolute' && mode !== 'relative') return null;
  if (mode === 'relative' && around <= 0) return null;
  const part = (distance: number): number =>
    clean(mode === 'absolute' ? distance : (100 * distance) / around);
  const [below, above] = [part(around - low), part(high - around)];
  const attrs = {
    toleranceMode: mode,
    tolerance: below === above ? String(below) : `${below} ${above}`,
    includeLowerBound: String(tolerance.includesLow),
    includeUpperBound: String(tolerance.includesHigh),
  };
  const range = toleranceRange(around, attrs);
  return range !== null && range.low === low && range.high === high ? attrs : null;
}
