import { readdirSync, readFileSync } from 'node:fs';
import { request } from 'node:http';
import { expect, test } from './support/test.ts';
import { base } from './support/page.ts';

/** Every route there is, found in the folder of routes, and what it says to whom. */

interface Route {
  readonly path: string;
  readonly methods: readonly string[];
}

const FILES = /\+(?:server|page|page\.server)\.(?:ts|svelte)$/u;
const routes: Route[] = (() => {
  const found = new Map<string, Set<string>>();
  for (const file of readdirSync('src/routes', { recursive: true }).map(String)) {
    if (!FILES.test(file)) continue;
    const folder = file.split('/').slice(0, -1).join('/');
    const path = `/${folder.replace(/\[[^\]]+\]/gu, 'x')}`;
    const text = readFileSync(`src/routes/${file}`, 'utf8');
    const methods = found.get(path) ?? new Set<string>();
    if (/\+page/u.test(file)) methods.add('GET');
    if (/export const actions/u.test(text)) methods.add('POST');
    for (const [, method] of text.matchAll(/export const (GET|POST|PUT|PATCH|DELETE)\b/gu))
      methods.add(method!);
    found.set(path, methods);
  }
  return [...found].map(([path, methods]) => ({ path, methods: [...methods] }));
})();
const all = routes.flatMap(({ path, methods }) => methods.map((method) => ({ path, method })));

interface Said {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
  readonly text: string;
}

/** Asks without a browser's help, so that headers can lie. */
const asking = (
  path: string,
  method: string,
  headers: Record<string, string> = {},
  body = '',
): Promise<Said> =>
  new Promise((done, failed) => {
    const length = method === 'GET' ? {} : { 'Content-Length': String(Buffer.byteLength(body)) };
    const asked = request(
      new URL(path, base),
      { method, headers: { ...length, ...headers }, agent: false },
      (response) => {
        let text = '';
        const end = (): void => done({ status: response.statusCode ?? 0, headers: response.headers, text });
        // News never ends; its head is what is asked about.
        if (response.headers['content-type']?.startsWith('text/event-stream')) {
          response.destroy();
          return end();
        }
        response.on('data', (part: Buffer) => (text += part.toString()));
        response.on('end', end);
      },
    );
    asked.on('error', failed);
    asked.end(body);
  });

test('every route says how its answers may be used, and none is told under a name that is not its own', async () => {
  expect(all.length).toBeGreaterThan(80);
  for (const { path } of routes.filter((r) => r.methods.includes('GET'))) {
    const { status, headers } = await asking(path, 'GET');
    expect(status, path).toBeLessThan(500);
    expect(headers, path).toMatchObject({
      'x-content-type-options': 'nosniff',
      'x-frame-options': 'DENY',
      'cross-origin-resource-policy': 'same-origin',
      'cross-origin-opener-policy': 'same-origin',
      'referrer-policy': 'same-origin',
    });
    expect(headers['cache-control'], path).toMatch(/no-store|private/u);
    expect((await asking(path, 'GET', { Host: 'elsewhere.example' })).status, path).toBe(421);
  }
});

test('no route changes anything for a page of another site, or for none at all', async () => {
  const changing = all.filter((r) => r.method !== 'GET');
  expect(changing.length).toBeGreaterThan(30);
  const type = { 'Content-Type': 'application/json' };
  for (const { path, method } of changing) {
    const at = `${method} ${path}`;
    for (const origin of ['null', 'http://elsewhere.example', base.replace('http:', 'https:'), ''])
      expect((await asking(path, method, { ...type, Origin: origin }, '{}')).status, `${at} ${origin}`).toBe(
        403,
      );
    expect((await asking(path, method, type, '{}')).status, at).toBe(403);
    expect((await asking(path, method, { ...type, Origin: base }, '{}')).status, at).not.toBe(403);
  }
});

test('more than is taken is refused before it is sent, with the limit; nothing at all in words', async () => {
  const much = { 'Content-Type': 'application/json', Origin: base, 'Content-Length': String(64 << 20) };
  for (const { path, method } of all.filter((r) => r.method !== 'GET')) {
    // Only the head is sent: who waits for the rest never answers.
    const status = await new Promise<number>((done, failed) => {
      const asked = request(new URL(path, base), { method, headers: much, agent: false }, (response) => {
        done(response.statusCode ?? 0);
        response.destroy();
      });
      asked.on('error', failed);
      asked.flushHeaders();
    });
    expect(status, `${method} ${path}`).toBe(413);
  }
  const file = { 'Content-Type': 'application/octet-stream', Origin: base };
  const upload = await asking(
    '/api/packages?name=a.zip',
    'POST',
    { ...file, 'Content-Length': String(300 << 20) },
    '',
  ).catch(() => null);
  expect(upload === null || upload.status === 413).toBe(true);
  const nothing = await asking('/api/packages?name=nothing.zip', 'POST', { ...file, 'Content-Length': '0' });
  expect(nothing.status).toBe(400);
  expect(nothing.text).toMatch(/no body|empty/u);
});

test('a request that never comes to an end, or is nonsense, holds nothing up', async () => {
  for (const { path, method } of all.filter((r) => r.method !== 'GET')) {
    const headers = { 'Content-Type': 'application/json', Origin: base };
    for (const body of ['', '{', '[]', '"\u0000"', `${'['.repeat(50_000)}`])
      expect(
        (await asking(path, method, headers, body)).status,
        `${method} ${path} ${body.slice(0, 3)}`,
      ).toBeLessThan(500);
  }
});
