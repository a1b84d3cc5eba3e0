import { expect } from 'chai';
import { mathMarkup, nameOf, walk, type ContentNode } from '@alforja/core';
import { item21 } from '../support/read.ts';

type Formula = Extract<ContentNode, { kind: 'math' }>;

async function formulaOf(inside: string): Promise<Formula> {
  const { body } = await item21(
    `<itemBody><p><math xmlns="http://www.w3.org/1998/Math/MathML">${inside}</math></p></itemBody>`,
  );
  let found: Formula | null = null;
  walk(body, (node) => {
    if (node.kind === 'math') found = node;
  });
  return found!;
}

describe('a formula as mark-up for a page', () => {
  const MATH = '<math xmlns="http://www.w3.org/1998/Math/MathML">';
  const cases: readonly [what: string, given: string, shown: string][] = [
    ['stands as it was', '<mfrac><mi>D</mi><mi>T</mi></mfrac>', '<mfrac><mi>D</mi><mi>T</mi></mfrac>'],
    ['escapes its text', '<mo>&lt;</mo>', '<mo>&lt;</mo>'],
    [
      'keeps what says how it looks',
      '<mstyle displaystyle="true"><mn>1</mn></mstyle>',
      '<mstyle displaystyle="true"><mn>1</mn></mstyle>',
    ],
    ['loses identifiers, which may meet others', '<mi id="x" class="y">a</mi>', '<mi>a</mi>'],
    ['loses what could run', '<mi onclick="alert(1)" href="javascript:x">a</mi>', '<mi>a</mi>'],
    [
      'fences are operators in a row',
      '<mfenced><mi>a</mi><mi>b</mi></mfenced>',
      '<mrow><mo fence="true">(</mo><mi>a</mi><mo separator="true">,</mo><mi>b</mi><mo fence="true">)</mo></mrow>',
    ],
    [
      'fences of other signs',
      '<mfenced open="[" close="" separators=";|"><mi>a</mi><mi>b</mi><mi>c</mi><mi>d</mi></mfenced>',
      '<mrow><mo fence="true">[</mo><mi>a</mi><mo separator="true">;</mo><mi>b</mi><mo separator="true">|</mo><mi>c</mi><mo separator="true">|</mo><mi>d</mi></mrow>',
    ],
    [
      'fences without separators',
      '<mfenced separators=""><mi>a</mi><mi>b</mi></mfenced>',
      '<mrow><mo fence="true">(</mo><mi>a</mi><mi>b</mi><mo fence="true">)</mo></mrow>',
    ],
  ];
  for (const [what, given, shown] of cases)
    it(what, async () => {
      expect(mathMarkup(await formulaOf(given))).to.equal(`${MATH}${shown}</math>`);
    });

  it('holds nothing but mathematics, whatever stands in the tree', () => {
    const made: Formula = {
      kind: 'math',
      attrs: { onload: 'x', display: 'block' },
      children: [
        { kind: 'element', name: 'script', attrs: {}, children: [{ kind: 'text', text: 'alert(1)' }] },
        { kind: 'text', text: '<img src=x onerror=alert(1)>' },
      ],
    };
    expect(mathMarkup(made)).to.equal(
      '<math xmlns="http://www.w3.org/1998/Math/MathML" display="block">&lt;img src=x onerror=alert(1)&gt;</math>',
    );
  });
});

describe('the name of an item without a title', () => {
  const named = async (question: string): Promise<string> =>
    nameOf({ ...(await item21(`<itemBody><p>${question}</p></itemBody>`)), title: '' });

  it('is its question, whole where it is short', async () => {
    expect(await named('What is the rule of twelfths?')).to.equal('What is the rule of twelfths?');
  });

  it('ends at a word, and says that there is more', async () => {
    const name = await named(`Low water is 2.1 m. ${'What is the height of tide after that? '.repeat(4)}`);
    expect(name).to.match(/^Low water .* [a-z]+…$/u);
    expect(name.length).to.be.at.most(81);
  });

  it('cuts no character in two where a script has no spaces', async () => {
    expect(await named('𠮷潮'.repeat(60))).to.equal(`${'𠮷潮'.repeat(40)}…`);
  });
});
