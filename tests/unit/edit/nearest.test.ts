import { readFile } from 'node:fs/promises';
import { expect } from 'chai';
import fc from 'fast-check';
import {
  allRepairs,
  applyEdits,
  changesScores,
  evaluate,
  forecast,
  interactionsOf,
  mend,
  NEAREST,
  optionSets,
  plain,
  readHolding,
  recognise,
  walk,
  type Answers,
  type Holding,
  type Item,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { demoFiles } from '../../../demo/packages.ts';
import { readAll } from '../../support/losses.ts';
import { writeHolding } from '@alforja/core';
import { template21 } from '../../support/read.ts';
import { declared, edited, item21, mappingOf, refusals } from './support.ts';

const ids = (n: number): string[] => Array.from({ length: n }, (_, at) => `c${at}`);

/** Things to put in order. */
const order21 = (right: readonly string[], shuffle: boolean): Promise<Holding> =>
  item21(
    `${declared('ordered', 'identifier', right)}<itemBody><orderInteraction responseIdentifier="RESPONSE" shuffle="${shuffle}">` +
      `<prompt>From north to south</prompt>${[...right]
        .sort()
        .map((c) => `<simpleChoice identifier="${c}">Harbour ${c}</simpleChoice>`)
        .join('')}</orderInteraction></itemBody>${template21('match_correct')}`,
  );

/** Things to pair with one another; with values, each pair gives its own. */
const associate21 = (
  n: number,
  pairs: readonly string[],
  values: readonly number[] | null,
): Promise<Holding> => {
  const mapping = values ? mappingOf(Object.fromEntries(pairs.map((p, at) => [p, values[at]!]))) : '';
  return item21(
    `${declared('multiple', 'pair', pairs, mapping)}<itemBody>` +
      `<associateInteraction responseIdentifier="RESPONSE" shuffle="true" maxAssociations="${n}"><prompt>Pair them</prompt>${ids(
        n,
      )
        .map(
          (c) =>
            `<simpleAssociableChoice identifier="${c}" matchMax="${n}">Light ${c}</simpleAssociableChoice>`,
        )
        .join('')}</associateInteraction></itemBody>${template21(values ? 'map_response' : 'match_correct')}`,
  );
};

/** The letters that stand before what is to be ordered, as students read them. */
function lettersOf(item: Item): ReadonlyMap<string, string> {
  const found = new Map<string, string>();
  walk(item.body, (n) => {
    const said =
      n.kind === 'element' && n.name === 'div' ? /^([A-Z])\. Harbour (\S+)$/u.exec(plain([n])) : null;
    if (said) found.set(said[2]!, said[1]!);
  });
  return found;
}

const permutations = (of: readonly string[]): string[][] =>
  of.length < 2
    ? [[...of]]
    : of.flatMap((c) => permutations(of.filter((o) => o !== c)).map((rest) => [c, ...rest]));

const score = (item: Item, answers: Answers): number => evaluate(item, answers).score;

describe('the nearest kind', () => {
  it('scores an order that is typed as one that is dragged, for every order there is', () =>
    fc.assert(
      fc.asyncProperty(
        fc
          .integer({ min: 2, max: 5 })
          .chain((n) => fc.shuffledSubarray(ids(n), { minLength: n, maxLength: n })),
        fc.boolean(),
        async (right, shuffle) => {
          const holding = await order21(right, shuffle);
          const { item } = edited(holding, { op: 'kind', node: 'i1', from: 'order', to: 'textEntry' });
          const letters = lettersOf(item);
          expect([...letters.keys()].sort()).to.deep.equal([...right].sort());
          for (const given of [...permutations(right), right.slice(1), []]) {
            const typed = given.map((c) => letters.get(c)!);
            const before = score(holding.items[0]!, { RESPONSE: given });
            for (const way of [
              typed.join(''),
              typed.join(' '),
              typed.join(', '),
              typed.join('').toLowerCase(),
            ])
              expect(score(item, { RESPONSE: [way] }), way).to.equal(before);
          }
          // Read from top to bottom, what students see is not the answer.
          if (shuffle) expect([...letters.keys()]).to.not.deep.equal(right);
        },
      ),
      { numRuns: 60 },
    ));

  it('keeps an order that scores in part as it is', async () => {
    const holding = await order21(['c1', 'c0', 'c2'], false);
    const partly: Holding = {
      ...holding,
      items: holding.items.map((i) => ({
        ...i,
        scoring: {
          untranslated: [],
          rules: [
            {
              do: 'if' as const,
              branches: [
                {
                  when: {
                    op: 'call' as const,
                    name: 'match' as const,
                    args: [
                      {
                        op: 'call' as const,
                        name: 'index' as const,
                        args: [{ op: 'variable' as const, id: 'RESPONSE' }],
                        attrs: { n: '1' },
                      },
                      { op: 'baseValue' as const, baseType: 'identifier' as const, value: 'c1' },
                    ],
                  },
                  then: [
                    {
                      do: 'set' as const,
                      id: 'SCORE',
                      value: { op: 'baseValue' as const, baseType: 'float' as const, value: 1 },
                    },
                  ],
                },
              ],
              otherwise: [],
            },
          ],
        },
      })),
    };
    expect(refusals(partly, { op: 'kind', node: 'i1', from: 'order', to: 'textEntry' })).to.have.length(1);
  });

  it('scores pairs without direction the same in two lists, each by itself and all together', () =>
    fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 2, max: 3 }),
        fc.boolean(),
        fc.boolean(),
        fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 3, maxLength: 3 }),
        async (count, mapped, turned, values) => {
          const n = count * 2 + 1;
          const pairs = Array.from({ length: count }, (_, at) =>
            turned ? `c${2 * at + 1} c${2 * at}` : `c${2 * at} c${2 * at + 1}`,
          );
          const holding = await associate21(n, pairs, mapped ? values.slice(0, count) : null);
          const { item } = edited(holding, { op: 'kind', node: 'i1', from: 'associate', to: 'match' });
          const [match] = interactionsOf(item);
          const [left = [], right = []] = optionSets(match!).map((s) => s.map((o) => o.id));
          expect([...left, ...right].sort()).to.deep.equal(ids(n).sort());
          expect(left).to.have.length(count);
          const before = holding.items[0]!;
          const all = left.flatMap((l) => right.map((r) => `${l} ${r}`));
          for (const pair of all)
            expect(score(item, { RESPONSE: [pair] }), pair).to.equal(score(before, { RESPONSE: [pair] }));
          const key = pairs.map((p) => {
            const [a, b] = p.split(' ');
            return left.includes(a!) ? `${a} ${b}` : `${b} ${a}`;
          });
          expect(score(item, { RESPONSE: key })).to.equal(score(before, { RESPONSE: pairs }));
          expect(score(item, { RESPONSE: key })).to.equal(before.points);
        },
      ),
      { numRuns: 40 },
    ));

  it('does not part a ring of three into two lists', async () => {
    const holding = await associate21(3, ['c0 c1', 'c1 c2', 'c2 c0'], [1, 1, 1]);
    expect(refusals(holding, { op: 'kind', node: 'i1', from: 'associate', to: 'match' })).to.deep.equal([
      'scoring-other',
    ]);
  });

  it('is one kind for each: another is refused, and so is what the item does not ask', async () => {
    const holding = await order21(['c0', 'c1'], false);
    expect(
      refusals(
        holding,
        { op: 'kind', node: 'i1', from: 'order', to: 'choice' },
        { op: 'kind', node: 'i1', from: 'slider', to: 'textEntry' },
      ),
    ).to.deep.equal(['scoring-other', 'scoring-other']);
  });
});

