import { expect } from 'chai';
import { putRight } from '../../../src/lib/server/library/putRight.ts';
import {
  differingIn,
  findIn,
  replaceIn,
  sheetFile,
  sheetOf,
  typeInto,
} from '../../../src/lib/server/library/sheet.ts';
import { packageById, type Package } from '../../../src/lib/server/store/packages.ts';
import type { SheetView } from '../../../src/lib/shared/sheet.ts';
import { bankXml, PLAIN } from '../../../demo/qti12.ts';
import { LIGHTS_BANK } from '../../../demo/items.ts';
import { brought, closeServer, openServer, settled, packageItems } from '../../support/server.ts';

let fresh = 0;
const bank = (): Promise<Package> =>
  brought('lights.xml', `${bankXml('lights', LIGHTS_BANK, PLAIN, 'Lights')}<!-- sheet ${++fresh} -->`);
const rows = async (id: string): Promise<SheetView['lines']> =>
  (JSON.parse(await sheetOf(id)) as SheetView).lines;
const search = { find: 'light', replace: 'lamp', matchCase: false, wholeWords: true };
async function* body(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}

describe('the sheet of a package', () => {
  before(openServer);
  after(closeServer);

  it('has a row for every item, with what is waiting to be taken in already in it', async () => {
    const { id } = await bank();
    const before = await rows(id);
    expect(before.length).to.equal(LIGHTS_BANK.length);
    await putRight(id, { way: 'hand', edits: [{ op: 'points', node: before[0]!.id, to: 17 }] });
    expect((await rows(id))[0]!.cells.points).to.equal('17');
    await settled();
    expect((await rows(id))[0]!.cells.points).to.equal('17');
  });

  it('does what is typed, says of the rest why not, and each sees what came before it', async () => {
    const { id } = await bank();
    const [a, b] = await rows(id);
    const done = await typeInto(
      id,
      [
        { node: a!.id, column: 'points', text: '4' },
        { node: a!.id, column: 'key', text: 'Z' },
        { node: b!.id, column: 'category', text: 'Luces' },
        { node: 'nobody', column: 'points', text: '1' },
      ],
      'sheet',
    );
    expect([done.changed, done.troubles.map((t) => t.node)]).to.deep.equal([2, [a!.id, 'nobody']]);
    expect(done.cells[a!.id]!.points).to.equal('4');
    // Before the package has been read again.
    const more = await typeInto(id, [{ node: a!.id, column: 'title', text: 'First' }], 'sheet');
    expect([more.cells[a!.id]!.points, more.cells[a!.id]!.title]).to.deep.equal(['4', 'First']);
    await settled();
    const [first, second] = await packageItems(id);
    expect([first!.points, first!.title, second!.category]).to.deep.equal([4, 'First', 'Luces']);
  });

  it('finds texts without changing them, and replaces them but where one says no', async () => {
    const { id } = await bank();
    const found = await findIn(id, search, null);
    expect(found.total).to.be.greaterThan(2);
    expect(found.total).to.equal(found.places.length);
    const { changed } = await replaceIn(id, search, { nodes: null, without: [0] });
    expect(changed).to.equal(found.total - 1);
    const left = await findIn(id, search, null);
    expect(left.places.map((p) => p.before)).to.deep.equal([found.places[0]!.before]);
    const only = await findIn(id, { ...search, find: 'a' }, [found.places[0]!.node]);
    expect(new Set(only.places.map((p) => p.node))).to.deep.equal(new Set([found.places[0]!.node]));
  });

  for (const form of ['xlsx', 'csv'] as const)
    it(`goes out as ${form} and comes back, and what differs is seen before it is taken`, async () => {
      const { id } = await bank();
      const bytes = await sheetFile(id, form);
      expect(await differingIn(id, `back.${form}`, body(bytes))).to.deep.equal({ cells: [], troubles: [] });
      const [first] = await rows(id);
      await putRight(id, { way: 'hand', edits: [{ op: 'points', node: first!.id, to: 31 }] });
      const { cells } = await differingIn(id, `back.${form}`, body(bytes));
      expect(cells.map((c) => [c.node, c.column, c.before, c.text])).to.deep.equal([
        [first!.id, 'points', '31', first!.cells.points],
      ]);
      await typeInto(
        id,
        cells.map(({ node, column, text }) => ({ node, column, text })),
        'workbook',
      );
      await settled();
      expect((await packageById(id))!.putRight.edited.map((n) => n.id)).to.deep.equal([first!.id]);
    });

  it('says of a file that is none of its own why nothing was taken', async () => {
    const { id } = await bank();
    const said = await differingIn(id, 'x.csv', body(new TextEncoder().encode('Name,Grade\nA,1\n')));
    expect(said.cells).to.deep.equal([]);
    expect(said.troubles[0]).to.contain('No column is called “Item”');
  });
});
