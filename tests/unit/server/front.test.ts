import { gunzipSync } from 'node:zlib';
import { expect } from 'chai';
import { statSync } from 'node:fs';
import { join } from 'node:path';
import { dataPath, filesPath } from '../../../src/lib/server/config.ts';
import { openStore } from '../../../src/lib/server/store/open.ts';
import { storeBytes, storedPath } from '../../../src/lib/server/store/files.ts';
import { MAX_JSON, originsOf, packed, refusalOf } from '../../../src/lib/server/front.ts';

describe('the data folder', () => {
  it('is its owner’s alone, with all that is in it', async () => {
    await openStore();
    const { sha256 } = await storeBytes(new TextEncoder().encode('mine'));
    const mode = (path: string): number => statSync(path).mode & 0o077;
    for (const path of [dataPath, filesPath, storedPath(sha256), join(dataPath, 'alforja.db')])
      expect(mode(path), path).to.equal(0);
  });
});

describe('the front door', () => {
  const origins = originsOf('https://alforja.example', '0.0.0.0', '4173');
  const asked = (method: string, headers: Record<string, string>): number | null =>
    refusalOf({ method, headers: new Headers({ host: 'alforja.example', ...headers }) }, origins)?.status ??
    null;

  it('knows the names it goes by, from the setting and from where it listens', () => {
    expect([...originsOf(null, '127.0.0.1', '4173')]).to.include.members([
      'http://127.0.0.1:4173',
      'http://localhost:4173',
      'http://[::1]:4173',
    ]);
    expect([...originsOf(null, '192.0.2.7', '80')]).to.deep.equal(['http://192.0.2.7']);
    expect([...originsOf(null, '2001:db8::7', '80')]).to.deep.equal(['http://[2001:db8::7]']);
    expect([...origins])
      .to.include('https://alforja.example')
      .and.not.include('http://0.0.0.0:4173');
  });

  it('answers under those alone', () => {
    for (const host of ['alforja.example', 'ALFORJA.example', 'localhost:4173'])
      expect(asked('GET', { host }), host).to.equal(null);
    for (const host of [
      '',
      'alforja.example:81',
      'evil.example',
      'alforja.example.evil.example',
      'localhost',
    ])
      expect(asked('GET', { host }), host).to.equal(421);
  });

  it('takes changes from its own pages only', () => {
    for (const origin of [
      'null',
      'http://alforja.example',
      'https://alforja.example.evil',
      'https://evil.example',
    ])
      expect(asked('POST', { origin }), origin).to.equal(403);
    expect(asked('DELETE', {})).to.equal(403);
    expect(asked('DELETE', { origin: 'https://alforja.example' })).to.equal(null);
    expect(asked('GET', { origin: 'https://evil.example' })).to.equal(null);
  });

  it('takes small requests in JSON, large files, and no length that is none', () => {
    const origin = 'https://alforja.example';
    const json = 'application/json';
    const sized = (type: string, length: string): number | null =>
      asked('POST', { origin, 'content-type': type, 'content-length': length });
    expect(sized(json, String(MAX_JSON))).to.equal(null);
    expect(sized(json, String(MAX_JSON + 1))).to.equal(413);
    expect(sized('multipart/form-data; boundary=x', String(MAX_JSON + 1))).to.equal(413);
    expect(sized('application/octet-stream', String(MAX_JSON + 1))).to.equal(null);
    expect(sized('application/octet-stream', String(2 ** 30))).to.equal(413);
    for (const length of ['-1', '1e9', ' ', '0x10']) expect(sized(json, length), length).to.equal(400);
    expect(asked('POST', { origin, 'content-type': json, 'transfer-encoding': 'chunked' })).to.equal(411);
  });
});

describe('a long answer', () => {
  const rows = JSON.stringify(Array.from({ length: 20_000 }, (_, n) => n % 5));
  const asked = (accept: string | null) => ({
    headers: new Headers(accept === null ? {} : { 'accept-encoding': accept }),
  });
  const answer = (body: string, type = 'application/json'): Response =>
    new Response(body, { headers: { 'content-type': type, 'content-length': String(body.length) } });

  it('goes as few bytes to whoever can unpack it, and says the same', async () => {
    const given = packed(asked('br, gzip;q=0.8'), answer(rows));
    expect(given.headers.get('content-encoding')).to.equal('gzip');
    expect(given.headers.get('vary')).to.equal('Accept-Encoding');
    expect(given.headers.get('content-length'), 'of what it was').to.equal(null);
    const bytes = Buffer.from(await given.arrayBuffer());
    expect(bytes.length).to.be.below(rows.length / 20);
    expect(gunzipSync(bytes).toString('utf8')).to.equal(rows);
  });

  const asItIs: readonly [what: string, accept: string | null, response: Response][] = [
    ['whoever did not ask', null, answer(rows)],
    ['whoever will not have it', 'gzip;q=0, identity', answer(rows)],
    ['a short answer', 'gzip', answer('[1,2]')],
    ['a package', 'gzip', answer(rows, 'application/zip')],
    ['news, which come one by one', 'gzip', answer(rows, 'text/event-stream')],
    ['no body', 'gzip', new Response(null, { status: 204 })],
  ];
  for (const [what, accept, response] of asItIs)
    it(`stays as it is for ${what}`, async () => {
      const body = await response.clone().text();
      const given = packed(asked(accept), response);
      expect(given.headers.get('content-encoding')).to.equal(null);
      expect(await given.text()).to.equal(body);
    });
});
