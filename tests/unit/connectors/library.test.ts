import { createServer, type Server } from 'node:http';
import { expect } from 'chai';
import fc from 'fast-check';
import { insideOf, isPrivateAddress } from '../../../src/lib/server/connectors/door.ts';
import { followLink } from '../../../src/lib/server/connectors/followLink.ts';
import { LibraryConnector } from '../../../src/lib/server/connectors/resourceSearch.ts';
import { booksOf } from '../../../src/lib/shared/libraries.ts';
import { PublisherLibrary } from '../../../standins/library.ts';
import { listening } from '../../support/listening.ts';

describe('following a link', () => {
  let server: Server;
  let base = '';
  const asked: string[] = [];
  before(async () => {
    server = createServer((request, response) => {
      const path = request.url ?? '';
      asked.push(path);
      const to = (status: number, location?: string): void =>
        void response.writeHead(status, location ? { Location: location } : {}).end('x'.repeat(100_000));
      if (path === '/ok') return to(200);
      if (path === '/moved') return to(301, '/ok');
      if (path === '/round') return to(302, '/round');
      if (path === '/inside') return to(302, 'http://10.1.2.3/secret');
      if (path === '/file') return to(302, 'file:///etc/passwd');
      if (path === '/door') return to(401);
      if (path === '/broken') return to(500);
      if (path === '/reset') return void request.socket.destroy();
      if (path !== '/slow') to(404);
    });
    base = await listening(server);
  });
  after(() => {
    server.closeAllConnections();
    server.close();
  });
  const follow = (path: string, over: object = {}) =>
    followLink(base + path, { inside: insideOf(new URL(base).host), timeoutMs: 3000, ...over });

  it('says where it ends, and names every redirect on the way', async () => {
    expect(await follow('/ok')).to.deep.include({ why: 'opens', status: 200 });
    const moved = await follow('/moved');
    expect([moved.why, moved.steps]).to.deep.equal([
      'opens',
      [
        { url: `${base}/moved`, status: 301 },
        { url: `${base}/ok`, status: 200 },
      ],
    ]);
  });

  it('says why it does not open', async () => {
    for (const [path, why] of [
      ['/nowhere', 'not-found'],
      ['/door', 'asks-to-sign-in'],
      ['/broken', 'refused'],
      ['/reset', 'no-answer'],
      ['/round', 'too-many-redirects'],
    ] as const)
      expect((await follow(path)).why, path).to.equal(why);
    expect((await follow('/slow', { timeoutMs: 200 })).why).to.equal('no-answer-in-time');
    for (const url of ['', 'javascript:alert(1)', 'ftp://example.org/x', `http://a/${'x'.repeat(5000)}`])
      expect((await followLink(url, { inside: insideOf('') })).why, url.slice(0, 20)).to.equal('no-address');
  });

  it('asks nothing inside a network, neither by number nor by name nor by a redirect, unless it is allowed', async () => {
    asked.length = 0;
    const none = { inside: insideOf('') };
    expect((await followLink(`${base}/ok`, none)).why).to.equal('private-address');
    expect((await followLink(`${base.replace('127.0.0.1', 'localhost')}/ok`, none)).why).to.equal(
      'private-address',
    );
    expect((await followLink('http://[::1]:9/', none)).why).to.equal('private-address');
    expect(asked).to.deep.equal([]);
    const inside = await follow('/inside');
    expect([inside.why, inside.steps.at(-1)]).to.deep.equal([
      'private-address',
      { url: 'http://10.1.2.3/secret', status: null },
    ]);
    expect((await follow('/file')).why).to.equal('no-address');
    for (const setting of ['127.0.0.1', '127.0.0.0/8', `other.example, ${new URL(base).host}`])
      expect((await followLink(`${base}/ok`, { inside: insideOf(setting) })).why, setting).to.equal('opens');
    for (const setting of ['10.0.0.0/8', '127.0.0.1:1', 'localhost'])
      expect((await followLink(`${base}/ok`, { inside: insideOf(setting) })).why, setting).to.equal(
        'private-address',
      );
    expect(() => insideOf('http://x/')).to.throw(/neither a host/u);
  });

  it('knows the addresses of networks (RFC 1918, RFC 6890, RFC 4193; from memory), however they are written', () => {
    for (const address of [
      '10.0.0.1',
      '172.31.255.1',
      '192.168.0.9',
      '127.9.9.9',
      '169.254.1.1',
      '0.0.0.0',
      '100.64.0.1',
      '::1',
      'fc00::1',
      'fe80::1',
      '::ffff:10.0.0.1',
      'no address',
    ])
      expect(isPrivateAddress(address), address).to.equal(true);
    for (const address of ['93.184.216.34', '2606:2800:220:1::1', '::ffff:93.184.216.34'])
      expect(isPrivateAddress(address), address).to.equal(false);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 0, max: 255 }), (b, c) => {
        expect(isPrivateAddress(`10.${b}.${c}.7`)).to.equal(true);
        expect(isPrivateAddress(`::ffff:10.${b}.${c}.7`)).to.equal(true);
      }),
    );
  });
});

