import { expect } from 'chai';
import fc from 'fast-check';
import { evaluate, make, type Expr, type Item, type Rule } from '@alforja/core';
import { brokenOff, within } from '../../../core/src/scoring/budget.ts';
import { rawScore } from '../../../core/src/scoring/evaluate.ts';

const { call, number, outcome, response, set, value, variable, when } = make;

const scored = (rules: readonly Rule[], over: Partial<Item> = {}): Item =>
  make.item({
    id: 'i',
    responses: [response('R', 'single', 'identifier', ['A'])],
    scoring: { rules, untranslated: [] },
    ...over,
  });
const MATCH: readonly Rule[] = [
  when(call('match', [variable('R'), { op: 'correct', id: 'R' }]), [set('SCORE', number(1))]),
];

describe('compiled programs', () => {
  it('belong to the item they were made from: a copy with another key scores by that', () => {
    const item = scored(MATCH);
    const other = { ...item, responses: [response('R', 'single', 'identifier', ['B'])] };
    for (let round = 0; round < 2; round++) {
      expect([rawScore(item, { R: ['A'] }), rawScore(item, { R: ['B'] })]).to.deep.equal([1, 0]);
      expect([rawScore(other, { R: ['A'] }), rawScore(other, { R: ['B'] })]).to.deep.equal([0, 1]);
    }
  });

  it('are told apart however many there are, in whatever order they are run', () => {
    const items = Array.from({ length: 100 }, (_, n) => scored([set('SCORE', number(n))]));
    fc.assert(
      fc.property(fc.array(fc.nat(99), { maxLength: 200 }), (order) => {
        for (const n of order) expect(rawScore(items[n]!, {})).to.equal(n);
      }),
      { numRuns: 20 },
    );
  });

  it('begin each run anew: nothing of the last answer, or of what it set, is left', () => {
    const item = scored([
      when(call('isNull', [variable('R')]), [], [set('SEEN', number(1)), set('SCORE', variable('SEEN'))]),
    ]);
    expect(evaluate(item, { R: ['A'] }).outcomes).to.have.property('SEEN');
    const { outcomes, raw } = evaluate(item, {});
    expect(raw).to.equal(0);
    expect(outcomes).to.not.have.property('SEEN');
    const first = evaluate(item, { R: ['A'] });
    evaluate(item, {});
    expect(first.outcomes['SCORE']!.values, 'a result stays what it was').to.deep.equal([1]);
  });

  it('know names that every object has as names, and nothing else by them', () => {
    for (const id of ['constructor', '__proto__', 'toString']) {
      const item = scored([when(call('isNull', [variable(id)]), [set(id, number(2))])], {
        responses: [response('R', 'single', 'identifier')],
        outcomes: [outcome('SCORE'), outcome(id, { defaultValue: [] })],
      });
      const { outcomes } = evaluate(item, {});
      expect(Object.keys(outcomes)).to.deep.equal(['SCORE', id]);
      expect(Object.getOwnPropertyDescriptor(outcomes, id)!.value).to.deep.include({ values: [2] });
      const asked = scored(MATCH, { responses: [response(id, 'single', 'identifier', ['A'])] });
      expect(rawScore(asked, {})).to.equal(0);
    }
  });

  it('gather constants once, into what they are gathered into each time', () => {
    const both = call('multiple', [value('identifier', 'A'), { op: 'null' }, value('identifier', 'B')]);
    const item = scored([when(call('match', [variable('R'), both]), [set('SCORE', number(3))])], {
      responses: [response('R', 'multiple', 'identifier')],
    });
    expect([['B', 'A'], ['A'], [], ['A', 'B', 'C']].map((R) => rawScore(item, { R }))).to.deep.equal([
      3, 0, 0, 0,
    ]);
  });

  it('take no more than a run may, however much constants would come to', () => {
    const all = Array.from({ length: 10_000 }, (_, n) => `c${n}`);
    const key: Expr = { op: 'correct', id: 'R' };
    const item = scored(
      [
        when(
          call('match', [
            variable('R'),
            call(
              'multiple',
              all.map(() => key),
            ),
          ]),
          [],
        ),
      ],
      {
        responses: [response('R', 'multiple', 'identifier', all)],
      },
    );
    const before = brokenOff();
    expect(rawScore(item, { R: ['c1'] })).to.equal(0);
    expect(brokenOff()).to.equal(before + 1);
  });

  /** One for a rule, one for each expression of what it comes to; a condition that is not met costs itself. */
  const costOf = (expr: Expr): number =>
    expr.op === 'call' ? expr.args.reduce((sum, arg) => sum + costOf(arg), 1) : 1;

  it('use up a step for each rule and each expression, and are broken off when there are no more', () => {
    const { numeric } = fc.letrec<{ numeric: Expr }>((tie) => ({
      numeric: fc.oneof(
        { maxDepth: 3, withCrossShrink: true },
        fc.integer({ min: -9, max: 9 }).map(number),
        fc.constantFrom(variable('SCORE'), variable('R')),
        fc
          .tuple(fc.constantFrom('sum', 'product', 'max', 'and'), fc.array(tie('numeric'), { maxLength: 4 }))
          .map(([name, args]) => call(name as 'sum', args)),
      ),
    }));
    fc.assert(
      fc.property(fc.array(numeric, { maxLength: 5 }), (values) => {
        const item = scored(values.map((v) => set('SCORE', v)));
        // What a run costs whatever it does.
        const cost = 8 + values.reduce((sum, v) => sum + 1 + costOf(v), 0);
        const brokenWith = (steps: number): number => {
          const before = brokenOff();
          within(
            steps,
            () => rawScore(item, { R: ['A'] }),
            () => 0,
          );
          return brokenOff() - before;
        };
        expect([brokenWith(cost), brokenWith(cost - 1)]).to.deep.equal([0, 1]);
      }),
    );
  });
});
