import { expect } from 'chai';
import fc from 'fast-check';
import {
  applyEdits,
  compareHoldings,
  differencesOf,
  familiesOf,
  inspectReport,
  make,
  pouchRows,
  writeHolding,
  type Comparison,
  type Holding,
  type Item,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { replicaPackage, type ReplicaOptions } from '../../../demo/replicas.ts';
import { codes, read } from '../../support/read.ts';

const exercises = (seed = 1, options: ReplicaOptions = {}): Promise<Holding> =>
  read(replicaPackage(seed, options), 'exercises.zip');
const changed = ({ families }: Comparison): string[] =>
  families.filter((f) => f.state !== 'intact').map((f) => `${f.title} ${f.state}`);

const asked = (id: string, text: string, choices: readonly string[] = [], title = ''): Item =>
  make.item({
    id,
    title,
    body: [
      make.element('p', [make.text(text)]),
      ...(choices.length === 0
        ? []
        : [
            make.choiceInteraction({
              responseId: 'R',
              choices: choices.map((c, at) => ({ id: `c${at}`, content: [make.text(c)], fixed: false })),
            }),
          ]),
    ],
    responses: choices.length === 0 ? [] : [make.response('R', 'single', 'identifier', ['c0'])],
  });
const familiesIn = (...items: Item[]): string[][] =>
  familiesOf({ items, quizzes: [] }).map((f) => f.items.map((i) => i.id));
const varies = (...items: Item[]) => familiesOf({ items, quizzes: [] })[0]?.varies;

describe('families', () => {
  it('21 replicas of 7 exercises are 7 families, whatever their seed', async () => {
    for (const seed of [1, 2, 3, 4, 5, 6, 7, 8]) {
      const { families } = inspectReport(await exercises(seed));
      expect(
        families.map((f) => f.title),
        `seed ${seed}`,
      ).to.deep.equal([1, 2, 3, 4, 5, 6, 7].map((n) => `Exercise ${n}`));
      expect(families.every((f) => f.items.length === 3 && f.varies.length > 0)).to.equal(true);
    }
  });

  it('say in what they differ', () => {
    expect(varies(asked('a', 'Add 2 and 3.'), asked('b', 'Add 4 and 9.'))).to.deep.equal(['numbers']);
    expect(
      varies(
        asked('a', 'Then Anouk runs at 7 knots for an hour or so. How far does Anouk come?'),
        asked('b', 'Then Emre runs at 9 knots for an hour or so. How far does Emre come?'),
      ),
    ).to.deep.equal(['numbers', 'names']);
    expect(
      varies(
        asked('a', 'Which is a light?', ['x', 'y', 'z', 'w']),
        asked('b', 'Which is a light?', ['y', 'x', 'w', 'z']),
      ),
    ).to.deep.equal(['choice-order']);
    expect(
      varies(
        asked('a', 'Which is a light?', ['x', 'y', 'z', 'w']),
        asked('b', 'Which is a light?', ['x', 'v', 'z', 'u']),
      ),
    ).to.deep.equal(['choices']);
    expect(
      varies(asked('a', '二十四時間で 5 海里進む。'), asked('b', '二十四時間で 8 海里進む。')),
    ).to.deep.equal(['numbers']);
    expect(varies(asked('a', 'كم ميلا في ٣ ساعات؟'), asked('b', 'كم ميلا في ٤ ساعات؟'))).to.deep.equal([
      'numbers',
    ]);
  });

  it('are not what only looks alike', () => {
    for (const [a, b] of [
      // Equal items are doubles, not replicas.
      [asked('a', 'Add 2 and 3.'), asked('b', 'Add 2 and 3.')],
      // Another word is another question.
      [asked('a', 'A boat goes north at 5 knots.'), asked('b', 'A boat goes south at 5 knots.')],
      [asked('a', 'What is 3 + 4?'), asked('b', 'What is 3 * 4?')],
      // A name in a short text is what is asked about.
      [asked('a', 'What is the capital of Avalor?'), asked('b', 'What is the capital of Brenn?')],
      // Common words over other choices.
      [asked('a', 'Which is right?', ['a', 'b', 'c']), asked('b', 'Which is right?', ['d', 'e', 'f'])],
      [asked('a', 'In 1492?', ['a', 'b']), asked('b', 'In 1776?', ['c', 'd'])],
      [asked('a', 'Question'), asked('b', '')],
    ] as const)
      expect(familiesIn(a, b), JSON.stringify([a.body, b.body])).to.deep.equal([]);
  });

  it('whose choices are all others are known by numbered titles that only they have', () => {
    const a = asked('a', 'Which of these is right?', ['a', 'b', 'c'], 'Lights, no. 1');
    const b = asked('b', 'Which of these is right?', ['d', 'e', 'f'], 'Lights, no. 2');
    expect(familiesIn(a, b)).to.deep.equal([['a', 'b']]);
    expect(
      familiesIn(a, b, asked('c', 'And now?', [], 'Lights, no. 3')),
      'titles of other questions, too',
    ).to.deep.equal([]);
  });

  it('are found whatever numbers stand in a text, and in no time among many', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -1e6, max: 1e6 }), { minLength: 2, maxLength: 6 }),
        (numbers) => {
          const items = numbers.map((n, at) => asked(`i${at}`, `The log shows ${n} miles at noon.`));
          const distinct = new Set(numbers).size > 1;
          expect(familiesIn(...items)).to.deep.equal(distinct ? [items.map((i) => i.id)] : []);
        },
      ),
    );
  });

  it('are not near duplicates of one another', async () => {
    expect(codes(await exercises())).to.not.include('near-duplicate-items');
  });
});

