import { expect } from 'chai';
import fc from 'fast-check';
import { ownText } from '../../../core/src/model/ownText.ts';

describe('a text in memory of its own', () => {
  it('is the same text, wherever it was cut out, in any script', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 60 }), fc.nat(60), fc.nat(60), (text, from, to) => {
        const part = text.slice(from, to);
        expect(ownText(part)).to.equal(part);
      }),
    );
    expect(ownText('الملاحة الساحلية ⚓ 潮汐')).to.equal('الملاحة الساحلية ⚓ 潮汐');
  });
});
