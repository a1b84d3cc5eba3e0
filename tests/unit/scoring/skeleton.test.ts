import { expect } from 'chai';
import fc from 'fast-check';
import {
  make,
  recognise,
  type Expr,
  type Interaction,
  type Item,
  type Operator,
  type Rule,
} from '@alforja/core';
import { bestOf } from '../../../core/src/scoring/best.ts';
import type { Recognisable } from '../../../core/src/scoring/run.ts';
import { strippedOf } from '../../../core/src/scoring/skeleton.ts';
import { skeletonText } from '../../../core/src/scoring/skeletonText.ts';

const { call, choiceInteraction, number, outcome, response, set, text, value, variable, when } = make;

/**
 * Names that a program, JSON or JavaScript might mistake for something else: in the order of numbers, alike but for
 * their case, the name of an operator, of an outcome, of a field, of a number that is compared with.
 */
const AWKWARD = [
  '10',
  '9',
  '1',
  '2.5',
  'A',
  'a',
  'match',
  'SCORE',
  'RESPONSE',
  'correct',
  'general',
  'op',
  '__proto__',
  'constructor',
  'true',
  'x y',
  'é',
  'e\u0301',
  'K\u212a',
  '\u00033',
  '',
];
const name = fc.oneof(fc.constantFrom(...AWKWARD), fc.stringMatching(/^[A-Za-z0-9_.-]{1,6}$/u));

interface Named {
  readonly responses: readonly string[];
  /** Of each response. */
  readonly choices: readonly (readonly string[])[];
}

/** What programs may say of names: by their places, so that items of one make can have any names. */
interface Drawn {
  readonly standard: Item['standard'];
  readonly scale: number;
  readonly template: 'match_correct' | 'map_response' | null;
  readonly parts: readonly {
    readonly kind: 'choice' | 'order' | 'inlineChoice';
    readonly cardinality: 'single' | 'multiple' | 'ordered';
    readonly limits: readonly [least: number, most: number];
    readonly right: readonly number[];
    readonly worth: readonly number[] | null;
    readonly bounds: readonly [number | null, number | null];
    readonly exact: boolean;
  }[];
  readonly rules: (named: Named) => readonly Rule[];
}

const CHOICES = 4;
const at = fc.nat(CHOICES - 1);
const part = fc.nat(1);
/** Numbers that names may read like, too. */
const amounts = fc.constantFrom(-1, 0, 0.5, 1, 2.5, 9);
type Made<T> = (named: Named) => T;

const idOf = ({ responses }: Named, of: number): string => responses[of % responses.length]!;
const choiceOf = ({ choices }: Named, of: number, choice: number): Expr =>
  value('identifier', choices[of % choices.length]![choice]!);

