import { expect } from 'chai';
import { Lately } from '@alforja/core';

describe('what was asked for last', () => {
  it('is kept, so many of it, and goes when others were asked for since', () => {
    const lately = new Lately<number>(2);
    lately.set('a', 1);
    lately.set('b', 2);
    expect(lately.get('a'), 'asked for: b is the oldest now').to.equal(1);
    lately.set('c', 3);
    expect(['a', 'b', 'c'].map((key) => lately.get(key))).to.deep.equal([1, undefined, 3]);
    lately.set('a', 4);
    expect([lately.get('a'), lately.get('c')], 'the same again takes no room').to.deep.equal([4, 3]);
  });
});