describe('families across sides', () => {
  it('that were reseeded are one fact each, and one line of what differs', async () => {
    const source = await exercises();
    const arrived = await exercises(1, { reseeded: [0, 4] });
    const comparison = compareHoldings(source, arrived);
    expect(changed(comparison)).to.deep.equal(['Exercise 1 reseeded', 'Exercise 5 reseeded']);
    expect([comparison.verdict, comparison.counts.altered]).to.deep.equal(['altered', 6]);
    const facts = {
      comparison,
      left: pouchRows(source.items),
      right: pouchRows(arrived.items),
      names: {},
      landing: null,
    };
    expect(differencesOf(facts).map((d) => d.subject.about)).to.deep.equal(['family', 'family']);
  });

  it('are reseeded under other identifiers and in another format, too', async () => {
    const source = await exercises();
    const other = await exercises(1, { reseeded: [0, 1, 2, 3, 6] });
    const renamed = { ...other, items: other.items, findings: [] };
    const { packages } = writeHolding(renamed, 'qti2.1', () => new Uint8Array([1]), nodePlatform);
    const back = await read(packages[0]!, 'back.zip');
    const comparison = compareHoldings(source, { ...back, files: source.files });
    expect(changed(comparison)).to.deep.equal([1, 2, 3, 4, 7].map((n) => `Exercise ${n} reseeded`));
  });

  for (const stale of [0, 1, 3, 6])
    it(`name the replica of exercise ${stale + 1} whose key did not follow its numbers`, async () => {
      const arrived = await exercises(1, { stale });
      const comparison = compareHoldings(await exercises(), arrived);
      expect(changed(comparison)).to.deep.equal([`Exercise ${stale + 1} altered`]);
      expect(comparison.families[stale]!.stale.map((s) => s.item)).to.deep.equal([`ex${stale + 1}-r2`]);
    });

  it('that lost points, or one of their own, are no longer the same exercise', async () => {
    const source = await exercises();
    const other = await exercises(1, { reseeded: [0] });
    const worse = applyEdits(other, [{ op: 'points', node: 'ex1-r1', to: 9 }]).holding;
    expect(changed(compareHoldings(source, worse))).to.deep.equal(['Exercise 1 altered']);
    const fewer = applyEdits(other, [{ op: 'leave-out', node: 'ex1-r1', kind: 'item' }]).holding;
    const [first] = compareHoldings(source, fewer).families;
    expect([first!.state, first!.missing]).to.deep.equal(['altered', 1]);
  });
});

describe('data that a link carries in itself', () => {
  const item = (href: string): string =>
    `<questestinterop><item ident="i" title="I"><presentation><material><mattext texttype="text/html">${`<p>See <a href="${href}">the data</a>.</p>`.replace(/&/gu, '&amp;').replace(/</gu, '&lt;')}</mattext></material></presentation></item></questestinterop>`;

  it('becomes a file that travels and is compared by its bytes', async () => {
    const csv = 'hour,height\n0,1.5\n';
    const one = await read(item(`data:text/csv;charset=utf-8;base64,${btoa(csv)}`));
    const same = await read(item(`data:text/csv,${encodeURIComponent(csv)}`));
    const other = await read(item(`data:text/csv;base64,${btoa(`${csv}1,1.9\n`)}`));
    expect(one.files.map((f) => [f.path.endsWith('.csv'), f.bytes])).to.deep.equal([[true, csv.length]]);
    expect(compareHoldings(one, same).verdict).to.equal('intact');
    const [pair] = compareHoldings(one, other).pairs;
    expect(pair!.differences.map((d) => d.facet)).to.deep.equal(['files']);
    const { packages } = writeHolding(one, 'qti2.1', () => null, nodePlatform);
    expect(compareHoldings(one, await read(packages[0]!, 'b.zip')).verdict).to.equal('intact');
  });

  it('of a kind that runs, or is broken, is taken out and named', async () => {
    for (const href of [
      'data:text/html,<script>1</script>',
      'data:image/svg+xml;base64,PHN2Zy8+',
      'data:text/csv,%E0%A4%A',
      'data:text/csv;base64,§§',
    ]) {
      const holding = await read(item(href.replace(/</gu, '%3C')));
      expect(holding.files, href).to.deep.equal([]);
      expect(codes(holding), href).to.include('active-content-removed');
    }
  });
});
