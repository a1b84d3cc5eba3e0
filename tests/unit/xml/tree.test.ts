import { expect } from 'chai';
import fc from 'fast-check';
import { parseXml } from '../../../core/src/xml/parse.ts';
import {
  descendants,
  hasDescendant,
  isElement,
  mentions,
  rawXml,
  textOf,
  type XmlDocument,
  type XmlElement,
} from '../../../core/src/xml/tree.ts';
import { xmlText } from '../../support/xmlText.ts';

const parsed = (text: string): XmlDocument | null => {
  const result = parseXml(text);
  return result.ok ? result.document : null;
};
const all = (element: XmlElement): XmlElement[] => [
  element,
  ...element.children.filter(isElement).flatMap((e) => all(e)),
];

describe('a tree of XML', () => {
  it('gives the raw text of every element, which is that element when read by itself', () => {
    fc.assert(
      fc.property(xmlText(), (text) => {
        const document = parsed(text);
        if (!document) return;
        for (const element of all(document.root)) {
          const alone = parsed(rawXml(document, element))!.root;
          expect([alone.name, textOf(alone)]).to.deep.equal([element.name, textOf(element)]);
          expect(Object.entries(alone.attrs)).to.deep.equal(Object.entries(element.attrs));
        }
      }),
    );
  });

  it('declares with an element what its prefixes stand for, once', () => {
    const inside = '<m:math><m:mi q:x="1">a</m:mi></m:math>';
    const document = parsed(`<item xmlns:m="urn:m" xmlns:q="urn:q&amp;x"><p>${inside}</p></item>`)!;
    const [math] = descendants(document.root, 'math');
    expect(rawXml(document, math!)).to.equal(
      inside.replace('<m:math', '<m:math xmlns:m="urn:m" xmlns:q="urn:q&amp;x"'),
    );
    expect(rawXml(document, document.root)).to.equal(document.text);
  });

  it('knows whether there is an element, and whether a word stands anywhere, before it is looked for', () => {
    fc.assert(
      fc.property(xmlText(), fc.constantFrom('item', 'a', 'x-y_1.z', 'constructor'), (text, name) => {
        const document = parsed(text);
        if (!document) return;
        const found = descendants(document.root, name);
        expect(hasDescendant(document.root, name)).to.equal(found.length > 0);
        if (found.length > 0) expect(mentions(document, name)).to.equal(true);
        expect(found).to.deep.equal(all(document.root).filter((e) => e.name === name && e !== document.root));
      }),
    );
  });
});
