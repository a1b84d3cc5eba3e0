import { expect } from 'chai';
import fc from 'fast-check';
import { pack, packedText, unpack } from '../../../src/lib/server/store/packed.ts';
import { itemCodec } from '../../../src/lib/server/store/documents/packages.ts';
import { largePackage } from '../../../demo/large.ts';
import { read } from '../../support/read.ts';

describe('packed documents', () => {
  it('give back every text, in any script', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 3000 }), (text) => {
        // A text of half a character is none that JSON writes.
        const whole = text.toWellFormed();
        expect(unpack(pack(whole))).to.equal(whole);
      }),
    );
    const arabic = JSON.stringify({ title: 'مدّ وجزر', choices: ['潮汐', 'Ñandú', '🧭'] });
    expect(unpack(pack(arabic))).to.equal(arabic);
  });

  it('take a fraction of what items take as JSON', async () => {
    const { items } = await read(largePackage(50), 'large.zip');
    const plain = items.map((item) => itemCodec.write(item));
    const bytes = (of: readonly { length: number }[]): number => of.reduce((sum, x) => sum + x.length, 0);
    expect(bytes(plain.map(pack))).to.be.below(bytes(plain) / 6);
    expect(plain.map((text) => unpack(pack(text)))).to.deep.equal(plain);
  });

  it('of another kind, or damaged, are no document', () => {
    const packed = pack('{"id":"a"}');
    expect(() => unpack(new Uint8Array([9, ...packed.slice(1)]))).to.throw(/kind/u);
    expect(() => unpack(packed.slice(0, 4))).to.throw();
    expect(() => unpack(new Uint8Array())).to.throw();
  });

  it('stand beside plain text that an older version wrote', () => {
    const column = packedText('json') as unknown as { config: { customTypeParams: object } };
    const { fromDriver } = column.config.customTypeParams as { fromDriver: (kept: unknown) => string };
    expect(fromDriver('{"$v":1}')).to.equal('{"$v":1}');
    expect(fromDriver(pack('{"$v":1}').buffer)).to.equal('{"$v":1}');
  });
});
