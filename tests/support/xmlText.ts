import fc from 'fast-check';

/** Documents as text, written in the ways that XML allows, and the same with something changed in them. */

const NAMES = ['item', 'mattext', 'a', 'x-y_1.z', 'constructor', '__proto__', 'toString'];
const SAID = ['tide', ' ', 'é', '海', '😀', '&amp;', '&lt;', '&#233;', '&#x6D77;', '\r\n', ']]', '>'];
const blank = fc.constantFrom('', ' ', '\n', '\t', ' \r\n ');
const gap = fc.constantFrom(' ', '\n  ', '\t', '\r\n');
const joined = (parts: readonly string[]): string => parts.join('');

/**
 * Well-formed but for attributes that stand twice, and "]]>" in a text.
 * @param more names and pieces of text beside the plain ones, as HTML's entities are
 */
export function xmlText(more: { names?: string[]; said?: string[] } = {}): fc.Arbitrary<string> {
  const name = fc.constantFrom(...NAMES, ...(more.names ?? []));
  const said = fc.array(fc.constantFrom(...SAID, ...(more.said ?? [])), { maxLength: 6 }).map(joined);
  const attribute = fc
    .tuple(gap, name, blank, blank, fc.constantFrom('"', "'"), said)
    .map(([before, key, a, b, quote, value]) => `${before}${key}${a}=${b}${quote}${value}${quote}`);
  const { element } = fc.letrec<{ element: string; content: string }>((tie) => ({
    element: fc
      .tuple(
        name,
        fc.array(attribute, { maxLength: 2 }),
        blank,
        fc.option(fc.array(tie('content'), { maxLength: 3 })),
      )
      .map(([tag, attrs, end, inside]) =>
        inside === null
          ? `<${tag}${joined(attrs)}${end}/>`
          : `<${tag}${joined(attrs)}${end}>${joined(inside)}</${tag}${end}>`,
      ),
    content: fc.oneof(
      { maxDepth: 4, withCrossShrink: true },
      said,
      fc.constantFrom('<!-- a - b -->', '<![CDATA[<b>&amp;]]>', '<![CDATA[]]>'),
      tie('element'),
    ),
  }));
  const declaration = fc.constantFrom(
    '',
    '<?xml version="1.0"?>',
    "<?xml version='1.0' encoding='UTF-8' standalone='yes' ?>\n",
  );
  const before = fc.constantFrom('', '\n', '<!-- first -->');
  const after = fc.constantFrom('', '\n', '<!-- last -->\n');
  return fc.tuple(declaration, before, element, after).map(joined);
}

const PIECES = Array.from('</>&;"\'= \n\r:!?é\u0000\uFFFE\uFEFF\u00A0\u2028').concat(
  ']]> <!-- --> -- <![CDATA[ <?x?> &#0; &#x110000; &#xD800; &tide; &amp <a> </a> <a/> x="1" <b c="f">'.split(
    ' ',
  ),
  ['<!DOCTYPE a>', '\uD800'],
);

/** The same with something taken out, or put in, in up to three places. */
export const changedXml = (of: fc.Arbitrary<string>): fc.Arbitrary<string> => {
  const change = fc.record({
    at: fc.double({ min: 0, max: 1, noNaN: true }),
    gone: fc.integer({ min: 0, max: 3 }),
    come: fc.constantFrom('', ...PIECES),
  });
  return fc.tuple(of, fc.array(change, { minLength: 1, maxLength: 3 })).map(([text, changes]) =>
    changes.reduce((now, { at, gone, come }) => {
      const place = Math.floor(at * now.length);
      return now.slice(0, place) + come + now.slice(place + gone);
    }, text),
  );
};
