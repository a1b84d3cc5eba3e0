import { expect } from 'chai';
import { changed, compareHoldings, NO_FILTER, type QuizDraft } from '@alforja/core';
import { chapterBanks } from '../../../demo/chapters.ts';
import { listBanks, itemsOfBanks } from '../../../src/lib/server/library/banks.ts';
import { peepAt } from '../../../src/lib/server/library/dataFiles.ts';
import {
  bankLook,
  bankMade,
  beginBank,
  beginQuiz,
  changeBank,
  keepDraft,
  MakingTrouble,
  planCarried,
  quizMade,
  quizzesMade,
  setDown,
  shelfView,
  splitBank,
  takeNewer,
  weighed,
} from '../../../src/lib/server/library/making.ts';
import { putRight } from '../../../src/lib/server/library/putRight.ts';
import { BothTrouble, bothHead, tryBoth } from '../../../src/lib/server/transfer/bothSides.ts';
import { startTransfer } from '../../../src/lib/server/transfer/start.ts';
import { clean } from '../../../src/lib/server/keeping/clean.ts';
import { bringBack, throwAway } from '../../../src/lib/server/library/trash.ts';
import { packageById } from '../../../src/lib/server/store/packages.ts';
import { itemsOf } from '../../../src/lib/server/store/items.ts';
import { replicaPackage } from '../../../demo/replicas.ts';
import { brought, closeServer, openServer, settled } from '../../support/server.ts';

const holdingOf = async (id: string) => {
  const held = (await packageById(id))!;
  return { ...held.tree!, items: await itemsOf(held.readingId!) };
};

