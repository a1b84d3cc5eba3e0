import { expect } from 'chai';
import fc from 'fast-check';
import {
  evaluate,
  make,
  type BaseType,
  type Cardinality,
  type Expr,
  type Operator,
  type Scalar,
} from '@alforja/core';

const { call, value } = make;
const NULL: Expr = { op: 'null' };

/** The value an expression gives, as plain scalars; null for NULL. */
function run(
  expr: Expr,
  cardinality: Cardinality = 'single',
  baseType: BaseType = 'float',
): Scalar | readonly Scalar[] | null {
  const item = make.item({
    id: 'i',
    outcomes: [make.outcome('SCORE'), make.outcome('X', { cardinality, baseType, defaultValue: [] })],
    scoring: { rules: [make.set('X', expr)], untranslated: [] },
  });
  const got = evaluate(item, {}).outcomes['X'] ?? null;
  return got === null ? null : cardinality === 'single' ? got.values[0]! : got.values;
}
const truth = (expr: Expr): boolean | null => run(expr, 'single', 'boolean') as boolean | null;
const bool = (b: boolean | null): Expr => (b === null ? NULL : value('boolean', b));
const num = (n: number): Expr => make.number(n);
const three = fc.constantFrom(true, false, null);
const n = fc.integer({ min: -50, max: 50 });
const bag = (values: readonly string[], baseType: BaseType = 'identifier'): Expr =>
  call(
    'multiple',
    values.map((v) => value(baseType, v)),
  );

describe('the operators', () => {
  it('follow three-valued logic: De Morgan, order, and what NULL decides', () => {
    fc.assert(
      fc.property(fc.array(three, { minLength: 1, maxLength: 5 }), (list) => {
        const args = list.map(bool);
        const and = truth(call('and', args));
        expect(and).to.equal(list.includes(false) ? false : list.includes(null) ? null : true);
        expect(truth(call('and', [...args].reverse()))).to.equal(and);
        const or = truth(call('or', args));
        expect(or).to.equal(
          truth(
            call('not', [
              call(
                'and',
                args.map((a) => call('not', [a])),
              ),
            ]),
          ),
        );
        for (let low = 0; low <= list.length; low++) {
          const any = truth(call('anyN', args, { min: String(low), max: String(list.length) }));
          const yes = list.filter((b) => b === true).length;
          const unknown = list.filter((b) => b === null).length;
          expect(any).to.equal(yes >= low ? true : yes + unknown < low ? false : null);
        }
      }),
    );
  });

  it('give NULL for NULL in arithmetic and comparison, and for division by zero', () => {
    const two: Operator[] = [
      'sum',
      'product',
      'subtract',
      'divide',
      'power',
      'integerDivide',
      'integerModulus',
      'max',
      'min',
      'lt',
      'gt',
      'lte',
      'gte',
      'equal',
      'match',
    ];
    for (const name of two) {
      const attrs = name === 'equal' ? { toleranceMode: 'exact' } : undefined;
      expect(run(call(name, [num(1), NULL], attrs)), name).to.equal(null);
      expect(run(call(name, [NULL, num(1)], attrs)), name).to.equal(null);
    }
    for (const name of ['divide', 'integerDivide', 'integerModulus'] as const)
      expect(run(call(name, [num(3), num(0)]))).to.equal(null);
    expect(run(call('containerSize', [NULL]), 'single', 'integer')).to.equal(0);
  });

  it('obey the laws of arithmetic', () => {
    fc.assert(
      fc.property(n, n, (a, b) => {
        expect(run(call('sum', [num(a), num(b)]))).to.equal(a + b);
        expect(run(call('subtract', [call('sum', [num(a), num(b)]), num(b)]))).to.equal(a);
        if (b !== 0) {
          const q = run(call('integerDivide', [num(a), num(b)])) as number;
          const r = run(call('integerModulus', [num(a), num(b)])) as number;
          expect(q * b + r).to.equal(a);
          expect(Math.abs(r)).to.be.below(Math.abs(b));
          expect(q).to.equal(Math.floor(a / b));
        }
        expect(run(call('round', [num(a + 0.5)]))).to.equal(a + 1);
        expect(run(call('truncate', [num(a + (a < 0 ? -0.5 : 0.5))]))).to.equal(a);
      }),
    );
  });

  it('match bags without order, lists with it, and pairs both ways round', () => {
    const names = fc.array(fc.constantFrom('A', 'B', 'C'), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(names, names, (a, b) => {
        const same = [...a].sort().join() === [...b].sort().join();
        expect(truth(call('match', [bag(a), bag(b)]))).to.equal(same);
        expect(truth(call('match', [bag(b), bag(a)]))).to.equal(same);
        const list = (v: readonly string[]): Expr =>
          call(
            'ordered',
            v.map((x) => value('identifier', x)),
          );
        expect(truth(call('match', [list(a), list(b)]))).to.equal(a.join() === b.join());
        // Gathering a gathering changes nothing.
        expect(run(call('multiple', [bag(a)]), 'multiple', 'identifier')).to.deep.equal(a);
        expect(truth(call('contains', [bag([...a, ...b]), bag(b)]))).to.equal(true);
        expect(truth(call('member', [value('identifier', a[0]!), bag(a)]))).to.equal(true);
        expect(
          run(call('delete', [value('identifier', a[0]!), bag(a)]), 'multiple', 'identifier') ?? [],
        ).to.deep.equal(a.filter((x) => x !== a[0]));
      }),
    );
    expect(truth(call('match', [value('pair', 'A B'), value('pair', 'B A')]))).to.equal(true);
    expect(truth(call('match', [value('directedPair', 'A B'), value('directedPair', 'B A')]))).to.equal(
      false,
    );
  });

  it('compare numbers with tolerance: ends, signs, and in per cent', () => {
    const equal = (a: number, b: number, attrs: Record<string, string>): boolean | null =>
      truth(call('equal', [num(a), num(b)], attrs));
    const cases: [number, number, Record<string, string>, boolean][] = [
      [3.3, 3.2, { toleranceMode: 'absolute', tolerance: '0.1' }, true],
      [3.3, 3.4, { toleranceMode: 'absolute', tolerance: '0.1' }, true],
      [3.3, 3.19, { toleranceMode: 'absolute', tolerance: '0.1' }, false],
      [10, 12, { toleranceMode: 'absolute', tolerance: '1 2' }, true],
      [10, 8.5, { toleranceMode: 'absolute', tolerance: '1 2' }, false],
      [200, 190, { toleranceMode: 'relative', tolerance: '5' }, true],
      [200, 189, { toleranceMode: 'relative', tolerance: '5' }, false],
      [-200, -205, { toleranceMode: 'relative', tolerance: '5' }, true],
      [3.3, 3.4, { toleranceMode: 'absolute', tolerance: '0.1', includeUpperBound: 'false' }, false],
      [3.3, 3.3, { toleranceMode: 'exact' }, true],
    ];
    for (const [a, b, attrs, expected] of cases)
      expect(equal(a, b, attrs), `${a} ${b} ${JSON.stringify(attrs)}`).to.equal(expected);
    const rounded = (a: number, b: number, mode: string, figures: string): boolean | null =>
      truth(call('equalRounded', [num(a), num(b)], { roundingMode: mode, figures }));
    expect(rounded(1.005, 1.01, 'decimalPlaces', '2')).to.equal(true);
    expect(rounded(1234, 1230, 'significantFigures', '3')).to.equal(true);
    expect(rounded(1236, 1230, 'significantFigures', '3')).to.equal(false);
  });

  it('match patterns against the whole text, in time that grows with it', () => {
    const match = (text: string, pattern: string): boolean | null =>
      truth(call('patternMatch', [value('string', text)], { pattern }));
    expect(match('12.5', '[0-9]+(\\.[0-9]+)?')).to.equal(true);
    expect(match('a12.5', '[0-9.]+')).to.equal(false);
    expect(match('x', '(')).to.equal(null);
    expect(match('a'.repeat(4000), '(a+)+b')).to.equal(false);
    expect(match('aab', '(a|a|aa)*b')).to.equal(true);
  });
});

