import { expect } from 'chai';
import fc from 'fast-check';
import { fingerprint, make, plain, type ContentNode } from '@alforja/core';
import { askedBy, wordsOf } from '../../../core/src/match/asked.ts';
import { canonicalMath, canonicalText } from '../../../core/src/match/canonical.ts';
import { choicesOf } from '../../../core/src/model/options.ts';

/** The name of what an item asks, from the definition: words, formulas, choices and kinds, one after the other. */
function named(body: readonly ContentNode[]): string {
  const item = { body };
  const choices = choicesOf(item).map(
    (c) => canonicalText(c.content) + canonicalMath(c.content).join() + c.label,
  );
  const kinds = body.filter((n) => n.kind === 'choice').map((n) => n.kind);
  const text = [
    wordsOf(item).join(' '),
    canonicalMath(body).join('|'),
    [...choices].sort().join('|'),
    kinds.join(),
  ].join('\u0001');
  let a = 0xdeadbeef;
  let b = 0x41c6ce57;
  for (let at = 0; at < text.length; at++) {
    a = Math.imul(a ^ text.charCodeAt(at), 2654435761);
    b = Math.imul(b ^ text.charCodeAt(at), 1597334677);
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return [a, b].map((n) => (n >>> 0).toString(16).padStart(8, '0')).join('');
}

const words = fc
  .array(
    fc.constantFrom(
      'Tide',
      'TIDE',
      'ebb-2',
      '3.5',
      'a_b',
      'Ångström',
      'e\u0301',
      'ﬁx',
      '海図',
      'ΟΔΟΣ',
      'Straße',
      '\u00A0',
      '  ',
      '\n',
      ',',
      '$$x^2$$',
      '\\(a\\)',
      '😀',
      'ไทย',
      'שלום',
    ),
    { maxLength: 8 },
  )
  .map((parts) => parts.join(' '));
const inline = words.map((text): ContentNode => ({ kind: 'text', text }));
const paragraph = fc.array(inline, { maxLength: 3 }).map((nodes): ContentNode => make.element('p', nodes));
const choice = fc.array(inline, { maxLength: 2 });
const body = fc
  .tuple(fc.array(paragraph, { maxLength: 3 }), fc.array(choice, { maxLength: 4 }))
  .map(([before, choices]): ContentNode[] => [
    ...before,
    make.choiceInteraction({
      responseId: 'R',
      choices: choices.map((content, at) => ({ id: `c${at}`, content, fixed: false })),
    }),
  ]);

/** Plain text from the definition: everything one after the other, blocks apart, white space run together. */
function plainly(nodes: readonly ContentNode[]): string {
  const say = (list: readonly ContentNode[]): string =>
    list
      .map((n) => (n.kind === 'text' ? n.text : n.kind === 'element' ? ` ${say(n.children)} ` : ' '))
      .join('');
  return say(nodes).replace(/\s+/gu, ' ').trim();
}

const STORED = ['120d89c681df50af', '715c1b4ad74d1230', 'a998a7f941dc994e', '37824329a51460ec'];

describe('what an item asks', () => {
  it('is named by its words in any script, found in one pass', () => {
    fc.assert(
      fc.property(body, (nodes) => {
        expect(fingerprint({ body: nodes })).to.equal(named(nodes));
        expect(askedBy({ body: nodes }).print).to.equal(named(nodes));
      }),
      { numRuns: 1000 },
    );
  });

  it('has each pair of neighbouring words once, in order', () => {
    fc.assert(
      fc.property(body, (nodes) => {
        const all = wordsOf({ body: nodes });
        const pairs = new Set(all.slice(1).map((word, at) => `${all[at]} ${word}`));
        const { pairs: hashes } = askedBy({ body: nodes });
        expect(hashes.length).to.equal(pairs.size);
        expect([...hashes]).to.deep.equal([...hashes].sort((x, y) => x - y));
      }),
    );
  });

  it('keeps the names that were given before: they are stored', () => {
    const of = (text: string): string => fingerprint({ body: [make.element('p', [make.text(text)])] });
    expect([
      of('Which light is seen?'),
      of('¿Qué luz se ve?'),
      of('どの灯火が見えますか'),
      of(''),
    ]).to.deep.equal(STORED);
  });

  it('is plain text as one reads it', () => {
    fc.assert(
      fc.property(fc.array(paragraph, { maxLength: 4 }), (nodes) => {
        expect(plain(nodes)).to.equal(plainly(nodes));
      }),
    );
    fc.assert(
      fc.property(inline, (node) => {
        expect(plain([node])).to.equal(plainly([node]));
      }),
    );
  });
});
