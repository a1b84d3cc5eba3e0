import { expect } from 'chai';
import { Recent } from '../../../core/src/model/recent.ts';

describe('what was found out of the latest objects', () => {
  it('is known of thousands, and forgotten of those before them', () => {
    const recent = new Recent<object, number>();
    const keys = Array.from({ length: 20_000 }, () => ({}));
    keys.forEach((key, n) => recent.set(key, n));
    expect(keys.slice(-4096).every((key, n) => recent.get(key) === 20_000 - 4096 + n)).to.equal(true);
    expect(keys.slice(0, 10_000).map((key) => recent.get(key))).to.deep.equal(Array(10_000).fill(undefined));
    recent.set(keys[0]!, 7);
    expect([recent.get(keys[0]!), recent.get({})]).to.deep.equal([7, undefined]);
  });
});