describe('quizzes and banks that are made here', () => {
  let chapters = '';
  before(async () => {
    await openServer();
    chapters = (await brought('chapters.zip', chapterBanks())).id;
  });
  after(closeServer);

  const bankAt = async (title: string) =>
    (await listBanks(true)).find((b) => b.place === chapters && b.title === title)!;
  const draftOf = async (id: string): Promise<QuizDraft> => (await quizMade(id))!.draft;

  it('every bank is listed with what is in it, and narrowed by its facts', async () => {
    const marks = await bankAt('Ch. 2 Buoys and marks');
    expect(marks).to.include({ items: 22, points: 27, kind: 'package', own: null });
    expect(marks.categories).to.deep.equal(['Lateral marks', 'Cardinal marks', 'Other marks']);
    const asked = { place: chapters, bank: marks.bank, from: 2, count: 3, but: null };
    const all = (await shelfView({ ...asked, filter: NO_FILTER }))!;
    expect([all.total, all.points, all.rows.map((r) => r.at.item)]).to.deep.equal([
      22,
      27,
      ['mk-03', 'mk-04', 'mk-05'],
    ]);
    const few = (await shelfView({ ...asked, from: 0, filter: { ...NO_FILTER, picture: true } }))!;
    expect(few.rows.map((r) => r.at.item)).to.deep.equal(['mk-21']);
    expect(await shelfView({ ...asked, place: 'nowhere', filter: NO_FILTER })).to.equal(null);
  });

  it('a quiz is planned, kept, weighed, set down once, and written over by nobody', async () => {
    const id = await beginQuiz('Planned');
    const marks = await bankAt('Ch. 2 Buoys and marks');
    const from = [{ place: chapters, bank: marks.bank }];
    let draft = changed(await draftOf(id), {
      do: 'plan',
      to: { from, cells: [{ category: 'Cardinal marks', kind: 'choice', count: 3, points: 2 }] },
    });
    draft = await planCarried(id, draft, 'items');
    expect(draft.sections.map((s) => s.items.length)).to.deep.equal([3]);
    const version = await keepDraft(id, 0, draft);
    const view = await weighed(id, draft);
    expect([view.items, view.least, view.most]).to.deep.equal([3, 6, 6]);
    expect(view.sections[0]!.rows.map((r) => r.from)).to.deep.equal(Array(3).fill('chapters.zip'));
    const refused = await keepDraft(id, 0, draft).catch((e: unknown) => e);
    expect(refused).to.be.instanceOf(MakingTrouble);
    const [first, again] = [await setDown(id), await setDown(id)];
    await settled();
    expect(again).to.equal(first);
    expect((await holdingOf(first)).quizzes[0]).to.deep.include({ title: 'Planned' });
    expect((await quizzesMade()).find((q) => q.id === id)).to.include({ packageId: first, fixed: 3 });
    // What is changed after it was set down is set down anew, and the old one stays as it was.
    await keepDraft(id, version, changed(draft, { do: 'title', to: 'Planned anew' }));
    const second = await setDown(id);
    await settled();
    expect(second).not.to.equal(first);
    expect((await holdingOf(first)).quizzes[0]!.title).to.equal('Planned');
  });

  it('an empty quiz is not set down', async () => {
    const refused = await setDown(await beginQuiz('Empty')).catch((e: unknown) => e);
    expect(String(refused)).to.contain('no questions in it yet');
  });

  it('questions stay as they were taken; what is new at their source is said, and taken when asked', async () => {
    const source = await brought('chapters-two.zip', withAnotherByte(chapterBanks()));
    const bank = await beginBank('Mine', await itemsOfBanks([{ place: source.id, bank: 'marks' }]));
    await settled();
    const look = async () => bankLook(bank, (await bankMade(bank))!.draft);
    expect((await look()).rows.filter((r) => r.newer || r.gone)).to.deep.equal([]);
    expect((await look()).alike.map((g) => g.keys)).to.deep.equal([['mk-16', 'mk-20']]);
    await putRight(source.id, { way: 'hand', edits: [{ op: 'stem', node: 'mk-22', to: 'Their colour?' }] });
    await settled();
    const [newer] = (await look()).rows.filter((r) => r.newer);
    expect(newer!.name).to.contain('The colour of every special mark');
    await takeNewer(bank, [newer!.at]);
    await setDown(bank);
    await settled();
    expect((await look()).rows.filter((r) => r.newer)).to.deep.equal([]);
    const held = await holdingOf((await bankMade(bank))!.packageId!);
    expect(JSON.stringify(held.items.find((i) => i.id === 'mk-22')!.body)).to.contain('Their colour?');
    // Its source is thrown away, and long gone: what was taken stays.
    await throwAway('package', source.id);
    await clean({ now: Date.now() + 40 * 86_400_000 });
    const { version } = (await bankMade(bank))!;
    await changeBank(bank, version, (d) => ({ ...d, items: d.items.slice(0, 21) }));
    await settled();
    const after = await holdingOf((await bankMade(bank))!.packageId!);
    expect(after.items).to.have.length(21);
    expect(after.files.map((f) => f.path)).to.deep.equal(['images/harbour.png']);
  });

  it('more than a bank can hold is refused in words, and nothing is begun', async () => {
    const before = (await listBanks(false)).length;
    const many = Array.from({ length: 10_001 }, (_, n) => ({ place: chapters, item: `i${n}` }));
    const refused = await beginBank('Too many', many).catch((e: unknown) => e);
    expect(refused).to.be.instanceOf(MakingTrouble);
    expect(String(refused)).to.contain('holds at most 10000');
    expect((await listBanks(false)).length).to.equal(before);
  });

  it('a bank is split, thrown away and brought back', async () => {
    const items = await itemsOfBanks([{ place: chapters, bank: 'tides' }]);
    const bank = await beginBank('Both', items);
    const part = await splitBank(bank, (await bankMade(bank))!.version, ['td-01', 'td-02'], 'Part');
    await settled();
    expect((await bankMade(part))!.draft.items.map((i) => i.item)).to.deep.equal(['td-01', 'td-02']);
    expect((await bankMade(bank))!.draft.items).to.have.length(items.length - 2);
    expect(await throwAway('made', part)).to.equal('done');
    expect(await bankMade(part)).to.equal(null);
    expect((await listBanks(false)).some((b) => b.own === part)).to.equal(false);
    expect(await bringBack('made', part)).to.equal('done');
    expect((await listBanks(false)).some((b) => b.own === part)).to.equal(true);
  });

  it('what is set down is what its places hold', async () => {
    const bank = await beginBank('All of it', await itemsOfBanks([{ place: chapters, bank: null }]));
    await settled();
    const made = await holdingOf((await bankMade(bank))!.packageId!);
    const { counts } = compareHoldings({ ...(await holdingOf(chapters)), banks: [] }, { ...made, banks: [] });
    expect(counts).to.include({ intact: 40, altered: 0, missing: 0, extra: 0 });
  });
});

