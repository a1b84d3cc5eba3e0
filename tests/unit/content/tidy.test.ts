import { expect } from 'chai';
import fc from 'fast-check';
import { make, plain, type ContentNode } from '@alforja/core';
import { bodyOf, tidy } from '../../../core/src/content/tidy.ts';

const said = fc
  .array(fc.constantFrom('tide', 'é', '海', ' ', '  ', '\n', '\t', '\u00A0'), { maxLength: 5 })
  .map((parts): ContentNode => make.text(parts.join('')));
const { content } = fc.letrec<{ content: ContentNode[]; node: ContentNode }>((tie) => ({
  content: fc.array(tie('node'), { maxLength: 4 }),
  node: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    said,
    fc
      .tuple(fc.constantFrom('p', 'em', 'br', 'pre', 'div'), tie('content'))
      .map(([name, inside]): ContentNode => make.element(name, inside)),
    fc.array(said, { maxLength: 2 }).map((inside): ContentNode =>
      make.choiceInteraction({
        responseId: 'R',
        prompt: inside,
        choices: [{ id: 'A', content: inside, fixed: false }],
      }),
    ),
  ),
}));

describe('tidied content', () => {
  it('stays as it is when it is tidied again: the very same list', () => {
    fc.assert(
      fc.property(content, (nodes) => {
        const once = tidy(nodes);
        expect(tidy(once)).to.deep.equal(once);
        const [only] = once;
        if (once.length === 1 && only!.kind === 'text' && /^[a-z]+$/u.test(only!.text))
          expect(tidy(once)).to.equal(once);
      }),
    );
  });

  it('says the same as before, but for white space that nobody sees', () => {
    fc.assert(
      fc.property(content, (nodes) => {
        const seen = (list: readonly ContentNode[]): string => plain(list).replace(/\s+/gu, '');
        expect(seen(tidy(nodes))).to.equal(seen(nodes));
        expect(seen(bodyOf(nodes))).to.equal(seen(nodes));
      }),
    );
  });
});
