import { expect } from 'chai';
import fc from 'fast-check';
import { fileReader, oneFile, readHolding, Refusal } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { demoFiles } from '../../../demo/packages.ts';
import { zip } from '../../support/read.ts';

const one = (name: string, bytes: Uint8Array, path: string): Promise<Uint8Array | null> =>
  oneFile(name, bytes, nodePlatform, path);

describe('one file of a package', () => {
  it('is the same as where the whole is opened, for every file of the demo’s packages', async () => {
    let compared = 0;
    for (const { name, bytes } of demoFiles()) {
      const holding = await readHolding(name, bytes, nodePlatform);
      const whole = await fileReader(name, bytes, nodePlatform);
      for (const { path, embedded } of holding.files) {
        if (embedded !== undefined) continue;
        expect(await one(name, bytes, path), `${name} ${path}`).to.deep.equal(whole(path));
        compared += 1;
      }
    }
    expect(compared).to.be.above(5);
  });

  it('is found in a folder around everything, and in a package within the package', async () => {
    const manifest = '<manifest identifier="m"><organizations/><resources/></manifest>';
    const inner = zip({ 'imsmanifest.xml': manifest, 'pic/a.txt': 'inner' });
    const outer = zip({ 'w/imsmanifest.xml': manifest, 'w/a.txt': 'outer', 'w/in.zip': inner });
    const text = async (path: string): Promise<string | null> => {
      const bytes = await one('o.zip', outer, path);
      return bytes && new TextDecoder().decode(bytes);
    };
    expect(await text('a.txt')).to.equal('outer');
    expect(await text('in.zip!/pic/a.txt')).to.equal('inner');
    expect(await text('w/a.txt')).to.equal(null);
    expect(await text('in.zip!/nothing')).to.equal(null);
    expect(await text('nothing.zip!/pic/a.txt')).to.equal(null);
  });

  it('comes through the same door: what cannot be trusted is refused', async () => {
    const bad = zip({ '../up.txt': 'x', 'a.txt': 'y' });
    expect(await one('bad.zip', bad, 'a.txt').catch((error: unknown) => error)).to.be.instanceOf(Refusal);
  });

  it('is none for any path that is no file of it', async () => {
    const bytes = zip({ 'a/b.txt': 'x' });
    await fc.assert(
      fc.asyncProperty(fc.string({ maxLength: 30 }), async (path) => {
        const found = await one('p.zip', bytes, path);
        expect(found === null || path === 'a/b.txt').to.equal(true);
      }),
      { numRuns: 100 },
    );
  });
});