const { truth, amount } = fc.letrec<{ truth: Made<Expr>; amount: Made<Expr> }>((tie) => ({
  truth: fc.oneof(
    { maxDepth: 2 },
    fc
      .tuple(
        fc.constantFrom<Operator>('match', 'member', 'contains', 'stringMatch'),
        part,
        part,
        at,
        fc.boolean(),
      )
      .map(([op, of, from, choice, turned]): Made<Expr> => (named) => {
        const args = [variable(idOf(named, of)), choiceOf(named, from, choice)];
        return call(op, turned ? args.reverse() : args);
      }),
    fc
      .tuple(
        part,
        fc.uniqueArray(at, { minLength: 1, maxLength: 3 }),
        fc.constantFrom<Operator>('multiple', 'ordered'),
      )
      .map(
        ([of, list, op]): Made<Expr> =>
          (named) =>
            call('match', [
              variable(idOf(named, of)),
              call(
                op,
                list.map((c) => choiceOf(named, of, c)),
              ),
            ]),
      ),
    part.map(
      (of): Made<Expr> =>
        (named) =>
          call('match', [variable(idOf(named, of)), { op: 'correct', id: idOf(named, of) }]),
    ),
    part.map(
      (of): Made<Expr> =>
        (named) =>
          call('isNull', [variable(idOf(named, of))]),
    ),
    fc.tuple(part, at, fc.constantFrom(1, 2)).map(
      ([of, choice, n]): Made<Expr> =>
        (named) =>
          call('match', [
            call('index', [variable(idOf(named, of))], { n: String(n) }),
            choiceOf(named, of, choice),
          ]),
    ),
    fc.tuple(part, amounts).map(
      ([of, n]): Made<Expr> =>
        (named) =>
          call('match', [variable(idOf(named, of)), number(n)]),
    ),
    fc.tuple(fc.constantFrom<Operator>('gt', 'lte', 'equal'), tie('amount'), tie('amount')).map(
      ([op, a, b]): Made<Expr> =>
        (named) =>
          call(op, [a(named), b(named)]),
    ),
    fc.tuple(fc.constantFrom<Operator>('and', 'or'), tie('truth'), tie('truth')).map(
      ([op, a, b]): Made<Expr> =>
        (named) =>
          call(op, [a(named), b(named)]),
    ),
    tie('truth').map(
      (a): Made<Expr> =>
        (named) =>
          call('not', [a(named)]),
    ),
  ),
  amount: fc.oneof(
    { maxDepth: 2 },
    amounts.map(
      (n): Made<Expr> =>
        () =>
          number(n),
    ),
    fc.constant<Made<Expr>>(() => variable('SCORE')),
    part.map(
      (of): Made<Expr> =>
        (named) =>
          call('containerSize', [variable(idOf(named, of))]),
    ),
    part.map((of): Made<Expr> => (named) => ({ op: 'mapResponse', id: idOf(named, of) })),
    fc.tuple(fc.constantFrom<Operator>('sum', 'subtract', 'min', 'max'), tie('amount'), tie('amount')).map(
      ([op, a, b]): Made<Expr> =>
        (named) =>
          call(op, [a(named), b(named)]),
    ),
  ),
}));

const rule: fc.Arbitrary<Made<Rule>> = fc.oneof(
  {
    weight: 3,
    arbitrary: fc.tuple(truth, amount, fc.option(amount)).map(
      ([test, then, otherwise]): Made<Rule> =>
        (named) =>
          when(test(named), [set('SCORE', then(named))], otherwise ? [set('SCORE', otherwise(named))] : []),
    ),
  },
  {
    weight: 1,
    arbitrary: fc.tuple(truth, fc.constantFrom('general', 'A', 'wrong')).map(
      ([test, said]): Made<Rule> =>
        (named) =>
          when(test(named), [set('FEEDBACK', value('identifier', said))]),
    ),
  },
  {
    weight: 1,
    arbitrary: amount.map(
      (a): Made<Rule> =>
        (named) =>
          set('SCORE', a(named)),
    ),
  },
);

const drawn: fc.Arbitrary<Drawn> = fc
  .record({
    standard: fc.constantFrom<Item['standard']>('qti1.2', 'qti2'),
    scale: fc.constantFrom(1, 0.5, 2),
    template: fc.constantFrom(null, null, 'match_correct' as const, 'map_response' as const),
    parts: fc.array(
      fc.record({
        kind: fc.constantFrom(
          'choice' as const,
          'choice' as const,
          'order' as const,
          'inlineChoice' as const,
        ),
        cardinality: fc.constantFrom('single' as const, 'multiple' as const, 'ordered' as const),
        limits: fc.constantFrom([0, 0] as const, [0, 1] as const, [1, 2] as const),
        right: fc.uniqueArray(at, { maxLength: 3 }),
        worth: fc.option(fc.array(amounts, { minLength: CHOICES, maxLength: CHOICES })),
        bounds: fc.constantFrom([null, null] as const, [0, null] as const, [0, 1] as const),
        exact: fc.boolean(),
      }),
      { minLength: 1, maxLength: 2 },
    ),
    rules: fc.array(rule, { maxLength: 4 }),
  })
  .map(({ rules, ...rest }) => ({ ...rest, rules: (named) => rules.map((r) => r(named)) }));

