import { expect } from 'chai';
import fc from 'fast-check';
import { evaluate, make, type Expr, type Rule } from '@alforja/core';

/**
 * The evaluator against a naive one of its own: numbers, truth and NULL as plain JavaScript values, written
 * from the definitions without a look at the other. Random small programs on random answers.
 */
type Plain = number | boolean | string | null;

function naive(expr: Expr, vars: ReadonlyMap<string, Plain>): Plain {
  if (expr.op === 'baseValue') return expr.value;
  if (expr.op === 'variable') return vars.get(expr.id) ?? null;
  if (expr.op !== 'call') return null;
  const args = expr.args.map((a) => naive(a, vars));
  const numbers = args.filter((a): a is number => typeof a === 'number');
  const anyNull = args.includes(null);
  const [a] = args;
  switch (expr.name) {
    case 'and':
      return args.includes(false) ? false : anyNull ? null : true;
    case 'or':
      return args.includes(true) ? true : anyNull ? null : false;
    case 'not':
      return a === null ? null : !a;
    case 'isNull':
      return a === null;
    case 'sum':
      return anyNull ? null : numbers.reduce((x, y) => x + y, 0);
    case 'product':
      return anyNull ? null : numbers.reduce((x, y) => x * y, 1);
    case 'subtract':
      return anyNull ? null : numbers[0]! - numbers[1]!;
    case 'max':
      return anyNull ? null : Math.max(...numbers);
    case 'min':
      return anyNull ? null : Math.min(...numbers);
    case 'lt':
      return anyNull ? null : numbers[0]! < numbers[1]!;
    case 'gte':
      return anyNull ? null : numbers[0]! >= numbers[1]!;
    case 'equal':
      return anyNull ? null : numbers[0] === numbers[1];
    case 'integerDivide':
      return anyNull || numbers[1] === 0 ? null : Math.floor(numbers[0]! / numbers[1]!);
    default:
      throw new Error(expr.name);
  }
}

function run(rules: readonly Rule[], vars: Map<string, Plain>): 'exit' | undefined {
  for (const rule of rules) {
    if (rule.do === 'exit') return 'exit';
    if (rule.do === 'set') vars.set(rule.id, naive(rule.value, vars));
    if (rule.do === 'if') {
      const taken = rule.branches.find((b) => naive(b.when, vars) === true);
      if (run(taken ? taken.then : rule.otherwise, vars) === 'exit') return 'exit';
    }
  }
  return undefined;
}

const { call, number, set, value, variable } = make;
const { numeric, truth } = fc.letrec<{ numeric: Expr; truth: Expr }>((tie) => ({
  numeric: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    fc.integer({ min: -6, max: 6 }).map(number),
    fc.constantFrom(variable('R'), variable('Q'), variable('SCORE')),
    fc
      .tuple(
        fc.constantFrom('sum', 'product', 'subtract', 'max', 'min', 'integerDivide' as const),
        tie('numeric'),
        tie('numeric'),
      )
      .map(([name, a, b]) => call(name as 'sum', [a, b])),
  ),
  truth: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    fc.boolean().map((b) => value('boolean', b)),
    fc
      .tuple(fc.constantFrom('lt', 'gte', 'equal'), tie('numeric'), tie('numeric'))
      .map(([name, a, b]) =>
        call(name as 'lt', [a, b], name === 'equal' ? { toleranceMode: 'exact' } : undefined),
      ),
    fc
      .tuple(fc.constantFrom('and', 'or'), tie('truth'), tie('truth'))
      .map(([name, a, b]) => call(name as 'and', [a, b])),
    tie('truth').map((a) => call('not', [a])),
    tie('numeric').map((a) => call('isNull', [a])),
  ),
}));
const { rules } = fc.letrec<{ rules: Rule[]; rule: Rule }>((tie) => ({
  rule: fc.oneof(
    { maxDepth: 2, withCrossShrink: true },
    numeric.map((v) => set('SCORE', v)),
    fc.tuple(truth, tie('rules'), truth, tie('rules'), tie('rules')).map(([a, x, b, y, otherwise]): Rule => ({
      do: 'if',
      branches: [
        { when: a, then: x },
        { when: b, then: y },
      ],
      otherwise,
    })),
    fc.constant<Rule>({ do: 'exit' }),
  ),
  rules: fc.array(tie('rule'), { maxLength: 3 }),
}));

describe('the evaluator and a naive one', () => {
  it('agree on random programs', () => {
    const answer = fc.option(fc.integer({ min: -6, max: 6 }), { nil: null });
    fc.assert(
      fc.property(rules, answer, answer, (program, r, q) => {
        const item = make.item({
          id: 'i',
          responses: [make.response('R', 'single', 'float'), make.response('Q', 'single', 'float')],
          scoring: { rules: program, untranslated: [] },
        });
        const vars = new Map<string, Plain>([
          ['R', r],
          ['Q', q],
          ['SCORE', 0],
        ]);
        run(program, vars);
        const got = evaluate(item, { R: r === null ? [] : [r], Q: q === null ? [] : [q] }).outcomes['SCORE'];
        const expected = vars.get('SCORE') ?? null;
        const plain = got ? (got.values[0] as number) : null;
        // A number too large for either to hold is no number for ours.
        if (typeof expected === 'number' && !Number.isFinite(expected)) return;
        expect(plain === null ? null : plain + 0).to.equal(
          typeof expected === 'number' ? expected + 0 : expected,
        );
      }),
      { numRuns: 2000 },
    );
  });
});
