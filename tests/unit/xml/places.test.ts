import { expect } from 'chai';
import fc from 'fast-check';
import { lineFinder } from '../../../core/src/xml/places.ts';

describe('line and column of a place in a text', () => {
  it('are what counting from the start gives, in whatever order one asks', () => {
    const text = fc
      .array(fc.constantFrom('a', '\n', '\r\n', 'é', ''), { maxLength: 40 })
      .map((p) => p.join(''));
    fc.assert(
      fc.property(text, fc.array(fc.nat(60), { maxLength: 10 }), (given, offsets) => {
        const find = lineFinder(given);
        for (const offset of offsets.map((o) => Math.min(o, given.length))) {
          const before = given.slice(0, offset).split('\n');
          expect(find(offset)).to.deep.equal({ line: before.length, column: before.at(-1)!.length + 1 });
        }
      }),
    );
  });
});
