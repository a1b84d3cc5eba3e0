// XML Schema Part 2: Datatypes, Second Edition, Appendix F "Regular Expressions" (its grammar from memory); the
// reference is libxml2, which validates the `pattern` facet of a simple type.
import { expect } from 'chai';
import fc from 'fast-check';
import { XmlDocument, XsdValidator } from 'libxml2-wasm';
import { compilePattern } from '../../core/src/scoring/pattern.ts';
import { escapeText } from '../../core/src/xml/write.ts';

const attribute = (text: string): string => escapeText(text).replace(/"/gu, '&quot;');

/** Whether libxml2 takes a text for one of a type with this pattern; null where it does not take the pattern. */
function reference(pattern: string, texts: readonly string[]): boolean[] | null {
  const schema = XmlDocument.fromString(
    `<xs:schema xmlns:xs="http://www.w3.org/2001/XMLSchema"><xs:element name="t"><xs:simpleType><xs:restriction base="xs:string"><xs:pattern value="${attribute(pattern)}"/></xs:restriction></xs:simpleType></xs:element></xs:schema>`,
  );
  let validator: XsdValidator | null = null;
  try {
    validator = XsdValidator.fromDoc(schema);
    return texts.map((text) => {
      const document = XmlDocument.fromString(`<t>${escapeText(text)}</t>`);
      try {
        validator!.validate(document);
        return true;
      } catch {
        return false;
      } finally {
        document.dispose();
      }
    });
  } catch {
    return null;
  } finally {
    validator?.dispose();
    schema.dispose();
  }
}

function ours(pattern: string, texts: readonly string[]): boolean[] {
  const compiled = compilePattern(pattern);
  if (!compiled.ok) throw new Error(`${pattern}: ${compiled.why}`);
  return texts.map(compiled.matches);
}

describe('patterns of XML Schema', () => {
  const TEXTS = [
    '',
    'a',
    'b',
    'ab',
    'aab',
    'e',
    'bcd',
    'bad',
    'A',
    '5',
    '٣',
    '-5',
    '3.14',
    'a-b',
    'x y',
    'é',
    'α',
    '_',
    '[',
    ']',
  ];
  for (const pattern of [
    '(a|a|aa)*b',
    '[a-z-[aeiou]]+',
    '[^a-c]+',
    '\\d{1,3}',
    '[+\\-]?\\d+(\\.\\d+)?',
    '\\p{L}+',
    '\\P{L}+',
    '\\p{Lu}',
    '\\i\\c*',
    '\\S+\\s\\S+',
    '.{2}',
    '[\\w]',
    '\\[|\\]',
    'a{2,}b?',
    'a{2}b|x y',
    '[\\d.]+',
    '[a\\-b]+',
    '(ab)?',
    '\\p{IsGreekandCoptic}|é',
  ])
    it(`${pattern} takes what libxml2 takes`, () => {
      const wanted = reference(pattern, TEXTS);
      // The name of the block differs between editions.
      if (wanted === null && pattern.includes('Is')) return;
      expect(wanted, 'taken by the reference').to.not.equal(null);
      expect(ours(pattern, TEXTS)).to.deep.equal(wanted);
    });

  it('made at random take what the same in ECMAScript takes', () => {
    // The same atom in both: what is subtracted is looked ahead for there.
    const atom = fc.constantFrom(
      ...['a', 'b', '-', '5', '[ab]', '[^a]', '\\p{L}', '\\.', '[\\-a]'].map((x) => [x, x] as const),
      ['[a-c-[b]]', '(?:(?!b)[a-c])'] as const,
      ['[^a-[b]]', '(?:(?!b)[^a])'] as const,
      ['\\d', '\\p{Nd}'] as const,
      ['.', '[^\\n\\r]'] as const,
    );
    const times = fc.constantFrom('', '', '?', '*', '+', '{2}', '{1,2}');
    const piece = fc.tuple(atom, times).map(([[x, e], t]) => [x + t, e + t] as const);
    const branch = fc
      .array(piece, { minLength: 1, maxLength: 4 })
      .map((pieces) => [pieces.map(([x]) => x).join(''), pieces.map(([, e]) => e).join('')] as const);
    const pattern = fc
      .tuple(branch, branch, times)
      .map(([[xa, ea], [xb, eb], t]) => [`(${xa}|${xb})${t}`, `^(?:(?:${ea}|${eb})${t})$`] as const);
    const texts = fc.array(fc.stringMatching(/^[abc5.-]{0,5}$/u), { minLength: 5, maxLength: 12 });
    fc.assert(
      fc.property(pattern, texts, ([schema, script], t) => {
        const wanted = new RegExp(script, 'u');
        expect(ours(schema, t), schema).to.deep.equal(t.map((text) => wanted.test(text)));
      }),
      { numRuns: 400 },
    );
  });

  it('that are no such patterns are named for what they are', () => {
    const why = (pattern: string): string | null => {
      const compiled = compilePattern(pattern);
      return compiled.ok ? null : compiled.why;
    };
    expect(why('(a)\\1')).to.match(/repeats what a group has matched/u);
    expect(why('a(?=b)')).to.match(/looks around itself/u);
    expect(why('[a')).to.match(/not ended/u);
    expect(why('\\p{Zz}')).to.match(/category/u);
    expect(why('a{5000}')).to.match(/repeat count/u);
    expect(why('x'.repeat(2000))).to.match(/1000 characters/u);
  });
});
