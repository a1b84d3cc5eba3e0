import { expect } from 'chai';
import fc from 'fast-check';
import { roomFound, roomNames, roomRows, roomText, roomView } from '../../../src/lib/server/library/room.ts';
import { itemLines, lineName } from '../../../src/lib/server/store/items.ts';
import type { Package } from '../../../src/lib/server/store/packages.ts';
import { countsOf, fromRuns, shortened, type RoomRows, type RoomView } from '$lib/shared/room';
import { LIGHTS_BANK, TIDAL_EXAM } from '../../../demo/items.ts';
import { assessmentXml, bankXml, PLAIN } from '../../../demo/qti12.ts';
import { largePackage } from '../../../demo/large.ts';
import { brought, closeServer, openServer } from '../../support/server.ts';

const lines = ({ readingId }: Package) => itemLines(readingId!);

describe('the reading room', () => {
  let exam: Package;
  let bank: Package;
  before(async () => {
    await openServer();
    exam = await brought(
      'room-exam.xml',
      assessmentXml({ id: 'room-exam', title: 'Room exam', items: TIDAL_EXAM }, PLAIN),
    );
    bank = await brought('room-bank.xml', bankXml('room-bank', LIGHTS_BANK, PLAIN, 'Room bank'));
  });
  after(closeServer);

  it('tells items by their places, in quizzes and in banks', async () => {
    const view = (await roomView(exam.id))!;
    expect(view.items).to.equal(TIDAL_EXAM.length);
    expect(view.quizzes.map((q) => [q.title, q.count, fromRuns(q.items)])).to.deep.equal([
      ['Room exam', TIDAL_EXAM.length, TIDAL_EXAM.map((_, at) => at)],
    ]);
    expect(view.quizzes[0]!.set.points).to.equal(exam.summary!.points);
    const held: RoomView = (await roomView(bank.id))!;
    expect(held.banks.map((b) => [b.title, b.count])).to.deep.equal([['Room bank', LIGHTS_BANK.length]]);
    expect(held.looseCount).to.equal(0);
  });

  it('its columns are what the rows of the items say', async () => {
    for (const held of [exam, bank]) {
      const rows: RoomRows = await roomRows(held);
      const said = rows.kind.map((kind, at) => [rows.kinds[kind] ?? '', rows.points[at]]);
      expect(said).to.deep.equal((await lines(held)).map(({ kind, points }) => [kind, points]));
      expect(new Set(rows.kinds).size).to.equal(rows.kinds.length);
    }
  });

  it('gives the names of the places that are asked for, and of no others', async () => {
    const all = await lines(exam);
    const names = await roomNames(exam, [3, 0, 9999]);
    expect(new Map(names)).to.deep.equal(
      new Map([0, 3].map((at): [number, string] => [at, lineName(all[at]!)])),
    );
  });

  it('finds by what an item says and by what is right in it', async () => {
    const all = await lines(exam);
    const word = all[2]!.stem.split(/[^\p{L}]+/u).find((w) => w.length > 5)!;
    expect(fromRuns(await roomFound(exam, { query: word, key: '' }))).to.include(2);
    expect(await roomFound(exam, { query: 'zzzzzz', key: '' })).to.deep.equal([]);
    expect(await roomFound(exam, { query: '', key: 'zzzzzz' })).to.deep.equal([]);
  });

  it('of a package that was not read is empty', async () => {
    const unread = { ...exam, readingId: null, tree: null };
    expect(await roomView('nothing that was read')).to.equal(null);
    expect((await roomRows(unread)).points).to.deep.equal([]);
    expect(await roomNames(unread, [0])).to.deep.equal([]);
    expect(await roomFound(unread, { query: 'tide', key: '' })).to.deep.equal([]);
  });

  it('brings the first of long lists with its page, says how much there is, and has the rest at hand', async () => {
    const same = Array.from({ length: 600 }, (_, n) => ({
      ...LIGHTS_BANK[0]!,
      id: `same-${n}`,
      title: `T ${n}`,
    }));
    const { id } = await brought('room-many.xml', bankXml('room-many', same, PLAIN, 'Many'));
    const view = (await roomView(id))!;
    const { layer: _, ...whole } = { ...(JSON.parse((await roomText(id))!) as RoomView), layer: null };
    expect(whole.short).to.equal(null);
    expect(whole.findings.length).to.be.greaterThan(200);
    expect(view.findings).to.deep.equal(whole.findings.slice(0, 200));
    expect(view.short).to.deep.equal(countsOf(whole));
    expect(countsOf(view)).to.deep.equal(countsOf(whole));
    expect(JSON.stringify(view).length).to.be.lessThan(JSON.stringify(whole).length);
    expect(await roomText('nothing that was read')).to.equal(null);
  });

  it('counts what it holds, however much of it a page brings', () => {
    const finding = fc.constantFrom('error', 'warning', 'note').map((severity) => ({ spoken: { severity } }));
    const list = fc.array(fc.constant({}), { maxLength: 450, size: 'max' });
    fc.assert(
      fc.property(
        fc.array(finding, { maxLength: 450, size: 'max' }),
        list,
        list,
        (findings, files, links) => {
          const view = { findings, files, links, short: null } as unknown as RoomView;
          const brought = shortened(view);
          expect(countsOf(brought)).to.deep.equal(countsOf(view));
          expect(brought.short === null).to.equal(
            Math.max(findings.length, files.length, links.length) <= 200,
          );
          expect(brought.findings).to.deep.equal(brought.short ? findings.slice(0, 200) : findings);
          const { decide, notes } = countsOf(brought);
          expect(decide + notes).to.equal(findings.length);
        },
      ),
    );
  });

  it('a bank keeps its start tag beside it, and not all its items once more', async () => {
    const large = await brought('room-large.zip', largePackage(400));
    const [kept] = large.tree!.banks;
    expect(kept!.items.length).to.be.greaterThan(100);
    expect(kept!.origin).to.include({ kind: 'xml' });
    expect(JSON.stringify(kept!.origin).length).to.be.lessThan(1000);
    expect(kept!.origin?.kind === 'xml' && kept!.origin.xml).to.match(/^<objectbank ident=/u);
  });
});
