import { expect } from 'chai';
import fc from 'fast-check';
import { block, documentPieces, escapeText, tag, xmlDocument } from '../../../core/src/xml/write.ts';
import { parseXml } from '../../../core/src/xml/parse.ts';
import { descendants, textOf } from '../../../core/src/xml/tree.ts';
import { Gathered } from '../../../core/src/model/gathered.ts';

const text = fc.stringMatching(/^[a-z <>&"\n\r\t]{0,12}$/u);
const element = fc.oneof(
  fc.constant(''),
  text.map((t) => tag('a', { title: t }, escapeText(t))),
  fc.array(text, { maxLength: 3 }).map((list) =>
    block(
      'b',
      { n: list.length },
      list.map((t) => tag('c', {}, escapeText(t))),
    ),
  ),
);

describe('an indented document', () => {
  it('says what it was given: no break within a text counts as the begin of a line (property)', () => {
    const breaks = fc.stringMatching(/^[a <>\n\r\u2028\u2029]{0,8}$/u);
    fc.assert(
      fc.property(fc.array(fc.tuple(breaks, breaks), { maxLength: 4 }), (texts) => {
        const lines = texts.map(([before, within]) =>
          tag('p', {}, escapeText(before) + tag('em', {}, escapeText(within))),
        );
        const parsed = parseXml(xmlDocument(block('root', {}, [block('body', {}, lines)])));
        expect(parsed.ok && descendants(parsed.document.root, 'p').map(textOf)).to.deep.equal(
          texts.map(([before, within]) => before + within),
        );
      }),
    );
  });
});

describe('a document that is written piece by piece', () => {
  it('is the same, letter by letter, as one that is written at once (property)', () => {
    fc.assert(
      fc.property(fc.array(element), fc.array(element), text, (head, children, title) => {
        const attrs = { title };
        const pieces = [...documentPieces({ name: 'm', attrs, head, list: 'list', children })];
        expect(pieces.join('')).to.equal(
          xmlDocument(block('m', attrs, [...head, block('list', {}, children)])),
        );
      }),
    );
  });

  it('makes its children when their turn comes', () => {
    const made: number[] = [];
    function* children(): Generator<string> {
      for (let n = 0; n < 3; n++) {
        made.push(n);
        yield tag('a', { n });
      }
    }
    const pieces = documentPieces({ name: 'm', attrs: {}, head: [], list: 'list', children: children() });
    for (let piece = pieces.next(); !String(piece.value).includes('n="0"');) piece = pieces.next();
    expect(made).to.deep.equal([0]);
  });
});

describe('bytes that come piece by piece', () => {
  it('are all there, in order, however large each is (property)', () => {
    const sizes = fc.array(fc.constantFrom(0, 1, 3, 100_000, 700_000, 1_100_000), { maxLength: 6 });
    fc.assert(
      fc.property(sizes, (lengths) => {
        const pieces = lengths.map((length, n) => new Uint8Array(length).fill(n + 1));
        const gathered = new Gathered();
        for (const piece of pieces) gathered.add(piece);
        const wanted = Buffer.concat([...pieces, Buffer.from([9, 9])]);
        expect(gathered.bytes).to.equal(wanted.length - 2);
        expect(wanted.equals(gathered.whole(new Uint8Array([9, 9])))).to.equal(true);
      }),
      { numRuns: 30 },
    );
  });
});
