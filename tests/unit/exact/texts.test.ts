import { expect } from 'chai';
import { evaluate, inspectReport } from '@alforja/core';
import { item12 as one, read, readZip } from '../../support/read.ts';
import { compared, facets, item21, items12, material } from './support.ts';

const choice = (stem: string, first: string): string =>
  `<presentation>${material(stem)}<response_lid ident="R"><render_choice><response_label ident="A">${material(first)}</response_label><response_label ident="B">${material('No')}</response_label></render_choice></response_lid></presentation>`;
const both = (text: string): readonly [string, string] => [text.normalize('NFC'), text.normalize('NFD')];

describe('composed and decomposed letters', () => {
  it('are the same in stems, choices, titles and categories', async () => {
    const given = (text: string): string =>
      items12(choice(`<p>${text}</p>`, text)).replace('title="Item 1"', `title="${text}"`);
    for (const text of ['Ångström è ñ', 'ά έ', 'が ぎ', 'й ё', 'בּ', '각']) {
      const [composed, decomposed] = both(text);
      expect(await facets(given(composed), given(decomposed)), text).to.deep.equal([]);
    }
  });

  it('are the same in accepted answers, in substrings and in patterns', async () => {
    for (const test of ['varequal', 'varsubstring']) {
      for (const [wanted, given] of [both('Água'), [...both('Água')].reverse()]) {
        const item = await one(
          `<presentation><response_str ident="R"><render_fib/></response_str></presentation><resprocessing><respcondition><conditionvar><${test} respident="R" case="Yes">${wanted}</${test}></conditionvar><setvar action="Set">1</setvar></respcondition></resprocessing>`,
        );
        expect(evaluate(item, { R: [given!] }).score, test).to.equal(1);
      }
    }
  });

  it('are the same in names of quizzes and sections, in instructions, and in names of files', async () => {
    const course = (text: string): string =>
      `<questestinterop><assessment ident="q" title="${text}"><rubric><material><mattext>${text}</mattext></material></rubric><section ident="s" title="${text}"><item ident="i1">${choice(text, text)}</item></section></assessment></questestinterop>`;
    const [composed, decomposed] = both('Água é água');
    expect((await compared(course(composed), course(decomposed))).verdict).to.equal('intact');
    const [name, reference] = both('señal.png');
    const held = await readZip({
      'q.xml': items12(choice(`<img src="${reference}" alt="x">`, 'Yes')),
      [name]: 'bytes',
    });
    expect(held.items[0]!.files).to.deep.equal([{ path: name, present: true }]);
  });

  it('are told from letters that only look alike', async () => {
    expect(
      await facets(items12(choice('<p>The port</p>', 'Yes')), items12(choice('<p>The pоrt</p>', 'Yes'))),
    ).to.deep.equal(['wording']);
    expect(
      await facets(items12(choice('<p>The port</p>', 'Yes')), items12(choice('<p>The port</p>', 'Υes'))),
    ).to.deep.equal(['choices']);
  });
});

describe('text that shows the same', () => {
  const same: readonly (readonly [string, string])[] = [
    ['<p>One<br/>two</p>', '<p>One</p><p>two</p>'],
    ['<div><p>One</p></div>', '<p>One</p>'],
    ['<p>a <b>c</b></p>', '<p>a<strong> c</strong></p>'],
    ['<p><b>a</b><b>c</b></p>', '<p><b>ac</b></p>'],
    ['<p><b><i>a</i></b></p>', '<p><i><b>a</b></i></p>'],
    ['<p><span style="font-weight: bold">a</span></p>', '<p><b>a</b></p>'],
    ['<table><tbody><tr><td>a</td><td>b</td></tr></tbody></table>', '<p>a</p><p>b</p>'],
    ['<ul>\n<li>a</li>\n<li>b</li></ul>', '<p>a</p><p>b</p>'],
  ];
  for (const [a, b] of same)
    it(`is no difference: ${a}`, async () => {
      expect(await facets(items12(choice(a, 'Yes')), items12(choice(b, 'Yes')))).to.deep.equal([]);
    });

  const other: readonly (readonly [string, string, string])[] = [
    ['<p>a <b>c</b></p>', '<p>a c</p>', 'wording'],
    ['<p>a c</p>', '<p>ac</p>', 'wording'],
    ['<p>x<sup>2</sup></p>', '<p>x2</p>', 'wording'],
    ['<p>x<sup>2</sup></p>', '<p>x<sub>2</sub></p>', 'wording'],
    ['<p>if \\(x\\) then y</p>', '<p>if then \\(x\\) y</p>', 'wording'],
  ];
  for (const [a, b, facet] of other)
    it(`is a difference of ${facet}: ${a}`, async () => {
      expect(await facets(items12(choice(a, 'Yes')), items12(choice(b, 'Yes')))).to.deep.equal([facet]);
    });

  it('may break beside a blank or not', async () => {
    const blank = (around: (entry: string) => string): string =>
      item21(
        `<responseDeclaration identifier="R" cardinality="single" baseType="string"><correctResponse><value>x</value></correctResponse></responseDeclaration><itemBody>${around('<textEntryInteraction responseIdentifier="R"/>')}</itemBody>`,
      );
    const plain = blank((entry) => `<p>The ${entry} is high.</p>`);
    for (const around of [
      (entry: string) => `<p>The<br/>${entry}<br/>is high.</p>`,
      (entry: string) => `<p>The\n${entry}\nis high.</p>`,
      (entry: string) => `<p>The</p><p>${entry}</p><p>is high.</p>`,
    ])
      expect(await facets(plain, blank(around))).to.deep.equal([]);
  });

  it('never runs together where a block ends', async () => {
    for (const name of [
      'div',
      'section',
      'article',
      'header',
      'figcaption',
      'address',
      'dt',
      'td',
      'h3',
      'summary',
    ]) {
      const held = await read(items12(choice(`<${name}>one</${name}><${name}>two</${name}>`, 'Yes')));
      expect(inspectReport(held).items[0]!.stem, name).to.equal('one two');
    }
  });
});
