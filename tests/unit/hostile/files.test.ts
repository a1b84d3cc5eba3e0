import { expect } from 'chai';
import { readHolding, Refusal } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { HOSTILE } from '../../hostile/all.ts';

/** Each would once have held a thread for good, or taken all its memory; that the test ends is what it asks. */
describe('hostile files', () => {
  for (const { name, file, make, then, slow } of HOSTILE) {
    if (slow) continue;
    it(name, async () => {
      const came = await readHolding(file, make(), nodePlatform).catch((error: unknown) => {
        if (error instanceof Refusal) return error;
        throw error;
      });
      if (then === 'refused') expect(came).to.be.instanceOf(Refusal);
      else if (then) {
        if (came instanceof Refusal) throw came;
        expect(came.items.length).to.be.at.least(then.items);
        // What is wrong with one is not said of the other.
        const good = came.items.find((i) => i.id === 'good');
        if (good) {
          const about = came.findings.filter((f) => f.where.node === 'good' && f.severity === 'error');
          expect(about).to.deep.equal([]);
          expect(good.points).to.equal(1);
        }
      }
    });
  }

  it('whose scoring was broken off are named for it, and nothing is made up about them', async () => {
    const found = HOSTILE.find((h) => h.name.startsWith('repeat within repeat'))!;
    const { items, findings } = await readHolding(found.file, found.make(), nodePlatform);
    expect(findings.filter((f) => f.code === 'scoring-too-long').map((f) => f.where.node)).to.deep.equal([
      'bad',
    ]);
    expect(items.find((i) => i.id === 'bad')).to.include({ pointsExact: false });
  });
});
