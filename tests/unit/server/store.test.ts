import { randomUUID } from 'node:crypto';
import { expect } from 'chai';
import { db, onCommit, write } from '../../../src/lib/server/store/database.ts';
import { openStore } from '../../../src/lib/server/store/open.ts';
import { queuedJobs, queueJob, queueJobAnew, underWay } from '../../../src/lib/server/store/jobs.ts';
import { keepPackage } from '../../../src/lib/server/store/packages.ts';
import { setTicks, ticksOf } from '../../../src/lib/server/store/ticks.ts';
import {
  changeTransfer,
  insertTransfer,
  listTransfers,
  transferById,
} from '../../../src/lib/server/store/transfers.ts';
import { changeOwnRubric, insertOwnRubric, ownRubricById } from '../../../src/lib/server/store/ownRubrics.ts';
import { newRubric } from '../../../core/src/edit/index.ts';

const sha = (): string => randomUUID().replaceAll('-', '').padEnd(64, '0');
const newPackage = (name = 'a.zip'): Promise<string> =>
  write(async (tx) => (await keepPackage(tx, { name, sha256: sha(), bytes: 1, cameBy: 'file' })).package.id);
const newTransfer = async (title = 'A transfer'): Promise<string> => {
  const packageId = await newPackage();
  return write((tx) => insertTransfer(tx, { title, packageId, target: 'qti2.1' }));
};

describe('the store', () => {
  before(openStore);

  it('keeps a change whole or not at all, and says nothing of one that was not kept', async () => {
    const id = await newTransfer();
    const said: string[] = [];
    const failed = await write(async (tx) => {
      onCommit(tx, () => said.push('changed'));
      await changeTransfer(tx, id, () => ({ title: 'Half done' }));
      await queueJob(tx, 'undo', id);
      throw new Error('in the middle');
    }).catch((e: Error) => e.message);
    expect(failed).to.equal('in the middle');
    expect((await transferById(id))!.title).to.equal('A transfer');
    expect(await underWay(db, 'undo', id)).to.equal(false);
    expect(said).to.deep.equal([]);
  });

  it('goes on after a change that failed', async () => {
    await write(() => Promise.reject(new Error('no'))).catch(() => undefined);
    const id = await newTransfer('After it');
    expect((await transferById(id))!.title).to.equal('After it');
  });

  it('loses none of many changes that come at once', async () => {
    const id = await newTransfer();
    await Promise.all(
      Array.from({ length: 25 }, (_, n) =>
        write((tx) =>
          changeTransfer(tx, id, ({ overrides }) => ({
            overrides: { ...overrides, [`quiz q${n}`]: { name: `Name ${n}` } },
          })),
        ),
      ),
    );
    expect(Object.keys((await transferById(id))!.overrides).length).to.equal(25);
  });

  it('leaves a transfer alone where the change has nothing to say', async () => {
    const id = await newTransfer();
    const after = await write((tx) => changeTransfer(tx, id, () => null));
    expect(after!.title).to.equal('A transfer');
    expect(await write((tx) => changeTransfer(tx, randomUUID(), () => ({ title: 'x' })))).to.equal(null);
  });

  it('takes a document away and sets it again', async () => {
    const id = await newTransfer();
    const tally = {
      verdict: 'intact',
      counts: { intact: 1, altered: 0, missing: 0, extra: 0 },
      open: 0,
      accepted: 0,
    } as const;
    await write((tx) => changeTransfer(tx, id, () => ({ tally })));
    expect((await transferById(id))!.tally).to.deep.equal(tally);
    await write((tx) => changeTransfer(tx, id, () => ({ tally: null })));
    expect((await transferById(id))!.tally).to.equal(null);
  });

  it('knows the same bytes again, and takes what a person brings for theirs', async () => {
    const sha256 = sha();
    const keep = (name: string, cameBy: 'file' | 'made') =>
      write((tx) => keepPackage(tx, { name, sha256, bytes: 3, cameBy }));
    const made = await keep('made.json', 'made');
    expect(made.known).to.equal(false);
    const again = await keep('mine.json', 'file');
    expect([again.known, again.package.id]).to.deep.equal([true, made.package.id]);
    expect([again.package.name, again.package.cameBy]).to.deep.equal(['mine.json', 'file']);
  });

  it('keeps each tick once, and exactly those given last', async () => {
    const id = await newTransfer();
    const many = Array.from({ length: 1200 }, (_, n) => ({ kind: 'item' as const, nodeId: `i${n % 1100}` }));
    await write((tx) => setTicks(tx, id, many));
    expect((await ticksOf(id)).length).to.equal(1100);
    await write((tx) => setTicks(tx, id, [{ kind: 'quiz', nodeId: 'q' }]));
    expect(await ticksOf(id)).to.deep.equal([{ kind: 'quiz', nodeId: 'q' }]);
  });

  it('holds one open job of a kind for a subject, whoever asks for it', async () => {
    const id = await newTransfer();
    const asked = await Promise.all(
      [1, 2, 3].map((n) => write((tx) => queueJob(tx, 'undo', id, { background: n === 1 }))),
    );
    expect(asked.filter((job) => job !== null).length).to.equal(1);
    const open = (await queuedJobs()).filter((job) => job.subject === id);
    // What nobody waited for at first is waited for now.
    expect(open.map((job) => [job.kind, job.background])).to.deep.equal([['undo', false]]);
    await write((tx) => queueJobAnew(tx, 'undo', id));
    expect((await queuedJobs()).filter((job) => job.subject === id).length).to.equal(1);
  });

  it('orders jobs by when they were asked for, whatever the clock says', async () => {
    const [first, second] = [randomUUID(), randomUUID()];
    const now = Date.now;
    await write((tx) => queueJob(tx, 'undo', first));
    try {
      Date.now = () => now() - 86_400_000;
      await write((tx) => queueJob(tx, 'undo', second));
    } finally {
      Date.now = now;
    }
    const order = (await queuedJobs()).map((job) => job.subject);
    expect(order.indexOf(first)).to.be.below(order.indexOf(second)).and.at.least(0);
  });

  it('finds transfers by words, forgiving spelling, and by day', async () => {
    const id = await newTransfer('Isogonals of the estuary');
    const found = await listTransfers(10, { query: 'isogonls estuary' });
    expect(found[0]!.id).to.equal(id);
    const today = new Date().toISOString().slice(0, 10);
    expect((await listTransfers(1000, { from: today, to: today })).some((t) => t.id === id)).to.equal(true);
    expect((await listTransfers(1000, { to: '2001-01-01' })).length).to.equal(0);
  });

  it('changes a rubric by what it is, not by what it was', async () => {
    const id = await write((tx) => insertOwnRubric(tx, newRubric('r', 'Passage plan')));
    await Promise.all(
      ['a', 'b', 'c'].map((letter) =>
        write((tx) =>
          changeOwnRubric(tx, id, ({ rubric }) => ({
            rubric: { ...rubric, description: `${rubric.description}${letter}` },
          })),
        ),
      ),
    );
    expect([...(await ownRubricById(id))!.rubric.description].sort().join('')).to.equal('abc');
  });
});
