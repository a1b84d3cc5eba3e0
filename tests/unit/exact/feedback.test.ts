import { expect } from 'chai';
import { parseAnswers, readHolding, scoreReport, writeHolding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { compareHoldings } from '@alforja/core';
import { item12 as one, item21 as two, read } from '../../support/read.ts';
import { differences, items12, item21, material } from './support.ts';

const condition = (value: string, feedback: string, score = ''): string =>
  `<respcondition continue="Yes"><conditionvar><varequal respident="R">${value}</varequal></conditionvar>${score}<displayfeedback linkrefid="${feedback}"/></respcondition>`;
const SCORE = '<setvar action="Set">1</setvar>';

/** A choice whose notes are shown for these choices; A is right. */
const noted = (notes: Readonly<Record<string, string>>, kind = 'material'): string => {
  const text = (id: string): string => {
    const inside = material(`Note ${id}`);
    return kind === 'material' ? inside : `<${kind}><${kind}material>${inside}</${kind}material></${kind}>`;
  };
  return `<presentation>${material('Which?')}<response_lid ident="R" rcardinality="Single"><render_choice>${[
    'A',
    'B',
    'C',
  ]
    .map((c) => `<response_label ident="${c}">${material(`Choice ${c}`)}</response_label>`)
    .join(
      '',
    )}</render_choice></response_lid></presentation><resprocessing><outcomes><decvar maxvalue="1"/></outcomes>${Object.entries(
    notes,
  )
    .map(([choice, note]) => condition(choice, note, choice === 'A' ? SCORE : ''))
    .join(
      '',
    )}</resprocessing>${[...new Set(Object.values(notes))].map((n) => `<itemfeedback ident="${n}">${text(n)}</itemfeedback>`).join('')}`;
};

describe('when feedback is shown', () => {
  const plain = items12(noted({ A: 'x', B: 'y', C: 'z' }));

  it('is a difference where two notes are exchanged, with an answer that is shown the other', async () => {
    const [found, ...more] = await differences(plain, items12(noted({ A: 'x', B: 'z', C: 'y' })));
    expect(more).to.deep.equal([]);
    expect(found).to.deep.include({ facet: 'feedback', from: ['Note y'], to: ['Note z'] });
    expect(found!.example).to.deep.equal({ response: { R: ['B'] }, answer: ['Choice B'], from: 0, to: 0 });
  });

  it('is a difference where a note moved to another choice', async () => {
    const [found] = await differences(items12(noted({ A: 'x', B: 'y' })), items12(noted({ A: 'x', C: 'y' })));
    expect([found!.facet, found!.example?.response]).to.deep.equal(['feedback', { R: ['B'] }]);
  });

  it('is none where the same notes stand in another order', async () => {
    expect(await differences(plain, items12(noted({ C: 'z', A: 'x', B: 'y' })))).to.deep.equal([]);
  });

  it('tells a hint from a solution', async () => {
    const [found] = await differences(
      items12(noted({ A: 'x' }, 'hint')),
      items12(noted({ A: 'x' }, 'solution')),
    );
    expect(found!.facet).to.equal('feedback');
  });

  it('stays as it is in every format, for every choice', async () => {
    const before = await read(plain);
    for (const target of ['qti1.2', 'qti2.1', 'qti2.2', 'qti3.0', 'cc1.3'] as const) {
      const { packages } = writeHolding(before, target, () => null, nodePlatform);
      const back = await readHolding('back.zip', packages[0]!, nodePlatform);
      expect(compareHoldings(before, back).pairs[0]!.differences, target).to.deep.equal([]);
    }
  });
});

describe('what an answer is shown', () => {
  const shown = async (item: Promise<Parameters<typeof parseAnswers>[0]>, answer: string[]) => {
    const made = await item;
    return scoreReport(made, parseAnswers(made, answer)).feedback;
  };

  it('is a note beside the item in QTI 1.2, by its kind', async () => {
    expect(await shown(one(noted({ A: 'x', B: 'y' })), ['R=B'])).to.deep.equal([
      { kind: 'modal', text: 'Note y' },
    ]);
    expect(await shown(one(noted({ A: 'x' }, 'hint')), ['R=A'])).to.deep.equal([
      { kind: 'hint', text: 'Note x' },
    ]);
    expect(await shown(one(noted({ A: 'x' }, 'solution')), ['R=A'])).to.deep.equal([
      { kind: 'solution', text: 'Note x' },
    ]);
    expect(await shown(one(noted({ A: 'x' })), [])).to.deep.equal([]);
  });

  it('is inline, block and modal in QTI 2, in document order, shown or hidden by the outcome', async () => {
    const xml = item21(
      `<responseDeclaration identifier="R" cardinality="single" baseType="identifier"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><outcomeDeclaration identifier="F" cardinality="single" baseType="identifier"/><itemBody><p>Say <feedbackInline outcomeIdentifier="F" identifier="A" showHide="show">well</feedbackInline></p><feedbackBlock outcomeIdentifier="F" identifier="A" showHide="hide"><p>Not A</p></feedbackBlock><choiceInteraction responseIdentifier="R" maxChoices="1" shuffle="false"><simpleChoice identifier="A">a</simpleChoice><simpleChoice identifier="B">b</simpleChoice></choiceInteraction></itemBody><responseProcessing><setOutcomeValue identifier="F"><variable identifier="R"/></setOutcomeValue></responseProcessing><modalFeedback outcomeIdentifier="F" identifier="A" showHide="show"><p>Done</p></modalFeedback>`,
    );
    const inside = xml.slice(xml.indexOf('>') + 1, xml.lastIndexOf('<'));
    expect(await shown(two(inside), ['R=A'])).to.deep.equal([
      { kind: 'inline', text: 'well' },
      { kind: 'modal', text: 'Done' },
    ]);
    expect(await shown(two(inside), ['R=B'])).to.deep.equal([{ kind: 'block', text: 'Not A' }]);
  });
});
