import { expect } from 'chai';
import fc from 'fast-check';
import { parseSlowly, parseXml } from '../../../core/src/xml/parse.ts';
import { quickTree } from '../../../core/src/xml/quick.ts';
import type { XmlDocument, XmlNode } from '../../../core/src/xml/tree.ts';
import { changedXml, xmlText } from '../../support/xmlText.ts';

const DEPTH = 200;

/** All that readers see of a document, as something that can be compared. */
const shown = ({ root, ...document }: XmlDocument): unknown => ({ ...document, root: nodeShown(root) });
const nodeShown = (node: XmlNode): unknown =>
  node.type === 'text'
    ? node.text
    : {
        name: [node.prefix, node.name],
        attrs: Object.entries(node.attrs),
        at: [node.start, node.end],
        children: node.children.map(nodeShown),
      };

/** What the full parser makes of it; null where it refuses it. */
function slowly(text: string): unknown {
  const parsed = parseSlowly(text, DEPTH);
  return parsed.ok ? shown(parsed.document) : null;
}

/** What is plain is the same tree; what is not plain is no tree at all. */
function agree(text: string): boolean {
  const quick = quickTree(text, DEPTH);
  if (quick) expect(shown(quick), JSON.stringify(text)).to.deep.equal(slowly(text));
  return quick !== null;
}

const whole = xmlText({ names: ['m:math'], said: ['&nbsp;'] });

describe('XML that is plainly well-formed', () => {
  it('gives the tree that the full parser gives', () => {
    let plain = 0;
    fc.assert(
      fc.property(whole, (text) => {
        if (agree(text)) plain += 1;
      }),
      { numRuns: 1000 },
    );
    // Attributes that stand twice, and "]]>" in a text, are all that is not.
    expect(plain).to.be.greaterThan(600);
  });

  it('is never taken for it when it is not: whatever is changed in it', () => {
    fc.assert(
      fc.property(changedXml(whole), (text) => {
        agree(text);
      }),
      { numRuns: 4000 },
    );
  });

  const doubtful: [what: string, text: string][] = [
    ['a document type', '<!DOCTYPE a><a/>'],
    ['a processing instruction', '<?style x?><a/>'],
    ['another version of XML', '<?xml version="1.1"?><a/>'],
    ['a name beyond ASCII', '<é/>'],
    ['an attribute twice', '<a b="1" b="2"/>'],
    ['no blank between attributes', '<a b="1"c="2"/>'],
    ['"<" in an attribute', '<a b="<"/>'],
    ['"]]>" in a text', '<a>]]></a>'],
    ['"--" in a comment', '<a><!-- -- --></a>'],
    ['an entity nobody knows', '<a>&tide;</a>'],
    ['a character that may not stand there', '<a>\u0001</a>'],
    ['half a surrogate pair', '<a>\uD83D</a>'],
    ['a reference to no character', '<a>&#0;</a>'],
    ['a second root', '<a/><b/>'],
    ['a text after the root', '<a/>x'],
    ['an element that does not end', '<a><b></a>'],
    ['a tag that does not end', '<a'],
    ['nothing', ''],
  ];
  for (const [what, text] of doubtful)
    it(`leaves ${what} to the full parser`, () => expect(quickTree(text, DEPTH)).to.equal(null));

  it('leaves what is nested too deep to it, which says so', () => {
    const text = '<a>'.repeat(4) + '</a>'.repeat(4);
    expect(quickTree(text, 4)).to.not.equal(null);
    expect(quickTree(text, 3)).to.equal(null);
    const parsed = parseXml(text, { maxDepth: 3 });
    expect(parsed.ok ? '' : parsed.problem.code).to.equal('xml-too-deep');
  });

  it('knows names that every object has for attributes that are there, and only then', () => {
    const { root } = quickTree('<a constructor="1" __proto__="2"><b/></a>', DEPTH)!;
    expect([root.attrs['constructor'], root.attrs['__proto__'], root.attrs['toString']]).to.deep.equal([
      '1',
      '2',
      undefined,
    ]);
    const [inner] = root.children;
    expect(inner?.type === 'element' && inner.attrs['constructor']).to.equal(undefined);
  });
});