describe('a peep at data', () => {
  before(openServer);
  after(closeServer);

  it('shows the first rows and counts the rest, whatever is in the file', async () => {
    const held = await brought('with-data.zip', replicaPackage());
    const path = held.tree!.files.find((f) => f.path.endsWith('.csv'))!.path;
    const peep = (await peepAt(held.id, path))!;
    expect(peep.rows.length).to.be.within(2, 6);
    expect(peep.lines).to.be.greaterThan(peep.rows.length - 1);
    expect(await peepAt(held.id, 'nowhere.csv')).to.equal(null);
  });
});

/** The same package with another date in its first entry: another file. */
function withAnotherByte(bytes: Uint8Array): Uint8Array {
  const other = bytes.slice();
  other[10] = other[10]! ^ 1;
  return other;
}

describe('both sides of a transfer', () => {
  before(openServer);
  after(closeServer);

  it('cannot be tried before anything has been compared; it is said in words', async () => {
    const held = await brought('chapters-three.zip', withAnotherByte(withAnotherByte(chapterBanks())));
    const id = (await startTransfer({ packageId: held.id }, null))!;
    const refused = await tryBoth(id, 'quiz', { seed: '1', way: 'ability' }).catch((e: unknown) => e);
    expect(refused).to.be.instanceOf(BothTrouble);
    expect(String(refused)).to.contain('Nothing of this transfer has been compared yet');
    expect(await bothHead(id, 'quiz')).to.equal(null);
    expect(await bothHead('nowhere', 'quiz')).to.equal(null);
  });
});

describe('questions used before', () => {
  before(openServer);
  after(closeServer);

  it('are those that a quiz of their package sets or draws, or a quiz made here, but for the one being made', async () => {
    const held = await brought('replicas-used.zip', replicaPackage());
    const asked = { place: held.id, bank: null, from: 0, count: 5, but: null };
    const used = (await shelfView({ ...asked, filter: { ...NO_FILTER, used: true } }))!.total;
    const unused = (await shelfView({ ...asked, filter: { ...NO_FILTER, used: false } }))!.total;
    expect([used, unused]).to.deep.equal([21, 0]);
    const chapters = await brought('chapters-used.zip', withAnotherByte(chapterBanks()));
    const free = async (but: string | null): Promise<number> =>
      (await shelfView({ ...asked, place: chapters.id, but, filter: { ...NO_FILTER, used: false } }))!.total;
    const before = await free(null);
    const id = await beginQuiz('Uses three');
    const items = ['td-05', 'td-06', 'td-07'].map((item) => ({ place: chapters.id, item }));
    await keepDraft(id, 0, changed((await quizMade(id))!.draft, { do: 'add', section: 'section-1', items }));
    await setDown(id);
    await settled();
    expect(await free(null)).to.equal(before - 3);
    expect(await free(id)).to.equal(before);
    expect(
      (await listBanks(true)).find((b) => b.place === chapters.id && b.bank === 'tides')!.usedIn,
    ).to.include('Uses three');
  });
});
