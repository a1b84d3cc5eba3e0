import { expect } from 'chai';
import {
  applyEdits,
  compareHoldings,
  inspectReport,
  quizItems,
  readHolding,
  writeHolding,
  type Holding,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { assessmentXml, bankXml, document as qti12, itemXml, PLAIN } from '../../../demo/qti12.ts';
import { NS21, readZip } from '../../support/read.ts';
import { refusals } from './support.ts';

const spec = (id: string, points = 1, category = 'Tides') =>
  ({
    kind: 'single',
    id,
    title: `Item ${id}`,
    points,
    category,
    stem: `<p>Question ${id} of the tides and its own words ${id}${id}</p>`,
    choices: [{ text: `Right ${id}`, right: true }, { text: `Wrong ${id}` }],
  }) as const;

/** A quiz of two fixed items and a draw of two from a bank of four; another bank; QTI 1.2. */
const course12 = (): Promise<Holding> =>
  readZip({
    'quiz.xml': assessmentXml(
      {
        id: 'q',
        title: 'Midterm',
        items: [spec('f1'), spec('f2')],
        draws: [{ title: 'Drawn', bank: 'b', pick: 2, pointsEach: 1 }],
        fields: { cc_maxattempts: 2, qmd_timelimit: 40 },
      },
      PLAIN,
    ),
    'bank.xml': bankXml(
      'b',
      ['b1', 'b2', 'b3', 'b4'].map((id) => spec(id)),
      PLAIN,
      'Tides',
    ),
    'other.xml': bankXml('c', [spec('c1', 2, 'Lights'), spec('c2', 2, 'Buoys')], PLAIN, 'Marks'),
  });

const item21 = (id: string): string =>
  `<assessmentItem ${NS21} identifier="${id}" title="Item ${id}" adaptive="false" timeDependent="false"><responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>A</value></correctResponse></responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><p>Question ${id} in words of its own ${id}</p><choiceInteraction responseIdentifier="RESPONSE" shuffle="true" maxChoices="1"><simpleChoice identifier="A">Right ${id}</simpleChoice><simpleChoice identifier="B">Wrong ${id}</simpleChoice></choiceInteraction></itemBody><responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/></assessmentItem>`;
const section21 = (id: string, title: string, inside: string, refs: string): string =>
  `<assessmentSection identifier="${id}" title="${title}" visible="true">${inside}${[...refs].map((r) => `<assessmentItemRef identifier="r${r}" href="${r}.xml"/>`).join('')}</assessmentSection>`;

/** A test of QTI 2.1 with conditions, outcome processing and a drawn section. */
const course21 = (): Promise<Holding> =>
  readZip({
    ...Object.fromEntries([...'abcdefg'].map((id) => [`${id}.xml`, item21(id)])),
    'test.xml': `<assessmentTest ${NS21} identifier="t" title="Test"><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><testPart identifier="p" navigationMode="linear" submissionMode="individual"><itemSessionControl maxAttempts="3"/>${section21('s1', 'First', '<rubricBlock view="candidate"><p>Read with care.</p></rubricBlock>', 'abc')}${section21('s2', 'Second', '<preCondition><gt><variable identifier="SCORE"/><baseValue baseType="float">0</baseValue></gt></preCondition><selection select="2"/><ordering shuffle="true"/>', 'defg')}</testPart><outcomeProcessing><setOutcomeValue identifier="SCORE"><sum><testVariables variableIdentifier="SCORE"/></sum></setOutcomeValue></outcomeProcessing></assessmentTest>`,
  });

const after = (holding: Holding, ...edits: object[]): Holding => {
  const done = applyEdits(holding, edits);
  expect(done.refused.map((r) => r.why)).to.deep.equal([]);
  return done.holding;
};
const quizOf = (h: Holding) => inspectReport(h).quizzes[0]!;

/** Written and read again, an edited holding is what the edits made of it. */
async function arrives(holding: Holding, target: 'qti1.2' | 'qti2.1' | 'qti3.0'): Promise<Holding> {
  const written = writeHolding(holding, target, () => null, nodePlatform);
  const back = await readHolding('back.zip', written.packages[0]!, nodePlatform);
  const told = compareHoldings(holding, back);
  const differences = [...told.pairs, ...told.containers].flatMap((p) => p.differences.map((d) => d.facet));
  expect([told.verdict, differences]).to.deep.equal(['intact', []]);
  return back;
}

describe('edits of quizzes', () => {
  it('change names, settings and instructions, in every standard', async () => {
    for (const [holding, node, target] of [
      [await course12(), 'q', 'qti1.2'],
      [await course21(), 't', 'qti2.1'],
    ] as const) {
      const to = {
        attempts: 'unlimited',
        timeLimitMinutes: 25,
        passMark: 3,
        instructions: 'Calm. No haste.',
      };
      const next = after(
        holding,
        { op: 'title', node, kind: 'quiz', to: 'Final' },
        { op: 'settings', node, to },
        { op: 'settings', node, to: { shuffleItems: true, shuffleChoices: false } },
      );
      const said = quizOf(next);
      expect(said.title).to.equal('Final');
      expect(said.settings).to.deep.include({ ...to, shuffleItems: true, shuffleChoices: false });
      const back = quizOf(await arrives(next, target));
      expect(back.settings).to.deep.include({ ...to, shuffleItems: true, shuffleChoices: false });
    }
  });

  it('keep what a test says besides: conditions and outcome processing', async () => {
    const holding = await course21();
    const next = after(
      holding,
      { op: 'leave-out', node: 'a', kind: 'item' },
      { op: 'leave-out', node: 'd' },
      {
        op: 'settings',
        node: 't',
        to: { attempts: 1 },
      },
    );
    const [quiz] = next.quizzes;
    expect(quiz!.test?.parts[0]?.sections[1]?.preConditions).to.have.length(1);
    expect(quiz!.test?.outcomeRules).to.have.length(1);
    expect([...new Set(quizItems(quiz!))].sort()).to.deep.equal(['b', 'c', 'e', 'f', 'g']);
    await arrives(next, 'qti2.1');
    await arrives(next, 'qti3.0');
  });

  it('draw fewer where there are fewer, and nothing from nothing', async () => {
    const holding = await course12();
    const weeded = after(holding, ...['b1', 'b2', 'b3'].map((node) => ({ op: 'leave-out', node })));
    expect(quizOf(weeded).sections[1]!.draw).to.deep.include({ pick: 1, of: 1 });
    expect(quizOf(weeded).points).to.equal(3);
    const none = after(holding, ...['b1', 'b2', 'b3', 'b4'].map((node) => ({ op: 'leave-out', node })));
    expect(quizOf(none).sections.map((s) => s.draw)).to.deep.equal([null]);
    expect(
      quizOf(after(weeded, { op: 'draw', node: 'q', section: 1, to: { pointsEach: 4 } })).points,
    ).to.equal(6);
  });

  it('take other draws: how many, for how much, and from where', async () => {
    const holding = await course12();
    const next = after(holding, { op: 'draw', node: 'q', section: 'Drawn', to: { pick: 3, pointsEach: 2 } });
    expect(quizOf(next).sections[1]!.draw).to.deep.include({ pick: 3, of: 4, pointsEach: 2 });
    const other = after(holding, { op: 'draw', node: 'q', section: 1, to: { pool: 'c', pick: 1 } });
    expect(quizOf(other).sections[1]!.draw).to.deep.include({ pick: 1, of: 2, bank: 'c' });
    expect(
      refusals(
        holding,
        { op: 'draw', node: 'q', section: 1, to: { pick: 9 } },
        { op: 'draw', node: 'q', section: 0, to: { pick: 1 } },
        { op: 'draw', node: 'q', section: 'Nowhere', to: { pick: 1 } },
        { op: 'draw', node: 'q', section: 1, to: { pool: 'nowhere' } },
      ),
    ).to.deep.equal(['draw-pick', 'draw-none', 'section-unknown', 'node-unknown']);
  });

  it('points of a draw follow its items, unless somebody has said them', async () => {
    const all = ['b1', 'b2', 'b3', 'b4'].map((node) => ({ op: 'points', node, to: 3 }));
    const each = (h: Holding): number => quizOf(h).sections[1]!.draw!.pointsEach;
    expect(each(after(await course12(), ...all))).to.equal(3);
    const said = { op: 'draw', node: 'q', section: 1, to: { pointsEach: 5 } };
    expect(each(after(await course12(), ...all, said))).to.equal(5);
    expect(each(after(await course12(), said, ...all))).to.equal(5);
  });

  it('sections come, go, and take another order', async () => {
    for (const [holding, node, target] of [
      [await course12(), 'q', 'qti1.2'],
      [await course21(), 't', 'qti2.1'],
    ] as const) {
      const [first] = holding.quizzes[0]!.sections;
      const ids = first!.items.map((r) => r.item);
      const next = after(
        holding,
        { op: 'order', node, section: 0, to: [...ids].reverse() },
        { op: 'section-add', node, id: 'extra', to: 'Extra', after: 0 },
        { op: 'place', node, item: ids[0], section: 'Extra' },
        { op: 'weight', node, item: ids[0], to: 2 },
      );
      const [quiz] = next.quizzes;
      expect(quiz!.sections[0]!.items.map((r) => r.item)).to.deep.equal([...ids].reverse().slice(0, -1));
      expect(quiz!.sections[1]).to.deep.include({ title: 'Extra', items: [{ item: ids[0], weight: 2 }] });
      expect(next.items.find((i) => i.id === ids[0])!.points).to.equal(2);
      if (target === 'qti2.1') await arrives(next, target);
      const gone = after(next, { op: 'section-drop', node, section: 'Extra' });
      expect(gone.quizzes[0]!.sections[0]!.items.at(-1)!.item).to.equal(ids[0]);
      expect(refusals(holding, { op: 'order', node, section: 0, to: ids.slice(1) })).to.deep.equal([
        'order-other',
      ]);
    }
  });

  it('refuse dates the wrong way round, and settings of no such kind', async () => {
    const holding = await course12();
    const dates = { opens: '2027-02-01T10:00:00Z', closes: '2027-01-01T10:00:00Z' };
    expect(
      refusals(
        holding,
        { op: 'settings', node: 'q', to: dates },
        { op: 'settings', node: 'q', to: { attempts: 0 } },
        { op: 'settings', node: 'q', to: { opens: 'tomorrow' } },
        { op: 'settings', node: 'q', to: { colour: 'red' } },
        { op: 'settings', node: 'b', to: { attempts: 1 } },
      ),
    ).to.deep.equal(['dates-order', 'not-an-edit', 'not-an-edit', 'not-an-edit', 'node-kind']);
  });
});

describe('edits of question banks', () => {
  const members = (h: Holding, id: string): readonly string[] =>
    h.banks.find((b) => b.id === id)?.items ?? [];

  it('move an item, and draws follow', async () => {
    const next = after(
      await course12(),
      { op: 'move', node: 'c1', to: 'b' },
      { op: 'move', node: 'b1', to: 'c' },
    );
    expect(members(next, 'b')).to.deep.equal(['b2', 'b3', 'b4', 'c1']);
    expect(members(next, 'c')).to.deep.equal(['c2', 'b1']);
    expect(quizOf(next).sections[1]!.draw).to.deep.include({ of: 4 });
    expect(refusals(next, { op: 'move', node: 'c1', to: 'nowhere' })).to.deep.equal(['bank-unknown']);
  });

  it('merge into one, and split apart', async () => {
    const holding = await course12();
    const one = after(holding, { op: 'merge', node: 'b', to: 'c' });
    expect(one.banks.map((b) => b.id)).to.deep.equal(['c']);
    expect(quizOf(one).sections[1]!.draw).to.deep.include({ bank: 'c', of: 6 });
    const split = after(one, { op: 'split', node: 'c', by: 'category' });
    expect(split.banks.map((b) => [b.title, b.items.length])).to.deep.equal([
      ['Marks', 1],
      ['Marks, Buoys', 1],
      ['Marks, Tides', 4],
    ]);
    const hand = after(holding, { op: 'split', node: 'b', by: { title: 'Hard', items: ['b2'] } });
    expect(hand.banks.map((b) => b.title)).to.deep.equal(['Tides', 'Marks', 'Hard']);
    expect(refusals(holding, { op: 'split', node: 'b', by: 'kind' })).to.deep.equal(['nothing-to-split']);
  });

  it('leave out a bank: its items go, but for those that are drawn', async () => {
    const next = after(
      await course12(),
      { op: 'leave-out', node: 'b', kind: 'bank' },
      { op: 'leave-out', node: 'c' },
    );
    expect(next.banks).to.deep.equal([]);
    expect(next.items.map((i) => i.id)).to.deep.equal(['f1', 'f2', 'b1', 'b2', 'b3', 'b4']);
    expect(quizOf(next).sections[1]!.draw).to.deep.include({ bank: null, of: 4, pick: 2 });
  });

  it('bring back what was left out, edited meanwhile', async () => {
    const next = after(
      await course12(),
      { op: 'leave-out', node: 'c1' },
      { op: 'title', node: 'c1', to: 'Renamed' },
      { op: 'bring-back', node: 'c1' },
    );
    expect(next.items.find((i) => i.id === 'c1')!.title).to.equal('Renamed');
  });
});

describe('lists of edits', () => {
  it('do what can be done and say why the rest cannot', async () => {
    const holding = await course12();
    const done = applyEdits(holding, [
      { op: 'title', node: 'nobody', to: 'x' },
      { op: 'fly', node: 'f1' },
      null,
      'title',
      { op: 'points', node: 'f1', to: '3' },
      { op: 'points', node: 'q', to: 3 },
      { op: 'title', node: 'f1', to: 'Done' },
    ]);
    expect(done.refused.map((r) => [r.at, r.why.refused])).to.deep.equal([
      [0, 'node-unknown'],
      [1, 'not-an-edit'],
      [2, 'not-an-edit'],
      [3, 'not-an-edit'],
      [4, 'not-an-edit'],
      [5, 'node-kind'],
    ]);
    expect(done.edits).to.deep.equal([{ op: 'title', node: 'f1', to: 'Done', was: 'Item f1' }]);
  });

  it('ask which thing is meant where two go by one id', async () => {
    const { read } = await import('../../support/read.ts');
    const twins = await read(qti12(`<objectbank ident="same">${itemXml(spec('same'), PLAIN)}</objectbank>`));
    expect(twins.banks.map((b) => b.id)).to.deep.equal(twins.items.map((i) => i.id));
    expect(refusals(twins, { op: 'title', node: 'same', to: 'x' })).to.deep.equal(['node-ambiguous']);
    expect(after(twins, { op: 'title', node: 'same', kind: 'bank', to: 'x' }).banks[0]!.title).to.equal('x');
  });

  it('take a hundred thousand', async () => {
    const holding = await course12();
    const many = Array.from({ length: 100_000 }, (_, n) => ({ op: 'points', node: 'f1', to: (n % 9) + 1 }));
    const done = applyEdits(holding, many);
    expect([done.edits.length, done.holding.items[0]!.points]).to.deep.equal([100_000, (99_999 % 9) + 1]);
  });
});