describe('mapping', () => {
  it('sums each distinct value once, then keeps within the bounds', () => {
    const keys = ['A', 'B', 'C', 'D'];
    fc.assert(
      fc.property(
        fc.array(n, { minLength: 4, maxLength: 4 }),
        n,
        fc.option(n, { nil: null }),
        fc.option(n, { nil: null }),
        fc.array(fc.constantFrom(...keys, 'X'), { maxLength: 6 }),
        (values, defaultValue, lower, upper, given) => {
          fc.pre(lower === null || upper === null || lower <= upper);
          const mapping = {
            lowerBound: lower,
            upperBound: upper,
            defaultValue,
            entries: keys.map((key, at) => ({ key, value: values[at]!, caseSensitive: true })),
          };
          const item = make.item({
            id: 'i',
            responses: [make.response('R', 'multiple', 'identifier', [], mapping)],
            scoring: { rules: [make.set('SCORE', { op: 'mapResponse', id: 'R' })], untranslated: [] },
          });
          const got = evaluate(item, { R: given }).raw;
          let sum = [...new Set(given)].reduce(
            (total, k) => total + (keys.includes(k) ? values[keys.indexOf(k)]! : defaultValue),
            0,
          );
          if (lower !== null) sum = Math.max(lower, sum);
          if (upper !== null) sum = Math.min(upper, sum);
          expect(got).to.equal(sum);
          expect(evaluate(item, { R: [...given, ...given].reverse() }).raw).to.equal(got);
        },
      ),
    );
  });
});
