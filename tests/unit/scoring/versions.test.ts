import { expect } from 'chai';
import fc from 'fast-check';
import {
  choicesOf,
  compareHoldings,
  everything,
  inspectReport,
  quizPoints,
  recognise,
  scoreQuiz,
  setItems,
  versionHolding,
  letterOf,
  versionsOf,
  versionTable,
  writeHolding,
  type Holding,
  type Quiz,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { assessmentXml, bankXml, PLAIN } from '../../../demo/qti12.ts';
import { replicaPackage } from '../../../demo/replicas.ts';
import type { ItemSpec } from '../../../demo/items.ts';
import { anyHolding } from '../../support/arbitraries.ts';
import { distanceItem } from '../../support/parameters.ts';
import { NS21, read, readZip } from '../../support/read.ts';
import { settleDraws } from '../../../core/src/reading/settle.ts';
import { settlePoints } from '../../support/settled.ts';

const question = (id: string, points = 1): ItemSpec => ({
  kind: 'single',
  id,
  points,
  shuffle: true,
  stem: `<p>What does the mark of the ${id} say?</p>`,
  choices: [
    { text: `${id} one`, right: true },
    { text: `${id} two` },
    { text: `${id} three` },
    { text: `${id} four` },
    { text: 'None of these', pinned: true },
  ],
});
const still = (spec: ItemSpec): ItemSpec => (spec.kind === 'single' ? { ...spec, shuffle: false } : spec);
const words = (count: number): string[] =>
  Array.from({ length: count }, (_, at) => `w${'abcdefghijklmnopqrstuvwxyz'[at]}`);

/** Ten of 22 at two points each, and five for everybody. */
const exam = (): Promise<Holding> =>
  readZip({
    'quiz.xml': assessmentXml(
      {
        id: 'exam',
        title: 'Exam',
        items: words(5).map((w) => question(`f${w}`, 2)),
        draws: [{ title: 'Chapter 2', bank: 'bank', pick: 10, pointsEach: 2 }],
      },
      PLAIN,
    ),
    'bank.xml': bankXml(
      'bank',
      words(22).map((w) => question(w)),
      PLAIN,
      'Chapter 2',
    ),
  });

const idsOf = (quiz: Quiz): string[] => quiz.sections.flatMap((s) => s.items.map((r) => r.item));

describe('versions', () => {
  it('are called as columns of a table are', () => {
    expect([0, 1, 25, 26, 27, 51, 52, 701, 702].map(letterOf)).to.deep.equal([
      'A',
      'B',
      'Z',
      'AA',
      'AB',
      'AZ',
      'BA',
      'ZZ',
      'AAA',
    ]);
  });

  it('are worth the same, follow from the seed, and keep fixed choices in their place', async () => {
    const holding = await exam();
    const [quiz] = holding.quizzes;
    const { versions } = versionsOf(holding, quiz!, 4, 'spring');
    for (const v of versions) {
      expect(v.points).to.equal(30);
      expect(quizPoints(v.quiz, new Map(v.items.map((i) => [i.id, i])))).to.equal(30);
      expect(idsOf(v.quiz)).to.have.length(15);
      for (const { id, choices } of versionTable(v)) {
        const before = choicesOf(holding.items.find((i) => i.id === id)!).map((c) => c.id);
        expect(choices.at(-1)).to.equal(before.at(-1));
        expect([...choices].sort()).to.deep.equal([...before].sort());
      }
    }
    expect(versionsOf(holding, quiz!, 4, 'spring').versions.map(versionTable)).to.deep.equal(
      versions.map(versionTable),
    );
    expect(versionsOf(holding, quiz!, 4, 'autumn').versions.map(versionTable)).to.not.deep.equal(
      versions.map(versionTable),
    );
  });

  it('share no drawn item with the one beside it where the pool allows, and say what the least is', async () => {
    const holding = await exam();
    const two = versionsOf(holding, holding.quizzes[0]!, 2, 'x');
    expect(two.sharing.map((s) => s.items)).to.deep.equal([{ shared: 5, least: 5 }]);
    // 22 hold two draws of ten and two more: a third has to share.
    const three = versionsOf(holding, holding.quizzes[0]!, 3, 'x');
    expect(three.sharing.map((s) => s.versions.join(''))).to.deep.equal(['AB', 'BC', 'CA']);
    const shared = three.sharing.map((s) => s.items.shared - 5);
    expect(shared[0]).to.equal(0);
    expect(shared[1]! + shared[2]!, 'eight of ten have to come from A or B').to.equal(8);
    for (const s of three.sharing) expect(s.choices.shared).to.equal(s.choices.least);
  });

  it('come back from every format with the items, points and orders they were written with', async () => {
    const holding = await exam();
    const [version] = versionsOf(holding, holding.quizzes[0]!, 1, 'x').versions;
    const planned = everything(versionHolding(holding, version!)).holding;
    for (const target of ['qti1.2', 'qti2.1', 'qti3.0', 'cc1.3'] as const) {
      const { packages } = writeHolding(planned, target, () => null, nodePlatform);
      const back = await read(packages[0]!, 'v.zip');
      const report = inspectReport(back);
      expect([report.quizzes[0]!.points, report.quizzes[0]!.items], target).to.deep.equal([30, 15]);
      expect(
        report.items.map((i) => i.points),
        target,
      ).to.deep.equal(report.items.map(() => 2));
      expect(compareHoldings(planned, back).counts, target).to.include({ intact: 15, altered: 0 });
    }
  });

  it('of a quiz that shuffles nothing differ in what is drawn alone', async () => {
    const holding = await readZip({
      'quiz.xml': assessmentXml(
        {
          id: 'q',
          title: 'Q',
          items: [still(question('a')), still(question('b'))],
        },
        PLAIN,
      ),
    });
    const { versions, sharing } = versionsOf(holding, holding.quizzes[0]!, 2, 'x');
    expect(versions.map(versionTable)[0]).to.deep.equal(versions.map(versionTable)[1]);
    const [s] = sharing;
    expect([s!.items, s!.places, s!.choices]).to.deep.equal([
      { shared: 2, least: 2 },
      { shared: 2, least: 2 },
      { shared: 10, least: 10 },
    ]);
  });

  it('of replicas set one of each exercise, another one to the neighbour', async () => {
    const holding = await read(replicaPackage(), 'exercises.zip');
    const { versions, sharing } = versionsOf(holding, holding.quizzes[0]!, 3, 'row');
    for (const v of versions)
      expect(idsOf(v.quiz).map((id) => id.split('-')[0])).to.deep.equal(
        [1, 2, 3, 4, 5, 6, 7].map((n) => `ex${n}`),
      );
    expect(sharing.map((s) => s.items.shared)).to.deep.equal([0, 0, 0]);
  });

  it('fill in parameters: each version has its own numbers and its own key', async () => {
    const holding = await readZip({
      'run.xml': distanceItem(),
      'test.xml': `<assessmentTest ${NS21} identifier="t" title="T"><testPart identifier="p" navigationMode="linear" submissionMode="individual"><assessmentSection identifier="s" title="S" visible="true"><assessmentItemRef identifier="run" href="run.xml"/></assessmentSection></testPart></assessmentTest>`,
    });
    const { versions } = versionsOf(holding, holding.quizzes[0]!, 4, 'x');
    const keys = versions.map((v) => JSON.stringify(recognise(v.items[0]!).key));
    expect(new Set(keys).size).to.be.greaterThan(1);
    expect(versions.every((v) => v.items[0]!.templates.length === 0)).to.equal(true);
  });

  it('of any quiz set what the quiz sets, and its best answers give its points', () => {
    const settled = anyHolding.map((h): Holding => {
      const items = settlePoints(h.items, h.quizzes);
      return { ...h, items, quizzes: settleDraws(h.quizzes, items) };
    });
    fc.assert(
      fc.property(settled, fc.string(), fc.integer({ min: 1, max: 5 }), (holding, seed, count) => {
        const quiz = holding.quizzes[0]!;
        const wanted = quiz.sections.reduce(
          (sum, s) => sum + Math.min(s.draw?.pick ?? 0, s.draw?.pool.length ?? 0) - (s.draw?.pick ?? 0),
          setItems(quiz),
        );
        const { versions, sharing } = versionsOf(holding, quiz, count, seed);
        expect(versions).to.have.length(count);
        for (const v of versions) {
          expect(idsOf(v.quiz)).to.have.length(wanted);
          const best = new Map(v.items.map((i) => [i.id, recognise(i).best.answers]));
          const reached = v.items.every((i) => i.pointsExact && recognise(i).best.raw > 0);
          if (reached) expect(scoreQuiz(v.quiz, v.items, best).total).to.be.closeTo(v.points, 1e-6);
        }
        for (const s of sharing) {
          expect(s.choices.shared).to.be.at.least(s.choices.least);
        }
      }),
      { numRuns: 60 },
    );
  });
});
