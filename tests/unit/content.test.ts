import { expect } from 'chai';
import { mathMarkup, walk, type ContentNode } from '@alforja/core';
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
