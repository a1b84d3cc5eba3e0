import { expect } from 'chai';
import fc from 'fast-check';
import { make, plain, walk, type ContentNode } from '@alforja/core';
import { withText } from '../../../core/src/edit/retext.ts';
import { stem, words } from '../../support/arbitraries.ts';

const { element, text } = make;
const blank = (): ContentNode => ({
  kind: 'textEntry',
  responseId: 'R',
  expectedLength: null,
  placeholder: null,
});
const squeeze = (t: string): string => t.replace(/\s+/gu, ' ').trim();
const content = (made: ReturnType<typeof withText>): ContentNode[] => {
  if (!Array.isArray(made)) throw new Error(JSON.stringify(made));
  return made;
};
/** Elements by name, in order. */
const marks = (nodes: readonly ContentNode[]): string[] => {
  const out: string[] = [];
  walk(nodes, (n) => void (n.kind === 'element' && out.push(n.name)));
  return out;
};

describe('a text put in the place of another', () => {
  it('is what is read there, whatever stood there before', () => {
    fc.assert(
      fc.property(stem, words, (nodes, to) => {
        fc.pre(!to.includes('___'));
        expect(plain(content(withText(nodes, to)))).to.equal(squeeze(to));
      }),
      { numRuns: 500 },
    );
  });

  it('leaves everything as it is where it says the same', () => {
    fc.assert(
      fc.property(stem, (nodes) => {
        fc.pre(!plain(nodes).includes('___'));
        expect(content(withText(nodes, plain(nodes)))).to.deep.equal(nodes);
      }),
      { numRuns: 200 },
    );
  });

  it('keeps the mark-up of words that stay', () => {
    const nodes = [
      element('p', [text('The '), element('b', [text('quick brown')]), text(' fox')]),
      element('ul', [element('li', [text('jumps')]), element('li', [text('sleeps')])]),
    ];
    const next = content(withText(nodes, 'The quick red fox jumps twice and sleeps'));
    expect(marks(next)).to.deep.equal(['p', 'b', 'ul', 'li', 'li']);
    expect(plain(next)).to.equal('The quick red fox jumps twice and sleeps');
    const bold = next[0]!;
    expect(JSON.stringify(bold)).to.include('quick red');
  });

  it('keeps mark-up inside of words', () => {
    const nodes = [element('p', [text('H'), element('sub', [text('2')]), text('O is water')])];
    expect(content(withText(nodes, 'H2O is not water'))[0]).to.deep.equal(
      element('p', [text('H'), element('sub', [text('2')]), text('O is not water')]),
    );
    expect(content(withText(nodes, 'H2O2 is bleach'))[0]).to.deep.equal(
      element('p', [text('H'), element('sub', [text('2')]), text('O2 is bleach')]),
    );
  });

  it('keeps a formula that stays, and writes over one that does not', () => {
    const math: ContentNode = { kind: 'math', attrs: {}, children: [element('mi', [text('x')])] };
    const nodes = [element('p', [text('Solve '), math, text(' now')])];
    expect(JSON.stringify(withText(nodes, 'Please solve x now'))).to.include('"math"');
    expect(JSON.stringify(withText(nodes, 'Solve y now'))).not.to.include('"math"');
  });

  it('takes words before, between and after places to fill in', () => {
    const nodes = [element('p', [blank(), text(' and '), blank()])];
    const said = (to: string): string => plain(content(withText(nodes, to)));
    expect(said('First ___ or ___ last')).to.equal('First ___ or ___ last');
    expect(said('or')).to.equal('___ or ___');
    expect(withText(nodes, 'one ___ only')).to.deep.equal({
      refused: 'blanks-changed',
      params: { blanks: 0 },
    });
  });

  it('stands before what is answered where there was no text', () => {
    expect(plain(content(withText([blank()], 'How far?')))).to.equal('How far? ___');
  });

  it('copes with a text of many thousand words', () => {
    const long = Array.from({ length: 6000 }, (_, n) => `w${n}`).join(' ');
    const nodes = [element('p', [text(long), element('b', [text('end')])])];
    const next = content(withText(nodes, `${long.replace('w3000', 'other')}end`));
    expect(plain(next)).to.equal(`${long.replace('w3000', 'other')}end`);
  });
});