const names = (of: fc.Arbitrary<string>, parts: number): fc.Arbitrary<Named> =>
  fc.record({
    responses: fc.uniqueArray(of, { minLength: parts, maxLength: parts }),
    choices: fc.array(fc.uniqueArray(of, { minLength: CHOICES, maxLength: CHOICES }), {
      minLength: parts,
      maxLength: parts,
    }),
  });

/** Items with names for all in them that has one. */
const withNames = (of: fc.Arbitrary<string>): fc.Arbitrary<[Drawn, Named]> =>
  drawn.chain((d) => fc.tuple(fc.constant(d), names(of, d.parts.length)));

function itemOf({ standard, scale, template, parts, rules }: Drawn, named: Named, id: string): Item {
  const body = parts.map((p, k): Interaction => {
    const choices = named.choices[k]!.map((c) => ({ id: c, content: [text(`${id} ${c}`)], fixed: false }));
    const responseId = named.responses[k]!;
    const [minChoices, maxChoices] = p.limits;
    if (p.kind === 'choice') return choiceInteraction({ responseId, choices, minChoices, maxChoices });
    const common = { responseId, prompt: [], shuffle: true, choices };
    return p.kind === 'order'
      ? { kind: 'order', ...common, minChoices, maxChoices }
      : { kind: 'inlineChoice', ...common };
  });
  const whole: readonly Rule[] =
    template === null
      ? rules(named)
      : template === 'match_correct'
        ? [
            when(
              call('match', [variable(named.responses[0]!), { op: 'correct', id: named.responses[0]! }]),
              [set('SCORE', number(1))],
              [set('SCORE', number(0))],
            ),
          ]
        : [set('SCORE', { op: 'mapResponse', id: named.responses[0]! })];
  return make.item({
    id,
    title: id,
    standard,
    scale,
    body,
    responses: parts.map((p, k) => {
      const own = named.choices[k]!;
      const mapping = p.worth && {
        lowerBound: p.bounds[0],
        upperBound: p.bounds[1],
        defaultValue: 0,
        entries: p.worth.map((v, c) => ({ key: own[c]!, value: v, caseSensitive: p.exact })),
      };
      return response(
        named.responses[k]!,
        p.cardinality,
        'identifier',
        p.right.map((c) => own[c]!),
        mapping,
      );
    }),
    outcomes: [outcome('SCORE'), outcome('FEEDBACK', { baseType: 'identifier', defaultValue: [] })],
    scoring: { ...(template ? { template } : {}), rules: whole, untranslated: [] },
  });
}

/** The same item, found out by running itself: an adaptive one has no skeleton, and no other answers. */
const byItself = (item: Item): Item => ({ ...item, adaptive: true });

/** What is the same in every skeleton. */
const SAME_IN_ALL = new Set([
  'prompt',
  'shuffle',
  'content',
  'fixed',
  'areaMapping',
  'lookup',
  'adaptive',
  'untranslated',
]);
/** Fields whose values are words that the code is written in: another one would be no skeleton. */
const WORDS = new Set(['kind', 'do', 'op', 'name', 'standard', 'template']);

/** The skeleton with one name, number or truth in it changed, or the last of a list gone: each there is. */
function* changedOnce(skeleton: Recognisable): Generator<Recognisable> {
  const copy = structuredClone(skeleton) as unknown as Record<string, unknown>;
  function* within(node: Record<string, unknown>): Generator<Recognisable> {
    for (const [field, was] of Object.entries(node)) {
      if (SAME_IN_ALL.has(field) || WORDS.has(field) || (field === 'mapping' && was === null)) continue;
      const to =
        typeof was === 'number'
          ? was + 1
          : typeof was === 'string'
            ? `${was}x`
            : typeof was === 'boolean'
              ? !was
              : 7;
      if (Array.isArray(was) && was.length > 0) {
        node[field] = was.slice(0, -1);
        yield copy as unknown as Recognisable;
        node[field] = was;
      }
      if (typeof was === 'object' && was !== null) yield* within(was as Record<string, unknown>);
      else {
        node[field] = to;
        yield copy as unknown as Recognisable;
        node[field] = was;
      }
    }
  }
  yield* within(copy);
}

const said = (item: Item): string => JSON.stringify([recognise(item), bestOf(item)]);

