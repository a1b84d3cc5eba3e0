import { expect } from 'chai';
import fc from 'fast-check';
import { make, plain, type ContentNode, type Holding } from '@alforja/core';
import { fromDocument, toDocument } from '../../../core/src/content/document.ts';
import { tidy } from '../../../core/src/content/tidy.ts';
import { stem } from '../../support/arbitraries.ts';
import { choice21, edited, item21, readZip, refusals, typed21 } from './support.ts';

const { element, text } = make;
const blank = (id: string): ContentNode => ({
  kind: 'textEntry',
  responseId: id,
  expectedLength: null,
  placeholder: null,
});

describe('texts as documents', () => {
  it('come back as they went, formulas, tables and slots too', () => {
    fc.assert(
      fc.property(stem, fc.boolean(), (nodes, answered) => {
        const all = answered
          ? [...nodes, element('p', [text('Here: '), blank('R'), text(' or '), blank('S')])]
          : nodes;
        const { html, slots } = toDocument(all);
        const back = fromDocument(html, slots);
        expect(back.nodes).to.deep.equal(tidy(all));
        expect([back.removed, back.lost]).to.deep.equal([[], []]);
        expect(toDocument(back.nodes).html).to.equal(toDocument(tidy(all)).html);
      }),
      { numRuns: 300 },
    );
  });

  it('keep empty elements apart from what follows', () => {
    const nodes = [element('p', [element('em', []), text('after')])];
    expect(fromDocument(toDocument(nodes).html, []).nodes).to.deep.equal(nodes);
  });

  it('are cleaned of what word processors and attackers leave', () => {
    const pasted =
      '<!--StartFragment--><p class="MsoNormal" style="mso-bidi-font-weight:normal;text-align:center" onclick="x()"><o:p></o:p><b>Port</b> is <span style="mso-spacerun:yes">left</span></p><script>alert(1)</script><img src="javascript:alert(1)" onerror="x()"><a href="javascript:x()">go</a><style>p{}</style>';
    const { nodes, removed } = fromDocument(pasted, []);
    const html = toDocument(nodes).html;
    expect(html).not.to.match(/script|onclick|onerror|mso-|o:p|javascript/iu);
    expect(plain(nodes)).to.equal('Port is left go');
    expect(removed.join(' ')).to.include('script');
  });

  it('never let a slot out of the content it belongs to', () => {
    const forged = fromDocument(
      '<p><span data-slot="7"></span><span data-slot="constructor"></span>x</p>',
      [],
    );
    expect(forged.nodes).to.deep.equal([element('p', [text('x')])]);
    const twice = fromDocument('<p><span data-slot="0"></span><span data-slot="0"></span></p>', [blank('R')]);
    expect([twice.lost, JSON.stringify(twice.nodes).split('textEntry').length - 1]).to.deep.equal([[0], 1]);
  });
});

describe('edits of texts with their mark-up', () => {
  const body = (to: string, more = {}): object => ({ op: 'content', node: 'i1', at: 'body', to, ...more });

  it('put mark-up into the text, around what is answered', async () => {
    const { said, item, score } = edited(
      await typed21({ ebb: 1 }),
      body('<p>The tide is <span data-slot="0"></span>, <em>not</em> the stream.</p>'),
    );
    expect(said.stem).to.equal('The tide is ___ , not the stream.');
    expect(JSON.stringify(item.body)).to.include('"name":"em"');
    expect(score({ RESPONSE: ['ebb'] })).to.equal(1);
  });

  it('refuse a text without what is answered in it, or with it twice', async () => {
    const holding = await typed21({ ebb: 1 });
    expect(
      refusals(
        holding,
        body('<p>Nothing to fill in</p>'),
        body('<p><span data-slot="0"></span><span data-slot="0"></span></p>'),
        { op: 'content', node: 'i1', at: 'choice', choice: 'A', to: 'x' },
        { op: 'content', node: 'i1', at: 'prompt', to: 'x' },
        { op: 'content', node: 'i1', at: 'feedback', on: 'right', to: 'x' },
      ),
    ).to.deep.equal(['slots-changed', 'slots-changed', 'choice-unknown', 'content-place', 'feedback-none']);
  });

  it('reach choices, prompts and feedback', async () => {
    const prompted = await item21(
      '<responseDeclaration identifier="R" cardinality="single" baseType="identifier"><correctResponse><value>A</value></correctResponse></responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><choiceInteraction responseIdentifier="R" maxChoices="1"><prompt>Which?</prompt><simpleChoice identifier="A">a</simpleChoice><simpleChoice identifier="B">b</simpleChoice></choiceInteraction></itemBody><responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/>',
    );
    const { said, item } = edited(
      prompted,
      { op: 'content', node: 'i1', at: 'prompt', to: 'Which <b>one</b>?' },
      { op: 'content', node: 'i1', at: 'choice', choice: 'B', to: 'H<sub>2</sub>O' },
      { op: 'feedback', node: 'i1', on: 'right', to: 'Yes.' },
      { op: 'content', node: 'i1', at: 'feedback', on: 'right', to: '<p>Yes, <i>indeed</i>.</p>' },
    );
    expect([said.stem, said.choices[1]!.text]).to.deep.equal(['Which one?', 'H2O']);
    expect(plain(item.feedback[0]!.content)).to.equal('Yes, indeed.');
  });

  it('know the files they show', async () => {
    const png = new Uint8Array([137, 80, 78, 71]);
    const holding: Holding = await readZip({
      'i.xml': `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="i1" title="One" adaptive="false" timeDependent="false"><responseDeclaration identifier="R" cardinality="single" baseType="string"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><p>See <img src="one.png" alt="One"/></p><p><textEntryInteraction responseIdentifier="R"/></p></itemBody></assessmentItem>`,
      'one.png': png,
      'two.png': png,
    });
    const { item } = edited(
      holding,
      body('<p>See <img src="two.png" alt="Two"></p><p><span data-slot="0"></span></p>'),
    );
    expect(item.files).to.deep.equal([{ path: 'two.png', present: true }]);
    const gone = edited(holding, body('<p>See nothing</p><p><span data-slot="0"></span></p>'));
    expect(gone.item.files).to.deep.equal([]);
  });

  it('are anchored, and done only once', async () => {
    const holding = await choice21('A');
    const first = edited(holding, { op: 'stem', node: 'i1', to: 'Which <of> these?' });
    const html = toDocument(first.item.body).html;
    expect(html).to.include('Which &lt;of&gt; these?');
    const again = edited(first.holding, body(html));
    expect(again.item).to.equal(first.item);
    expect(refusals(holding, body('<p>x</p><span data-slot="0"></span>', { was: html }))).to.deep.equal([
      'stale',
    ]);
  });
});
