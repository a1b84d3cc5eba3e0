import { expect } from 'chai';
import { applyEdits, feedbackOf } from './feedback.ts';
import { readHolding, writeHolding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import {
  choice21,
  edited,
  item21,
  mapped21,
  number21,
  read,
  readZip,
  refusals,
  spec12,
  typed21,
} from './support.ts';

const ONE = {
  kind: 'single',
  id: 'i1',
  title: 'Port',
  points: 2,
  stem: '<p>Which <b>side</b> is port?</p>',
  choices: [{ text: 'Left', right: true }, { text: 'Right' }, { text: 'Aft' }],
} as const;

describe('edits of texts', () => {
  it('change the stem and keep its mark-up', async () => {
    const { said, item } = edited(await spec12(ONE), {
      op: 'stem',
      node: 'i1',
      to: 'Which side is starboard?',
    });
    expect(said.stem).to.equal('Which side is starboard?');
    expect(JSON.stringify(item.body)).to.include('"name":"b"');
  });

  it('keep the places to fill in, wherever they stand', async () => {
    const holding = await typed21({ ebb: 1 });
    const { said, score } = edited(holding, { op: 'stem', node: 'i1', to: 'The tide is ___ now.' });
    expect(said.stem).to.equal('The tide is ___ now.');
    expect(score({ RESPONSE: ['ebb'] })).to.equal(1);
    expect(refusals(holding, { op: 'stem', node: 'i1', to: 'No place here' })).to.deep.equal([
      'blanks-changed',
    ]);
  });

  it('change titles, categories and choices', async () => {
    const { said, item } = edited(
      await spec12({ ...ONE, category: 'Old' }),
      { op: 'title', node: 'i1', to: 'Sides' },
      { op: 'category', node: 'i1', to: 'Terms' },
      { op: 'choice-text', node: 'i1', choice: 'B', to: 'Starboard' },
      { op: 'choice-fixed', node: 'i1', choice: 'C', to: true },
    );
    expect([said.title, said.category]).to.deep.equal(['Sides', 'Terms']);
    expect(said.choices[1]!.text).to.equal('Starboard');
    expect(said.choices.map((c) => c.fixed)).to.deep.equal([false, false, true]);
    expect(item.metadata.some((f) => f.value === 'Old')).to.equal(false);
  });

  it('refuse what is far too long, and lose nothing else', async () => {
    const holding = await spec12(ONE);
    const done = applyEdits(holding, [
      { op: 'choice-text', node: 'i1', choice: 'B', to: 'x'.repeat(1_000_000) },
      { op: 'title', node: 'i1', to: 'Still done' },
    ]);
    expect(done.refused.map((r) => r.why.refused)).to.deep.equal(['text-too-long']);
    expect(done.holding.items[0]!.title).to.equal('Still done');
  });
});

describe('edits of keys', () => {
  it('make another choice right', async () => {
    for (const holding of [await spec12(ONE), await choice21('A')]) {
      const { said, score, item } = edited(holding, { op: 'key', node: 'i1', to: ['B'] });
      expect(said.key).to.deep.equal([said.choices[1]!.text]);
      const [id] = item.responses.map((r) => r.id);
      expect([score({ [id!]: ['A'] }), score({ [id!]: ['B'] })]).to.deep.equal([0, item.points]);
    }
  });

  it('make several right where several can be ticked, all or nothing', async () => {
    const { said, score } = edited(await choice21('AB'), { op: 'key', node: 'i1', to: ['D', 'B'] });
    expect(said.key).to.deep.equal(['Choice B', 'Choice D']);
    expect([score({ RESPONSE: ['B', 'D'] }), score({ RESPONSE: ['A', 'B'] })]).to.deep.equal([1, 0]);
  });

  it('keep partial credit in its proportions', async () => {
    const holding = await mapped21({ A: 2, B: 2, C: -1, D: -1 });
    const { said, score } = edited(holding, { op: 'key', node: 'i1', to: ['A', 'C', 'D'] });
    expect([said.points, said.scoring]).to.deep.equal([4, 'per-choice']);
    expect(score({ RESPONSE: ['A', 'C', 'D'] })).to.be.closeTo(4, 1e-9);
    expect(score({ RESPONSE: ['A', 'B'] })).to.be.closeTo(4 / 3 - 1, 1e-9);
  });

  it('move the bounds of a number by the same distance', async () => {
    const { said, score } = edited(await number21(10, '0.5'), { op: 'key', node: 'i1', to: [20] });
    expect(said.key).to.deep.equal(['20']);
    expect(said.tolerance).to.deep.include({ low: 19.5, high: 20.5 });
    expect([score({ RESPONSE: [19.5] }), score({ RESPONSE: [10] })]).to.deep.equal([2, 0]);
  });

  it('refuse what does not fit', async () => {
    const one = await choice21('A');
    const key = (to: unknown, more = {}): object => ({ op: 'key', node: 'i1', to, ...more });
    expect(refusals(one, key(['Z']))).to.deep.equal(['choice-unknown']);
    expect(refusals(one, key(['A', 'B']))).to.deep.equal(['key-several']);
    expect(refusals(one, key([]))).to.deep.equal(['key-empty']);
    expect(refusals(one, key(['A'], { response: 'X' }))).to.deep.equal(['response-unknown']);
    expect(refusals(one, key('A'))).to.deep.equal(['not-an-edit']);
    expect(refusals(await number21(1, '0'), key(['far']))).to.deep.equal(['key-value']);
  });

  it('ask which response is meant where there are several', async () => {
    const two = await item21(
      ['R1', 'R2']
        .map(
          (r) =>
            `<responseDeclaration identifier="${r}" cardinality="single" baseType="string"><mapping defaultValue="0"><mapEntry mapKey="a" mappedValue="1"/></mapping></responseDeclaration>`,
        )
        .join('') +
        '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><p>x <textEntryInteraction responseIdentifier="R1"/> y <textEntryInteraction responseIdentifier="R2"/></p></itemBody><responseProcessing><setOutcomeValue identifier="SCORE"><sum><mapResponse identifier="R1"/><mapResponse identifier="R2"/></sum></setOutcomeValue></responseProcessing>',
    );
    expect(refusals(two, { op: 'key', node: 'i1', to: ['b'] })).to.deep.equal(['response-needed']);
    const { said, score } = edited(two, { op: 'key', node: 'i1', to: ['b'], response: 'R2' });
    expect([said.points, said.scoring]).to.deep.equal([2, 'sum-of-parts']);
    expect(said.key).to.deep.equal(['a', 'b']);
    expect([score({ R1: ['a'], R2: ['b'] }), score({ R1: ['a'], R2: ['a'] })]).to.deep.equal([2, 1]);
  });

  it('give a key to an item that had none', async () => {
    const bare = await item21(
      '<responseDeclaration identifier="R" cardinality="single" baseType="identifier"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><p>Which?</p><choiceInteraction responseIdentifier="R" maxChoices="1"><simpleChoice identifier="A">a</simpleChoice><simpleChoice identifier="B">b</simpleChoice></choiceInteraction></itemBody>',
    );
    const { said, score } = edited(bare, { op: 'key', node: 'i1', to: ['B'] });
    expect([said.key, said.points]).to.deep.equal([['b'], 1]);
    expect(score({ R: ['B'] })).to.equal(1);
  });
});

describe('edits of accepted answers, numbers and capitals', () => {
  it('accept other texts, for all or part of the points', async () => {
    const { said, score } = edited(await typed21({ ebb: 2, flood: 1 }), {
      op: 'accept',
      node: 'i1',
      to: [{ text: 'slack' }, { text: 'Stand', points: 1, caseSensitive: true }],
    });
    expect([said.key, said.points, said.scoring]).to.deep.equal([['slack'], 2, 'accepted-answers']);
    const given = (t: string): number => score({ RESPONSE: [t] });
    expect(['SLACK', 'Stand', 'stand', 'ebb'].map(given)).to.deep.equal([2, 1, 0, 0]);
  });

  it('make capitals matter', async () => {
    for (const holding of [
      await typed21({ ebb: 1 }),
      await spec12({ kind: 'text', id: 'i1', points: 1, stem: '<p>Which?</p>', answers: ['ebb'] }),
    ]) {
      const { said, score, item } = edited(holding, { op: 'case', node: 'i1', to: true });
      const [id] = item.responses.map((r) => r.id);
      expect([said.key, score({ [id!]: ['ebb'] }), score({ [id!]: ['EBB'] })]).to.deep.equal([['ebb'], 1, 0]);
    }
  });

  it('set the bounds of a number, in each way of writing them', async () => {
    const holding = await number21(10, '0.5');
    for (const mode of ['absolute', 'relative', 'range'] as const) {
      const to = { mode, low: 9.75, high: 11, includesHigh: false };
      const { said, score } = edited(holding, { op: 'tolerance', node: 'i1', to });
      expect(said.tolerance).to.deep.include({
        mode,
        low: 9.75,
        high: 11,
        includesLow: true,
        includesHigh: false,
      });
      expect([9.74, 9.75, 10.99, 11].map((n) => score({ RESPONSE: [n] }))).to.deep.equal([0, 2, 2, 0]);
    }
    const { said } = edited(holding, { op: 'tolerance', node: 'i1', to: null });
    expect([said.tolerance, said.key]).to.deep.equal([null, ['10']]);
  });

  it('refuse bounds around something else, empty lists, and texts twice', async () => {
    const n = await number21(10, '0.5');
    const span = (low: number, high: number): object => ({
      op: 'tolerance',
      node: 'i1',
      to: { mode: 'range', low, high },
    });
    expect(refusals(n, span(11, 12), span(11, 9))).to.deep.equal(['bounds-around', 'bounds-order']);
    const t = await typed21({ ebb: 1 });
    const accept = (...texts: string[]): object => ({
      op: 'accept',
      node: 'i1',
      to: texts.map((text) => ({ text })),
    });
    expect(refusals(t, accept(), accept('a', 'A'), accept(' '))).to.deep.equal([
      'key-empty',
      'answer-twice',
      'key-value',
    ]);
    expect(refusals(await choice21('A'), accept('a'))).to.deep.equal(['scoring-other']);
    expect(refusals(await choice21('A'), { op: 'case', node: 'i1', to: true })).to.deep.equal([
      'scoring-other',
    ]);
  });
});

describe('edits of points', () => {
  it('scale everything an answer can get', async () => {
    const { said, score } = edited(await mapped21({ A: 2, B: 1, C: -1 }), {
      op: 'points',
      node: 'i1',
      to: 6,
    });
    expect(said.points).to.equal(6);
    expect([['A', 'B'], ['A'], ['A', 'C']].map((R) => score({ RESPONSE: R }))).to.deep.equal([6, 4, 2]);
  });

  it('take zero, refuse less', async () => {
    const holding = await choice21('A');
    expect(edited(holding, { op: 'points', node: 'i1', to: 0 }).said.points).to.equal(0);
    const again = edited(holding, { op: 'points', node: 'i1', to: 0 }, { op: 'points', node: 'i1', to: 3 });
    expect([again.said.points, again.score({ RESPONSE: ['A'] })]).to.deep.equal([3, 3]);
    expect(refusals(holding, { op: 'points', node: 'i1', to: -1 })).to.deep.equal(['points-negative']);
  });

  it('hold for what a person marks', async () => {
    const essay = await spec12({ kind: 'essay', id: 'i1', points: 3, stem: '<p>Explain.</p>' });
    expect(edited(essay, { op: 'points', node: 'i1', to: 8 }).said).to.deep.include({
      points: 8,
      scoring: 'manual',
    });
  });
});

describe('edits of scoring leave the points', () => {
  it('of an item that is worth nothing', async () => {
    const nothing = edited(await choice21('A'), { op: 'points', node: 'i1', to: 0 }).holding;
    const { said, holding } = edited(nothing, { op: 'key', node: 'i1', to: ['C'] });
    expect([said.points, said.key]).to.deep.equal([0, ['Choice C']]);
    const again = edited(holding, { op: 'points', node: 'i1', to: 2 });
    expect([again.score({ RESPONSE: ['C'] }), again.score({ RESPONSE: ['A'] })]).to.deep.equal([2, 0]);
    const typed = edited(await typed21({ ebb: 2 }), { op: 'points', node: 'i1', to: 0 }).holding;
    const accepted = edited(typed, { op: 'accept', node: 'i1', to: [{ text: 'flood' }] });
    expect([accepted.said.points, accepted.said.key]).to.deep.equal([0, ['flood']]);
  });

  it('of an item whose parts did not add up to what it said', async () => {
    const short = await mapped21({ A: 1, B: 1, C: 0 });
    const [item] = short.items;
    const stated = { ...short, items: [{ ...item!, points: 5, scale: 1 }] };
    const { said, score } = edited(stated, { op: 'key', node: 'i1', to: ['A', 'C'] });
    expect([said.points, score({ RESPONSE: ['A', 'C'] })]).to.deep.equal([5, 5]);
  });

  it('of an item that counts twice in its test, also when written and read again', async () => {
    const item = (id: string): string =>
      `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="${id}" title="${id}" adaptive="false" timeDependent="false"><responseDeclaration identifier="R" cardinality="single" baseType="identifier"><correctResponse><value>A</value></correctResponse></responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><choiceInteraction responseIdentifier="R" maxChoices="1"><prompt>Which of ${id}?</prompt><simpleChoice identifier="A">a ${id}</simpleChoice><simpleChoice identifier="B">b ${id}</simpleChoice></choiceInteraction></itemBody><responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/></assessmentItem>`;
    const holding = await readZip({
      'i1.xml': item('i1'),
      't.xml': `<assessmentTest xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="t" title="T"><testPart identifier="p" navigationMode="linear" submissionMode="individual"><assessmentSection identifier="s" title="S" visible="true"><assessmentItemRef identifier="r" href="i1.xml"><weight identifier="W" value="2"/></assessmentItemRef></assessmentSection></testPart></assessmentTest>`,
    });
    expect(edited(holding).said.points).to.equal(2);
    const next = edited(holding, { op: 'key', node: 'i1', to: ['B'] }, { op: 'points', node: 'i1', to: 6 });
    expect([next.said.points, next.score({ R: ['B'] })]).to.deep.equal([6, 6]);
    const [bytes] = writeHolding(next.holding, 'qti2.1', () => null, nodePlatform).packages;
    const back = await readHolding('back.zip', bytes!, nodePlatform);
    expect([back.items[0]!.points, edited(back).said.key]).to.deep.equal([6, ['b i1']]);
  });

  it('of a matching asked row by row', async () => {
    const row = (id: string): string =>
      `<response_lid ident="${id}" rcardinality="Single"><material><mattext>Row ${id}</mattext></material><render_choice><response_label ident="x"><material><mattext>X</mattext></material></response_label><response_label ident="y"><material><mattext>Y</mattext></material></response_label></render_choice></response_lid>`;
    const given = (id: string, right: string): string =>
      `<respcondition continue="Yes"><conditionvar><varequal respident="${id}">${right}</varequal></conditionvar><setvar varname="SCORE" action="Add">2</setvar></respcondition>`;
    const holding = await read(
      `<questestinterop><item ident="i1" title="M"><presentation><material><mattext>Match.</mattext></material>${row('a')}${row('b')}</presentation><resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal"/></outcomes>${given('a', 'x')}${given('b', 'y')}</resprocessing></item></questestinterop>`,
    );
    expect(edited(holding).said).to.deep.include({ points: 4, scoring: 'per-choice' });
    const { said, score } = edited(holding, { op: 'key', node: 'i1', response: 'b', to: ['x'] });
    expect([said.points, said.key]).to.deep.equal([4, ['Row a -> X', 'Row b -> X']]);
    expect([score({ a: ['x'], b: ['x'] }), score({ a: ['x'], b: ['y'] })]).to.deep.equal([4, 2]);
  });
});

describe('edits of choices', () => {
  it('add one that is wrong and never free', async () => {
    for (const holding of [await choice21('AB'), await mapped21({ A: 1, B: 1, C: -1, D: -1 })]) {
      const before = edited(holding).said;
      const { said, score } = edited(holding, {
        op: 'choice-add',
        node: 'i1',
        choice: 'E',
        to: 'Another',
        after: 'B',
      });
      expect(said.choices.map((c) => c.id)).to.deep.equal(['A', 'B', 'E', 'C', 'D']);
      expect([said.key, said.points, said.scoring]).to.deep.equal([
        before.key,
        before.points,
        before.scoring,
      ]);
      expect(score({ RESPONSE: ['A', 'B', 'E'] })).to.be.lessThan(score({ RESPONSE: ['A', 'B'] }));
    }
  });

  it('add one at the front, and refuse one that is there or has no place', async () => {
    const holding = await choice21('A');
    const add = (choice: string, after: string | null): object => ({
      op: 'choice-add',
      node: 'i1',
      choice,
      to: 'More',
      after,
    });
    expect(edited(holding, add('E', null)).said.choices[0]!.id).to.equal('E');
    expect(refusals(holding, add('A', 'B'), add('E', 'Z'), add('E F', 'A'))).to.deep.equal([
      'choice-exists',
      'choice-unknown',
      'choice-id',
    ]);
  });

  it('take one out, and keep points and key', async () => {
    const { said, score } = edited(await mapped21({ A: 1, B: 1, C: -1 }), {
      op: 'choice-drop',
      node: 'i1',
      choice: 'B',
    });
    expect([said.points, said.key]).to.deep.equal([2, ['Choice A']]);
    expect([score({ RESPONSE: ['A'] }), score({ RESPONSE: ['A', 'C'] })]).to.deep.equal([2, 1]);
  });

  it('refuse to take out the only right one, and one that is not there', async () => {
    const holding = await choice21('A');
    const drop = (choice: string): object => ({ op: 'choice-drop', node: 'i1', choice });
    expect(refusals(holding, drop('A'), drop('Z'))).to.deep.equal(['choice-only-right', 'choice-unknown']);
  });

  it('turn one answer into several, and back', async () => {
    const holding = await choice21('A');
    const several = edited(
      holding,
      { op: 'answers', node: 'i1', to: 'several' },
      { op: 'key', node: 'i1', to: ['A', 'C'] },
    );
    expect(several.score({ RESPONSE: ['A', 'C'] })).to.equal(1);
    expect(several.score({ RESPONSE: ['A'] })).to.equal(0);
    expect(refusals(several.holding, { op: 'answers', node: 'i1', to: 'one' })).to.deep.equal([
      'key-several',
    ]);
  });
});

describe('edits of feedback', () => {
  const of = (on: string, to: string | null): object => ({ op: 'feedback', node: 'i1', on, to });

  it('are shown to who has the role, in every standard', async () => {
    for (const holding of [await choice21('A'), await spec12(ONE)]) {
      const { item, said, score } = edited(
        holding,
        of('right', 'Well done.'),
        of('wrong', 'Read again.'),
        of('B', 'That is the other side.'),
        of('general', 'See chapter 2.'),
      );
      const [id] = item.responses.map((r) => r.id);
      expect(feedbackOf(item, { [id!]: ['A'] })).to.have.members(['Well done.', 'See chapter 2.']);
      expect(feedbackOf(item, { [id!]: ['B'] })).to.have.members([
        'Read again.',
        'That is the other side.',
        'See chapter 2.',
      ]);
      expect(feedbackOf(item, { [id!]: ['C'] })).to.have.members(['Read again.', 'See chapter 2.']);
      expect([said.feedback, score({ [id!]: ['A'] })]).to.deep.equal([4, item.points]);
    }
  });

  it('follow the key', async () => {
    const { item } = edited(await choice21('A'), of('right', 'Well done.'), of('wrong', 'No.'), {
      op: 'key',
      node: 'i1',
      to: ['C'],
    });
    expect(feedbackOf(item, { RESPONSE: ['C'] })).to.deep.equal(['Well done.']);
    expect(feedbackOf(item, { RESPONSE: ['A'] })).to.deep.equal(['No.']);
  });

  it('change and go', async () => {
    const first = edited(await choice21('A'), of('right', 'Well done.'), of('right', 'Yes.'));
    expect(feedbackOf(first.item, { RESPONSE: ['A'] })).to.deep.equal(['Yes.']);
    const gone = edited(first.holding, of('right', null));
    expect([feedbackOf(gone.item, { RESPONSE: ['A'] }), gone.said.feedback]).to.deep.equal([[], 0]);
    expect(refusals(gone.holding, of('Z', 'x'))).to.deep.equal(['choice-unknown']);
  });
});

describe('a scoring that is a program', () => {
  const PROGRAM =
    '<responseDeclaration identifier="R" cardinality="single" baseType="float"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><p>How far? <textEntryInteraction responseIdentifier="R"/></p></itemBody><responseProcessing><responseCondition><responseIf><gt><variable identifier="R"/><baseValue baseType="float">3</baseValue></gt><setOutcomeValue identifier="SCORE"><baseValue baseType="float">2</baseValue></setOutcomeValue></responseIf><responseElseIf><gt><variable identifier="R"/><baseValue baseType="float">1</baseValue></gt><setOutcomeValue identifier="SCORE"><baseValue baseType="float">1</baseValue></setOutcomeValue></responseElseIf></responseCondition></responseProcessing>';

  it('is kept, unless one says that it is to be replaced', async () => {
    const holding = await item21(PROGRAM);
    expect(edited(holding).said.scoring).to.equal('program');
    expect(refusals(holding, { op: 'key', node: 'i1', to: [4] })).to.deep.equal(['scoring-program']);
    const { said, score } = edited(holding, { op: 'key', node: 'i1', to: [4], replace: true });
    expect([said.scoring, said.points, score({ R: [4] }), score({ R: [5] })]).to.deep.equal([
      'numeric',
      2,
      2,
      0,
    ]);
  });

  it('takes other points all the same', async () => {
    const { score, said } = edited(await item21(PROGRAM), { op: 'points', node: 'i1', to: 10 });
    expect([said.points, score({ R: [5] }), score({ R: [2] })]).to.deep.equal([10, 10, 5]);
  });
});
