import { expect } from 'chai';
import {
  applyEdits,
  fairnessOf,
  matchItems,
  secondsFor,
  simulate,
  writeHolding,
  type Edit,
  type Holding,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { assessmentXml, bankXml, PLAIN } from '../../../demo/qti12.ts';
import { LIGHTS_BANK, TIDAL_EXAM } from '../../../demo/items.ts';
import { NS21, itemXml21, read, readZip, SCORE21, template21 } from '../../support/read.ts';

const exam = (): Promise<Holding> =>
  readZip({
    'quiz.xml': assessmentXml(
      {
        id: 'exam',
        title: 'Exam',
        items: TIDAL_EXAM,
        draws: [{ title: 'Lights', bank: 'b', pick: 5, pointsEach: 2 }],
      },
      PLAIN,
    ),
    'bank.xml': bankXml('b', LIGHTS_BANK, PLAIN, 'Lights'),
  });

const both = (source: Holding, arrived: Holding, candidates = 200) => {
  const { pairs } = matchItems(source.items, arrived.items);
  const partners = new Map(pairs.map((p) => [p.source.id, p.arrived.id]));
  return simulate(
    { holding: source, quiz: source.quizzes[0]! },
    { holding: arrived, quiz: arrived.quizzes[0]! },
    partners,
    { candidates, seed: 'x' },
  );
};
const edited = (holding: Holding, ...edits: Edit[]): Holding => applyEdits(holding, edits).holding;

describe('simulated candidates on both sides', () => {
  it('score the same on what came back from every format, whatever its identifiers', async () => {
    const source = await exam();
    for (const target of ['qti1.2', 'qti2.1', 'qti3.0'] as const) {
      const back = await read(
        writeHolding(source, target, () => new Uint8Array([1]), nodePlatform).packages[0]!,
        'b.zip',
      );
      const { differing, items, totals } = both(source, back);
      expect([target, differing, items]).to.deep.equal([target, 0, []]);
      expect(totals.arrived).to.deep.equal(totals.source);
    }
  });

  it('the first of whom knows everything, the second hands in nothing', async () => {
    const source = await exam();
    const { totals } = both(source, source, 2);
    const most = source.items
      .filter((i) => i.points > 0 && i.id.startsWith('tide'))
      .reduce((n, i) => n + i.points, 0);
    expect(totals.source.values[0]).to.equal(0);
    // Essays are marked by a person: nobody is given points for them here.
    expect(totals.source.values.at(-1)).to.be.within(most * 0.7, most + 10);
  });

  it('name the items that a difference comes from, those that tell most first', async () => {
    const source = await exam();
    const tolerant = edited(
      source,
      { op: 'points', node: 'tide-02', to: 9 },
      { op: 'tolerance', node: 'tide-03', to: null },
    );
    const { differing, items, totals } = both(source, tolerant);
    expect(differing).to.be.greaterThan(50);
    expect(items.map((i) => i.source)).to.include.members(['tide-02']);
    expect(items[0]).to.include({ source: 'tide-02', mean: 6 });
    expect(totals.arrived.mean).to.be.greaterThan(totals.source.mean);
  });

  it('miss what did not arrive', async () => {
    const source = await exam();
    const { items } = both(source, edited(source, { op: 'leave-out', node: 'tide-02', kind: 'item' }));
    expect(items.map((i) => [i.source, i.arrived, i.mean])).to.deep.equal([['tide-02', null, -3]]);
  });

  it('are the same for the same seed', async () => {
    const source = await exam();
    expect(both(source, source)).to.deep.equal(both(source, source));
  });
});

describe('fairness', () => {
  const question = (id: string): string =>
    itemXml21(
      id,
      `<responseDeclaration identifier="R" cardinality="single" baseType="string"><correctResponse><value>x</value></correctResponse></responseDeclaration>${SCORE21}<itemBody><p>${id} <textEntryInteraction responseIdentifier="R"/></p></itemBody>${template21('match_correct')}`,
    );
  const ref = (id: string, more = ''): string =>
    `<assessmentItemRef identifier="${id}" href="${id}.xml" ${more}/>`;
  const test = async (inside: string) => {
    const names = ['a', 'b', 'c', 'd', 'e', 'f'];
    const { quizzes, items } = await readZip({
      ...Object.fromEntries(names.map((n) => [`${n}.xml`, question(n)])),
      'test.xml': `<assessmentTest ${NS21} identifier="t" title="T"><testPart identifier="p" navigationMode="linear" submissionMode="individual">${inside}</testPart></assessmentTest>`,
    });
    return fairnessOf(quizzes[0]!, items);
  };
  const section = (id: string, inside: string): string =>
    `<assessmentSection identifier="${id}" title="${id}" visible="true">${inside}</assessmentSection>`;

  it('of plain draws is counted, of draws that depend on more it is drawn, with the seed it was drawn by', async () => {
    const plain = await test(section('s', `<selection select="2"/>${ref('a')}${ref('b')}${ref('c')}`));
    expect([plain.exact, plain.candidates, plain.seed]).to.deep.equal([true, null, null]);
    // One of two sections is drawn: of two items or of one.
    const nested = await test(
      section('o', `<selection select="1"/>${section('s', ref('a') + ref('b'))}${section('t', ref('c'))}`),
    );
    expect([nested.exact, nested.candidates, nested.seed]).to.deep.equal([false, 10_000, '1']);
    expect(nested.total.values).to.deep.equal([1, 2]);
    expect(nested.total.mean).to.be.closeTo(1.5, 0.03);
    const met = new Map(nested.met.map((m) => [m.item, m.chance]));
    expect(met.get('a')).to.be.closeTo(0.5, 0.03);
    const required = await test(
      section('s', `<selection select="2"/>${ref('a', 'required="true"')}${ref('b')}${ref('c')}`),
    );
    expect(required.met.find((m) => m.item === 'a')!.chance).to.be.closeTo(1, 1e-9);
  });

  it('counts minutes by what there is to read and to answer', async () => {
    const [short, essay] = [TIDAL_EXAM[0]!, TIDAL_EXAM.find((i) => i.kind === 'essay')!];
    const { items } = await readZip({
      'q.xml': assessmentXml({ id: 'q', title: 'Q', items: [short, essay] }, PLAIN),
    });
    expect(secondsFor(items[0]!)).to.be.within(30, 180);
    expect(secondsFor(items[1]!)).to.be.within(240, 900);
  });
});
