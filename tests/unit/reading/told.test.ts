import { expect } from 'chai';
import { fingerprint, readHolding, type Item } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { largePackage } from '../../../demo/large.ts';
import { demoFiles } from '../../../demo/packages.ts';

const LARGE = largePackage(1300);

describe('a reading that is told of while it goes on', () => {
  it('gives every item in order, once and whole, and waits where it is asked to', async () => {
    for (const { name, bytes } of [...demoFiles(), { name: 'large.zip', bytes: LARGE }]) {
      const told: Item[] = [];
      const prints: string[] = [];
      let waiting = 0;
      const holding = await readHolding(name, bytes, nodePlatform, {
        onItem(item, { asked, of }) {
          expect(waiting, 'before the one before was kept').to.equal(0);
          expect(of).to.be.at.least(told.length + 1);
          told.push(item);
          prints.push(asked(item).print);
          if (told.length % 7 !== 0) return undefined;
          waiting += 1;
          return new Promise((done) =>
            setImmediate(() => {
              waiting -= 1;
              done();
            }),
          );
        },
      });
      expect(told, name).to.deep.equal(holding.items);
      expect(prints, name).to.deep.equal(holding.items.map((i) => fingerprint(i)));
      const plain = await readHolding(name, bytes, nodePlatform);
      expect(plain, `${name}: whoever is told changes nothing`).to.deep.equal(holding);
    }
  });

  it('tells what a package begins with before the rest of it has been read', async () => {
    const order: string[] = [];
    const holding = await readHolding('large.zip', LARGE, nodePlatform, {
      onFirst: (items) => {
        order.push(`first ${items.length}`);
        expect(items.slice(0, 40).map((i) => i.id)).to.deep.equal(
          Array.from({ length: 40 }, (_, n) => `large-${n + 1}`),
        );
        return Promise.resolve();
      },
      onItem: (item) => {
        if (order.length < 2) order.push(item.id);
        return undefined;
      },
    });
    expect(order).to.deep.equal(['first 500', 'large-1']);
    expect(holding.items.length).to.equal(1300);
  });
});
