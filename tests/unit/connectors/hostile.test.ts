import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { gzipSync } from 'node:zlib';
import { expect } from 'chai';
import { z } from 'zod';
import { insideOf } from '../../../src/lib/server/connectors/door.ts';
import { Http, type HttpOptions } from '../../../src/lib/server/connectors/http.ts';
import { listening } from '../../support/listening.ts';
import { until } from '../../support/server.ts';

/** A system that answers without end, with too much, or from elsewhere. */
describe('answers of a hostile course system', () => {
  const asked: string[] = [];
  let open = 0;
  let server: Server;
  let base = '';
  let answer: (request: IncomingMessage, response: ServerResponse) => void = () => undefined;
  before(async () => {
    server = createServer((request, response) => {
      asked.push(request.url ?? '');
      open += 1;
      response.on('close', () => (open -= 1));
      answer(request, response);
    });
    base = await listening(server);
  });
  beforeEach(() => void (asked.length = 0));
  after(() => {
    server.closeAllConnections();
    server.close();
  });
  const http = (over: Partial<HttpOptions> = {}): Http =>
    new Http({ name: 'Odd', address: base, token: 'x', inside: insideOf('127.0.0.1'), ...over });
  const said = (work: Promise<unknown>): Promise<string> =>
    work.then(
      () => 'done',
      (error: Error) => error.message,
    );

  it('without end are broken off once they are more than is taken, packed or not', async () => {
    const flood = function* (): Generator<Buffer> {
      for (;;) yield Buffer.alloc(1 << 16, 32);
    };
    answer = (_, response) => void pipeline(Readable.from(flood()), response).catch(() => undefined);
    expect(await said(http().send('x', { what: 'a list' }))).to.match(/with more than is taken/u);
    answer = (_, response) => {
      response.setHeader('Content-Encoding', 'gzip');
      response.end(gzipSync(Buffer.alloc(64 << 20)));
    };
    expect(await said(http().send('x', { what: 'a list' }))).to.match(/with more than is taken/u);
    expect(asked).to.have.length(2);
    await until('the end of every answer', () => open === 0);
  });

  it('that trickle are broken off at the deadline, whole', async () => {
    answer = (_, response) => {
      const drip = setInterval(() => response.write(' '), 20);
      response.on('close', () => clearInterval(drip));
    };
    const from = performance.now();
    expect(await said(http({ timeoutMs: 150 }).send('x', { what: 'a list' }))).to.match(
      /did not answer in time.*Nothing is lost/u,
    );
    expect(performance.now() - from).to.be.below(8000);
  });

  it('end with the job that asked: nothing is asked after it was stopped', async () => {
    answer = () => undefined;
    const control = new AbortController();
    const asking = said(http({ signal: control.signal }).send('x', { what: 'a list' }));
    await until('the request', () => open === 1);
    control.abort(new Error('stopped'));
    expect(await asking).to.equal('stopped');
    await until('the end of the request', () => open === 0);
    expect(asked).to.have.length(1);
  });

  it('of pages without end are given up', async () => {
    answer = (_, response) => response.end(JSON.stringify({ things: Array(100).fill(1) }));
    const listed = http().pages('x', 'things', z.number(), 'the list of things');
    expect(await said(listed)).to.match(/lists more than 100000/u);
    expect(asked.length).to.be.below(1100);
  });

  it('from elsewhere are not followed there, and the token stays', async () => {
    answer = (request, response) => {
      const from: Record<string, string> = {
        '/here': '/there',
        '/away': 'http://203.0.113.9/x',
        '/round': '/round',
      };
      const to = from[request.url ?? ''];
      if (to) response.writeHead(302, { Location: to }).end();
      else response.end('{}');
    };
    const schema = z.object({});
    expect(await http().json('here', schema, { what: 'x' })).to.deep.equal({});
    expect(asked).to.deep.equal(['/here', '/there']);
    expect(await said(http().send('away', { what: 'x' }))).to.match(/sends on to another address/u);
    expect(await said(http().send('round', { what: 'x' }))).to.match(/without end/u);
    expect(await said(http().send('here', { method: 'POST', json: {}, what: 'x' }))).to.match(
      /another address/u,
    );
  });

  it('inside the network are asked for only where a setting names it', async () => {
    const none = http({ inside: insideOf('') });
    expect(await said(none.send('x', { what: 'x' }))).to.match(/lies inside this network/u);
    expect(asked).to.deep.equal([]);
  });

  it('with reasons of their own are told in part, and as they are written', async () => {
    const reason = `no\u202E\u0000${'x'.repeat(5000)}`;
    answer = (_, response) => response.writeHead(400).end(JSON.stringify({ imsx_description: reason }));
    const words = await said(http().send('x', { what: 'it' }));
    expect(words).to.match(/^Odd refused it: no⟨U\+202E⟩⟨U\+0000⟩x+$/u);
    expect(words.length).to.be.below(400);
  });
});
