import { expect } from 'chai';
import fc from 'fast-check';
import { finding, make, TARGETS, type Holding } from '@alforja/core';
import { ItemFits } from '../../../core/src/fit/itemFits.ts';
import { packageFormat } from '../../../core/src/formats/table.ts';
import { anyHolding } from '../../support/arbitraries.ts';

const item = (id: string) => make.item({ id, title: id });

describe('items fitted to a format', () => {
  it('are fitted when they are asked for, each loss is told once, in the order of the items', () => {
    const asked: string[] = [];
    const items = ['a', 'b', 'c'].map(item);
    const fits = new ItemFits(items, ({ id }, lost) => {
      asked.push(id);
      if (id !== 'b') lost.push(finding('loss-kind', 'warning', { node: id }, { what: id }));
      return id.toUpperCase();
    });
    expect(asked).to.deep.equal([]);
    expect([fits.fitted(items[2]!), fits.fitted(items[1]!), fits.fitted(items[2]!)]).to.deep.equal([
      'C',
      'B',
      'C',
    ]);
    expect(fits.allLosses().map((f) => f.where.node)).to.deep.equal(['a', 'c']);
    expect(asked, 'what is known is not found out again').to.deep.equal(['c', 'b', 'c', 'a']);
    fits.allLosses();
    expect(asked).to.have.length(4);
    expect([fits.given('b')?.id, fits.given('x')]).to.deep.equal(['b', undefined]);
  });

  it('lose the same in a forecast and in a package, in whatever order they are looked at', () => {
    const read = (): Uint8Array => new Uint8Array([1]);
    fc.assert(
      fc.property(anyHolding, fc.constantFrom(...TARGETS), fc.boolean(), (holding, target, backwards) => {
        const format = packageFormat(target);
        const plain = format.forecast(holding, target).findings();
        const looked = format.forecast(holding, target);
        for (const one of backwards ? [...holding.items].reverse() : holding.items) looked.look(one);
        expect(looked.findings()).to.deep.equal(plain);
        const written = format.write(holding, target, read);
        for (const entries of written.packages) for (const [path] of entries) expect(path).to.not.equal('');
        expect(written.findings().slice(0, plain.length)).to.deep.equal(plain);
      }),
      { numRuns: 60 },
    );
  });

  it('are written one by one: a package that is not gone through has fitted none', () => {
    let looked = 0;
    const items = ['a', 'b', 'c'].map((id) =>
      Object.defineProperty({ ...item(id) }, 'body', {
        enumerable: true,
        get: () => {
          looked += 1;
          return [];
        },
      }),
    );
    const holding: Holding = { ...make.holding({ title: 'Three' }), items };
    for (const target of TARGETS) {
      looked = 0;
      const [entries] = packageFormat(target).write(holding, target, () => null).packages;
      const steps = entries![Symbol.iterator]();
      expect((steps.next().value as readonly [string, unknown])[0]).to.equal('imsmanifest.xml');
      expect(looked, target).to.equal(0);
      steps.next();
      expect(looked, target).to.be.above(0);
    }
  });
});