describe('what is found out of the skeleton of an item', () => {
  it('is what is found out of the item itself, whatever its names are', () => {
    let stripped = 0;
    fc.assert(
      fc.property(withNames(name), ([d, named]) => {
        const item = itemOf(d, named, 'one');
        if (strippedOf(item)) stripped += 1;
        expect(strippedOf(byItself(item))).to.equal(null);
        expect(said({ ...item })).to.equal(said(byItself(item)));
      }),
      { numRuns: 800 },
    );
    // Names that are no names, and comparisons with numbers or within texts, leave enough.
    expect(stripped).to.be.greaterThan(50);
  });

  it('is found once for items that differ in their names and in what is read', () => {
    const plain = fc.stringMatching(/^[a-z]{3}$/u).map((s) => `n${s}`);
    let together = 0;
    fc.assert(
      fc.property(
        drawn.chain((d) =>
          fc.tuple(fc.constant(d), names(plain, d.parts.length), names(plain, d.parts.length)),
        ),
        ([d, first, second]) => {
          // One name for two choices of different responses is another make than two names.
          fc.pre(
            [first, second].every(({ choices }) => new Set(choices.flat()).size === choices.flat().length),
          );
          const [a, b] = [itemOf(d, first, 'a'), itemOf(d, second, 'b')];
          const [one, other] = [strippedOf(a), strippedOf(b)];
          expect(one?.skeleton).to.equal(other?.skeleton);
          if (one) together += 1;
          expect(said(b)).to.equal(said(byItself(b)));
        },
      ),
      { numRuns: 300 },
    );
    expect(together).to.be.greaterThan(50);
  });

  it('does not hold for one of another make: key, worth, limits, standard', () => {
    const base = {
      id: 'one',
      body: [
        choiceInteraction({
          responseId: 'R',
          maxChoices: 1,
          choices: ['A', 'B'].map((id) => ({ id, content: [], fixed: false })),
        }),
      ],
      responses: [response('R', 'multiple', 'identifier', ['A'])],
      outcomes: [outcome('SCORE')],
      scoring: {
        rules: [when(call('member', [value('identifier', 'A'), variable('R')]), [set('SCORE', number(1))])],
        untranslated: [],
      },
    };
    const item = make.item(base);
    const all: Item[] = [
      item,
      make.item({ ...base, responses: [response('R', 'multiple', 'identifier', ['B'])] }),
      make.item({
        ...base,
        scoring: {
          rules: [when(call('member', [value('identifier', 'B'), variable('R')]), [set('SCORE', number(1))])],
          untranslated: [],
        },
      }),
      make.item({
        ...base,
        scoring: {
          rules: [when(call('member', [value('identifier', 'A'), variable('R')]), [set('SCORE', number(2))])],
          untranslated: [],
        },
      }),
      make.item({
        ...base,
        body: [
          choiceInteraction({
            responseId: 'R',
            maxChoices: 0,
            choices: ['A', 'B'].map((id) => ({ id, content: [], fixed: false })),
          }),
        ],
      }),
      make.item({ ...base, standard: item.standard === 'qti2' ? 'qti1.2' : 'qti2' }),
      make.item({ ...base, scale: 3 }),
    ];
    const skeletons = all.map((i) => strippedOf(i)!.skeleton);
    expect(new Set(skeletons).size).to.equal(all.length);
    expect(recognise(all[2]!).key).to.deep.equal({ R: ['B'] });
  });

  it('says all that stands in it: nothing in it can be another without its text being another', () => {
    let changed = 0;
    fc.assert(
      fc.property(withNames(name), ([d, named]) => {
        const skeleton = strippedOf(itemOf(d, named, 'one'))?.skeleton;
        fc.pre(skeleton !== undefined);
        const before = skeletonText(skeleton!);
        for (const other of changedOnce(skeleton!)) {
          changed += 1;
          expect(skeletonText(other), JSON.stringify(other)).to.not.equal(before);
        }
      }),
      { numRuns: 60 },
    );
    expect(changed).to.be.greaterThan(1000);
  });
});
