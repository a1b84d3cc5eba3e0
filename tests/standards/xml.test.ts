import { expect } from 'chai';
import fc from 'fast-check';
import { XmlDocument } from 'libxml2-wasm';
import { quickTree } from '../../core/src/xml/quick.ts';
import type { XmlElement } from '../../core/src/xml/tree.ts';
import { changedXml, xmlText } from '../support/xmlText.ts';

/** What libxml2 reads of a document: its root's name and all of its text; null where it is not well-formed. */
function byLibxml(text: string): { name: string; said: string } | null {
  try {
    const document = XmlDocument.fromString(text);
    const said = { name: document.root.name, said: document.root.content };
    document.dispose();
    return said;
  } catch {
    return null;
  }
}

const saidIn = (element: XmlElement): string =>
  element.children.map((n) => (n.type === 'text' ? n.text : saidIn(n))).join('');

/** XML 1.0, fifth edition, 2.1 "Well-Formed XML Documents", as libxml2 understands it. */
describe('documents read in one pass, by a parser that is not ours', () => {
  it('are well-formed, and say the same', () => {
    let taken = 0;
    fc.assert(
      fc.property(fc.oneof(xmlText(), changedXml(xmlText())), (text) => {
        const quick = quickTree(text, 200);
        if (!quick) return;
        taken += 1;
        const other = byLibxml(text);
        expect(other, JSON.stringify(text)).to.not.equal(null);
        expect(quick.root.name).to.equal(other!.name);
        expect(saidIn(quick.root)).to.equal(other!.said);
      }),
      { numRuns: 3000 },
    );
    expect(taken).to.be.greaterThan(1000);
  });
});