describe('the document of edits', () => {
  it('names every kind that has a nearest one, and which it is', async () => {
    const text = await readFile(new URL('../../../docs/edits.md', import.meta.url), 'utf8');
    const rows = [...text.matchAll(/^\| (`\w+`(?:, `\w+`)*) \| `(\w+)` \|/gmu)].flatMap(([, from, to]) =>
      from!.split(', ').map((f) => [f.replaceAll('`', ''), to!] as const),
    );
    for (const [from, to] of Object.entries(NEAREST)) expect(rows).to.deep.include([from, to]);
  });
});

describe('one of every kind, for a target that lacks most of them', () => {
  const { bytes } = demoFiles().find((f) => f.name === 'every-kind.zip')!;
  const every = (): Promise<Holding> => readHolding('every-kind.zip', bytes, nodePlatform);
  /** Where a point lies in a picture cannot be asked otherwise without giving it away. */
  const POINTED = ['kind-positionObject', 'kind-selectPoint'];

  it('loses only what points into a picture', async () => {
    const holding = await every();
    const { holding: mended } = mend(holding, 'all', [], (h) => allRepairs(h, 'cc1.3'));
    const left = forecast(mended, 'cc1.3');
    expect(left.map((f) => f.where.node).sort()).to.deep.equal(POINTED);
    expect(forecast(holding, 'cc1.3').length).to.be.greaterThan(20);
  });

  it('scores everybody as before where it says so: the most that can be had stays', async () => {
    const holding = await every();
    for (const repair of allRepairs(holding, 'cc1.3')) {
      const item = holding.items.find((i) => i.id === repair.node);
      if (!item || changesScores(repair)) continue;
      const { holding: after, refused } = applyEdits(holding, repair.edits);
      expect(refused, item.id).to.deep.equal([]);
      const parts = after.items.filter((i) => i.id === item.id || i.id.startsWith(`${item.id}-`));
      const most = parts.reduce((sum, i) => sum + recognise(i).best.raw * i.scale, 0);
      expect(most, item.id).to.be.closeTo(recognise(item).best.raw * item.scale, 1e-9);
    }
  });

  it('arrives as it was planned', async () => {
    const holding = await every();
    const { holding: mended } = mend(holding, 'all', [], (h) => allRepairs(h, 'cc1.3'));
    const items = mended.items.filter((i) => !POINTED.includes(i.id));
    const back = await readAll(
      writeHolding(
        { ...mended, items, quizzes: [], outline: [] },
        'cc1.3',
        (path) => (path === '' ? null : new Uint8Array([1])),
        nodePlatform,
      ).packages,
    );
    const known = new Map(back.items.map((i) => [i.id, i]));
    for (const item of items) {
      const arrived = known.get(item.id);
      expect(arrived, item.id).to.not.equal(undefined);
      expect(recognise(arrived!).key, item.id).to.deep.equal(recognise(item).key);
    }
  });
});