describe('a publisher’s library (LTI Resource Search 1.0, "Resource", from memory)', () => {
  const library = new PublisherLibrary(0);
  const as = (token: string, address = library.address): LibraryConnector =>
    new LibraryConnector({ name: 'the library', address, token, inside: insideOf('127.0.0.1') });
  before(() => library.start());
  after(() => library.stop());

  it('is listed page by page, as books by edition and chapter, each with what it offers', async () => {
    expect(await as('demo-library').about()).to.deep.equal({ name: 'Lantern & Lead Press' });
    const books = booksOf(await as('demo-library').search(''));
    expect(books.map((b) => [b.title, b.edition, b.chapters.length])).to.deep.equal([
      ['Coastal pilotage', '3rd edition', 13],
      ['Coastal pilotage', '2nd edition', 13],
    ]);
    expect(books.map((b) => b.chapters[3]!.offers.map((o) => o.form))).to.deep.equal([
      ['document', 'web', 'lti'],
      ['cartridge', 'web', 'lti'],
    ]);
    expect(books[0]!.chapters[0]!.offers.map((o) => o.form)).to.deep.equal(['web']);
    expect(books[0]!.chapters[6]!.offers[0]!.form, 'a page of questions').to.equal('document');
  });

  it('finds by words, with quotes in them, and gives the file of a resource', async () => {
    const found = await as('demo-library').search('compass');
    expect(new Set(found.map((r) => r.chapter))).to.deep.equal(new Set(['The compass']));
    expect(await as('demo-library').search("o'neill")).to.deep.equal([]);
    const bank = found.find((r) => r.form === 'document')!;
    expect((await as('demo-library').download(bank, 1e6)).length).to.be.above(1000);
    const tooLarge = await as('demo-library')
      .download(bank, 10)
      .catch((e: Error) => e.message);
    expect(tooLarge).to.equal('the library answered for Test bank, chapter 3 with more than is taken.');
    const elsewhere = { ...bank, url: 'http://files.example.org/bank.docx' };
    expect(
      await as('demo-library')
        .download(elsewhere, 10)
        .catch((e: Error) => e.message),
    ).to.contain('lies on another server (files.example.org)');
  });

  it('says plainly that a token is not known, and that it answers with something else', async () => {
    expect(
      await as('wrong')
        .search('')
        .catch((e: Error) => e.message),
    ).to.contain('does not know this token');
    const other = createServer((_, response) =>
      response.setHeader('Content-Type', 'application/json').end('{"resources":{"a":1}}'),
    );
    const address = await listening(other);
    expect(
      await as('any', address)
        .search('')
        .catch((e: Error) => e.message),
    ).to.contain('something else than expected');
    other.close();
  });

  it('does not follow a file to another place, nor a list without an end', async () => {
    let pages = 0;
    const other = createServer((request, response) => {
      if (request.url!.startsWith('/file'))
        return void response.writeHead(302, { Location: 'http://127.0.0.1:1/secret' }).end();
      pages += 1;
      const resources = Array.from({ length: 2000 }, (_, n) => ({ name: `${n}`, url: '/file' }));
      response.setHeader('X-Total-Count', '9999999').end(JSON.stringify({ resources }));
    });
    const address = await listening(other);
    const [bank] = await as('demo-library').search('compass');
    const moved = { ...bank!, url: `${address}/file` };
    expect(
      await as('any', address)
        .download(moved, 1e6)
        .catch((e: Error) => e.message),
    ).to.contain('another address');
    expect(
      await as('any', address)
        .search('')
        .catch((e: Error) => e.message),
    ).to.contain('more than 100000');
    expect(pages).to.be.below(60);
    other.closeAllConnections();
    other.close();
  });

  it('leaves out what has no address, and keeps what lacks everything else', async () => {
    const body = {
      resources: [
        { name: 'Bare', url: 'https://example.org/a' },
        { name: 'None' },
        { name: 'Odd', url: 'http://[broken', extensions: 7 },
        { name: 'Script', url: 'javascript:alert(1)' },
        {
          id: 4,
          name: 'Tool',
          ltiLink: { url: 'https://example.org/launch' },
          extensions: { isPartOf: { identifier: 'b', name: 'Book' } },
        },
      ],
    };
    const other = createServer((_, response) => response.end(JSON.stringify(body)));
    const address = await listening(other);
    const found = await as('any', address).search('');
    other.close();
    expect(found.map((r) => [r.id, r.form, r.book?.title ?? null, r.position])).to.deep.equal([
      ['0', 'web', null, 0],
      ['4', 'lti', 'Book', 0],
    ]);
    expect(booksOf(found).map((b) => b.title)).to.deep.equal(['Bare', 'Book']);
  });
});
