import { expect } from 'chai';
import fc from 'fast-check';
import {
  HeldItem,
  recognise,
  within,
  type Item,
  type PackedRecognised,
  type Recognised,
} from '@alforja/core';
import { itemCodec } from '../../../src/lib/server/store/documents/packages.ts';
import { pack, unpack } from '../../../src/lib/server/store/packed.ts';
import { demoFiles } from '../../../demo/packages.ts';
import { largePackage } from '../../../demo/large.ts';
import { read } from '../../support/read.ts';

const shape: Recognised['shape'] = { kind: 'all-or-nothing', points: 1, ordered: false };
const recognised = (key: string, more: Partial<Recognised> = {}): Recognised => ({
  shape,
  best: { answers: { [key]: ['A'] }, raw: 1, exact: true },
  key: { [key]: ['A'] },
  numbers: {},
  ...more,
});

/** An item as it comes out of its row. */
const heldAs = (text: string): Item => {
  const packed: PackedRecognised = {
    item: () => itemCodec.read(text),
    recognised: () => itemCodec.recognised(text),
  };
  return HeldItem.of({}, within([]), { packed, at: 0 });
};

describe('documents of items', () => {
  let some: readonly Item[];
  before(async () => {
    some = (await read(largePackage(10), 'large.zip')).items;
  });

  it('give back every item of the demo, and what its scoring was recognised as', async () => {
    for (const { name, bytes } of demoFiles()) {
      const { items } = await read(bytes, name);
      for (const item of items) {
        const found = recognise(item);
        const text = unpack(pack(itemCodec.write(item, found)));
        expect(itemCodec.read(text)).to.deep.equal(itemCodec.read(itemCodec.write(item)));
        expect(itemCodec.recognised(text)).to.deep.equal(found);
        expect(recognise(itemCodec.read(text))).to.deep.equal(found);
      }
    }
  });

  it('are what an item is recognised as where it lies packed, without running it', () => {
    const item = some[0]!;
    const other = recognised('not what running it comes to');
    expect(recognise(heldAs(itemCodec.write(item, other)))).to.deep.equal(other);
    expect(recognise(heldAs(itemCodec.write(item)))).to.deep.equal(recognise(item));
    // Whoever changes an item has another item.
    expect(recognise({ ...heldAs(itemCodec.write(item, other)) })).to.deep.equal(recognise(item));
  });

  it('bear responses of any name, and texts with line breaks', () => {
    const item = some[0]!;
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 20 }), fc.string({ maxLength: 20 }), (id, title) => {
        const name = id.toWellFormed();
        for (const key of [name, '__proto__', 'constructor', `${name}\n{"$v":1}`]) {
          const text = itemCodec.write({ ...item, title: `${title}\n${name}` }, recognised(key));
          expect(itemCodec.read(text).title).to.equal(`${title}\n${name}`);
          expect(JSON.stringify(itemCodec.recognised(text))).to.equal(JSON.stringify(recognised(key)));
        }
      }),
    );
  });

  it('say nothing of what was broken off, and of what JSON cannot say', () => {
    const item = some[0]!;
    const tolerance = {
      mode: 'range',
      low: 1,
      high: Number.POSITIVE_INFINITY,
      includesLow: true,
      includesHigh: true,
    } as const;
    const endless: Recognised['shape'] = { kind: 'numeric', points: 1, value: 1, stated: true, tolerance };
    for (const found of [recognised('a', { cut: true }), recognised('a', { shape: endless })])
      expect(itemCodec.write(item, found)).to.equal(itemCodec.write(item));
    expect(itemCodec.recognised(itemCodec.write(item))).to.equal(null);
  });

  it('take a tenth more with it than without', () => {
    const size = (of: readonly string[]): number => of.reduce((sum, text) => sum + pack(text).length, 0);
    const bare = size(some.map((item) => itemCodec.write(item)));
    expect(size(some.map((item) => itemCodec.write(item, recognise(item))))).to.be.below(bare * 1.1);
  });
});
