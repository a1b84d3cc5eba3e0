import { expect } from 'chai';
import { fingerprint, readHolding, totalPoints, writeHolding, type Holding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { largePackage } from '../../../demo/large.ts';
import { items } from '../../../src/lib/server/store/schema.ts';
import { bringIn } from '../../../src/lib/server/library/packages.ts';
import { db } from '../../../src/lib/server/store/database.ts';
import { storeBytes } from '../../../src/lib/server/store/files.ts';
import { itemsOf } from '../../../src/lib/server/store/items.ts';
import { jobsUnderWay } from '../../../src/lib/server/store/jobs.ts';
import { searchItems } from '../../../src/lib/server/store/searchItems.ts';
import { eq } from 'drizzle-orm';
import { ItemRows } from '../../../src/lib/server/work/itemRows.ts';
import { RowThread } from '../../../src/lib/server/work/rowThread.ts';
import { brought, closeServer, openServer, until } from '../../support/server.ts';

/** Items that a quiz gives otherwise than they are worth: among the first, of the others, and the last. */
const OTHERWISE = [3, 1040, 1099];

/** A package with so many items that a thread of its own stores them. */
async function weighted(): Promise<Uint8Array> {
  const plain = await readHolding('large.zip', largePackage(1100), nodePlatform);
  const listed = OTHERWISE.map((at) => ({ item: plain.items[at]!.id, weight: 3 }));
  const quizzes = plain.quizzes.map((quiz) => ({
    ...quiz,
    sections: [{ ...quiz.sections[0]!, items: listed, draw: null }],
  }));
  const given: Holding = { ...plain, quizzes };
  return writeHolding(given, 'qti2.1', () => null, nodePlatform).packages[0]!;
}

const PRINT = '';

describe('storing items while others are read', () => {
  before(() => openServer());
  after(() => closeServer());

  it('keeps each in its place, as the whole package has it', async () => {
    const bytes = await weighted();
    const whole = await readHolding('weighted.zip', bytes, nodePlatform);
    expect(OTHERWISE.map((at) => whole.items[at]!.scale)).to.deep.equal([3, 3, 3]);
    const { readingId, summary } = await brought('weighted.zip', bytes);
    expect(await itemsOf(readingId!)).to.deep.equal(whole.items);
    expect(summary!.points).to.equal(totalPoints(whole.items));
    const rows = await db
      .select({ points: items.points, print: items.fingerprint })
      .from(items)
      .where(eq(items.readingId, readingId!))
      .orderBy(items.seq);
    expect(rows).to.deep.equal(whole.items.map((i) => ({ points: i.points, print: fingerprint(i) })));
    // A row that was taken anew is found once.
    const found = await searchItems(whole.items[1040]!.id, 5);
    expect(found.filter((hit) => hit.seq === 1040)).to.have.length(1);
  });

  it('keeps of one place what came last, stored in between or not', async () => {
    const { readingId } = await brought('few.zip', largePackage(4, 5));
    const some = await itemsOf(readingId!);
    const rows = new ItemRows(readingId!);
    const put = (title: string, seq: number, again: boolean): unknown =>
      rows.add({ item: { ...some[seq % 4]!, title }, print: PRINT, seq, again });
    put('replaced in the database', 2, true);
    put('new', 4, false);
    put('replaced before it was stored', 4, true);
    await rows.flush();
    expect((await itemsOf(readingId!)).map((i) => i.title)).to.deep.equal([
      ...[some[0]!.title, some[1]!.title, 'replaced in the database', some[3]!.title],
      'replaced before it was stored',
    ]);
  });

  it('is let go where the reading is stopped meanwhile, and stands in nobody’s way', async () => {
    const runner = await openServer();
    const before = await db.$count(items);
    await bringIn('stopped.zip', await storeBytes(largePackage(1500, 2)));
    await until('rows of it', async () => (await db.$count(items)) > before);
    const [job] = await jobsUnderWay();
    await runner.cancel(job!.id);
    const { summary, readingId } = await brought('next.zip', largePackage(30, 3));
    expect(summary!.items).to.equal(30);
    expect(await itemsOf(readingId!)).to.have.length(30);
  });

  it('says why something could not be stored, and takes no more', async () => {
    const { items: some } = await readHolding('some.zip', largePackage(40), nodePlatform);
    const thread = new RowThread({ readingId: 'nobody', by: { job: 'none', owner: 'none' } });
    thread.post(some.map((item, seq) => ({ item, print: PRINT, seq, again: false })));
    const failed = await thread
      .finish(() => undefined)
      .then(
        () => null,
        (error: unknown) => error,
      );
    expect(failed).to.be.instanceOf(Error);
    expect(() => thread.room()).not.to.throw();
    await thread.end();
    expect(await db.select().from(items).where(eq(items.readingId, 'nobody'))).to.deep.equal([]);
  });
});
