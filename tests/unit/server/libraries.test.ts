import { expect } from 'chai';
import {
  connectLibrary,
  disconnectLibrary,
  librariesConnected,
  LibraryTrouble,
  packLinks,
  searchLibrary,
  takeResource,
} from '../../../src/lib/server/library/libraries.ts';
import { linksOfPackage, testLinks } from '../../../src/lib/server/library/links.ts';
import { bindTogether } from '../../../src/lib/server/library/together.ts';
import { packageById } from '../../../src/lib/server/store/packages.ts';
import { listLibraries } from '../../../src/lib/server/store/libraries.ts';
import { PublisherLibrary } from '../../../standins/library.ts';
import { closeServer, openServer, settled } from '../../support/server.ts';

describe('a library that is connected', () => {
  const library = new PublisherLibrary(0);
  let id = '';
  before(async () => {
    await openServer();
    await library.start();
    id = await connectLibrary(library.address, 'demo-library');
  });
  after(async () => {
    await library.stop();
    await closeServer();
  });

  it('is kept once, its token sealed', async () => {
    expect(await connectLibrary(library.address, 'demo-library')).to.equal(id);
    expect(await librariesConnected()).to.deep.equal([
      { id, name: 'Lantern & Lead Press', address: library.address },
    ]);
    expect((await listLibraries())[0]!.token).not.to.contain('demo-library');
    expect(await connectLibrary(library.address, 'wrong').catch((e: Error) => e.message)).to.contain('token');
  });

  it('gives the banks of chapters as one source, named by chapter, of either edition', async () => {
    for (const [edition, items, titles] of [
      ['2', 26, ['Chapter 2: Distance, speed and time', 'Chapter 3: The compass']],
      ['3', 28, ['Distance, speed and time', 'Chapter 3: The compass']],
    ] as const) {
      const ids = ['02', '03'].map((n) => `coastal-pilotage-${edition}-${n}-bank`);
      const taken: string[] = [];
      for (const one of ids) taken.push(await takeResource(id, one));
      await settled();
      expect((await packageById(taken[0]!))!.name).to.match(/^Chapter 02 Distance, speed and time\./u);
      const bound = (await bindTogether(taken, `Coastal pilotage, edition ${edition}`))!;
      await settled();
      const held = (await packageById(bound))!;
      expect([held.summary!.items, held.tree!.banks.map((b) => b.title)]).to.deep.equal([items, titles]);
    }
  });

  it('gives its links as a package that lands like any other, web and LTI links in a folder of the book', async () => {
    const made = await packLinks(id, [
      'coastal-pilotage-3-03-read',
      'coastal-pilotage-3-03-drill',
      'coastal-pilotage-3-03-bank',
    ]);
    await settled();
    const held = (await packageById(made))!;
    expect([held.name, held.cameBy]).to.deep.equal(['Coastal pilotage, 2 links.imscc', 'made']);
    expect(held.tree!.links.map((l) => [l.title, l.kind, l.url])).to.deep.equal([
      ['Chapter 3 to read: The compass', 'web', `${library.address}/read/coastal-pilotage-3/3`],
      ['Drills of chapter 3: The compass', 'lti', `${library.address}/launch/coastal-pilotage-3/3`],
    ]);
    expect(held.tree!.outline.map((n) => [n.title, n.children.length])).to.deep.equal([
      ['Coastal pilotage', 2],
    ]);
    const links = (await linksOfPackage(made))!;
    const tests = new Map((await testLinks(links)).map((t) => [t.url, t.why]));
    expect(links.map((l) => tests.get(l.url))).to.deep.equal(['opens', 'launch-only']);
    expect(await linksOfPackage('gone')).to.equal(null);
  });

  it('a link that moved is named, one that is gone is said to be; the same address is followed once', async () => {
    const found = await searchLibrary(id, 'to read');
    const read = (n: number) => found.find((r) => r.id === `coastal-pilotage-2-${n}-read`)!.url;
    const line = (url: string) => ({ title: '', kind: 'web' as const, url });
    const tests = await testLinks([line(read(10)), line(read(12)), line(read(10))]);
    expect(tests).to.have.length(2);
    const by = new Map(tests.map((t) => [t.url, t]));
    expect(by.get(read(10))!.steps.at(-1)!.url).to.equal(`${library.address}/archive/10`);
    expect(by.get(read(12))!.why).to.equal('not-found');
  });

  it('says what cannot be had, and leaves what was brought when it is disconnected', async () => {
    for (const resource of ['nobody', 'coastal-pilotage-3-03-read'])
      expect(await takeResource(id, resource).catch((e: unknown) => e)).to.be.instanceOf(LibraryTrouble);
    expect(await packLinks(id, ['coastal-pilotage-3-03-bank']).catch((e: unknown) => e)).to.be.instanceOf(
      LibraryTrouble,
    );
    await disconnectLibrary(id);
    expect(await librariesConnected()).to.deep.equal([]);
    expect(await searchLibrary(id, '').catch((e: Error) => e.message)).to.equal(
      'That library is no longer connected.',
    );
  });
});
