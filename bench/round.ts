import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { get } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { gunzipSync } from 'node:zlib';
import { largeRound } from '../demo/large.ts';
import { startServer } from '../scripts/server.mjs';

/**
 * A whole round of very many items in the built application: brought, forecast, written, compared with what came back
 * with differences that are known, and a receipt. On the way the application is killed twice, while it reads and while it
 * compares. The receipt has to say what is true.
 *
 *   npm run bench:round -- [ITEMS] [--whole]
 *
 * `--whole` kills nothing, so that each stage has its time.
 */
const count = Number(process.argv.slice(2).find((a) => /^\d+$/u.test(a)) ?? 100_000);
const killed = !process.argv.includes('--whole');
const PORT = 4290;
const base = `http://127.0.0.1:${PORT}`;
const data = mkdtempSync(join(tmpdir(), 'alforja-round-'));
const seconds = (ms: number): string => `${(ms / 1000).toFixed(2)} s`;

/** The running application; its memory is looked at all the time. */
class Application {
  #child: ChildProcess | null = null;
  #peak = 0;

  constructor() {
    setInterval(() => this.#look(), 50).unref();
  }

  #look(): void {
    const pid = this.#child?.pid;
    if (pid === undefined) return;
    try {
      const held = /VmRSS:\s+(\d+)/u.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1];
      this.#peak = Math.max(this.#peak, Number(held ?? 0) * 1024);
    } catch {
      // It has just ended.
    }
  }

  /** The most memory since it was last asked for, in megabytes. */
  peak(): string {
    const most = this.#peak;
    this.#peak = 0;
    return `${(most / 1e6).toFixed(0)} MB`;
  }

  async start(): Promise<void> {
    this.#child = (await startServer({ port: PORT, data, quiet: true })).child;
  }

  async end(): Promise<void> {
    const child = this.#child;
    if (!child || child.exitCode !== null) return;
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await gone;
  }

  async kill(): Promise<void> {
    await this.end();
    console.log('  … killed, and started again');
    await this.start();
  }
}

const application = new Application();

async function asked<T>(path: string, method = 'GET', body?: object | Uint8Array): Promise<T> {
  const bytes = body instanceof Uint8Array;
  const response = await fetch(base + path, {
    method,
    headers: { Origin: base, 'Content-Type': bytes ? 'application/octet-stream' : 'application/json' },
    ...(body === undefined ? {} : { body: bytes ? (body as unknown as BodyInit) : JSON.stringify(body) }),
  });
  if (!response.ok) throw new Error(`${path}: ${response.status} ${(await response.text()).slice(0, 300)}`);
  return (await response.json()) as T;
}

interface Answer {
  readonly sent: number;
  readonly text: string;
  readonly ms: number;
}

/** A page as a browser asks for it: packed where that is offered. */
const opened = (path: string): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const from = performance.now();
    get(base + path, { headers: { 'accept-encoding': 'gzip' } }, (answer) => {
      const parts: Buffer[] = [];
      answer.on('data', (part: Buffer) => parts.push(part));
      answer.on('end', () => {
        const bytes = Buffer.concat(parts);
        const whole = answer.headers['content-encoding'] === 'gzip' ? gunzipSync(bytes) : bytes;
        if (answer.statusCode !== 200) reject(new Error(`${path}: ${answer.statusCode}`));
        resolve({ sent: bytes.length, text: whole.toString('utf8'), ms: performance.now() - from });
      });
    }).on('error', reject);
  });

async function page(name: string, path: string): Promise<void> {
  const { sent, text, ms } = await opened(path);
  const kilobytes = (n: number): string => `${(n / 1e3).toFixed(0)} kB`;
  console.log(`  ${name}: ${kilobytes(text.length)} (${kilobytes(sent)} packed) in ${ms.toFixed(0)} ms`);
}

async function timed<T>(name: string, work: () => Promise<T>): Promise<T> {
  application.peak();
  const from = performance.now();
  const out = await work();
  console.log(`${name}: ${seconds(performance.now() - from)}, ${application.peak()}`);
  return out;
}

interface Held {
  readonly id: string;
  readonly state: 'reading' | 'ready' | 'failed';
}
const bring = async (name: string, bytes: Uint8Array): Promise<string> =>
  (await asked<{ package: Held }>(`/api/packages?name=${name}`, 'POST', bytes)).package.id;

/** Waits until a package has been read. @param killAfter ms after which the application is killed once; 0 for never */
async function read(id: string, killAfter = 0): Promise<void> {
  const from = performance.now();
  for (let left = killAfter > 0; ; await wait(50)) {
    const held = (await asked<Held[]>('/api/packages')).find((p) => p.id === id)!;
    if (held.state === 'failed') throw new Error('The package could not be read.');
    if (held.state === 'ready') return;
    if (left && performance.now() - from > killAfter) {
      left = false;
      await application.kill();
    }
  }
}

interface State {
  readonly running: boolean;
  readonly plan: object | null;
  readonly sending: { readonly endedAt: number | null; readonly failure: object | null } | null;
}
async function until(id: string, holds: (state: State) => boolean): Promise<void> {
  for (;;) {
    const state = await asked<State>(`/api/transfers/${id}`);
    if (state.sending?.failure) throw new Error(JSON.stringify(state.sending.failure));
    if (holds(state)) return;
    await wait(100);
  }
}
const atRest = ({ running, sending }: State): boolean => !running && sending?.endedAt != null;

interface Receipt {
  readonly verdict: string;
  readonly counts: Readonly<Record<string, number>>;
  readonly altered: readonly { readonly source: string }[];
  readonly missing: readonly { readonly id: string }[];
  readonly sent: { readonly items: number; readonly sha256: string };
}

const stored = (): number =>
  readdirSync(data)
    .filter((name) => name.startsWith('alforja.db'))
    .reduce((sum, name) => sum + statSync(join(data, name)).size, 0);

/** When the first rows of a package that is being read can be seen. */
async function firstRows(id: string): Promise<void> {
  const from = performance.now();
  while (!(await opened(`/packages/${id}`)).text.includes('It begins with')) await wait(50);
  console.log(`  first rows after ${seconds(performance.now() - from)}`);
}

const { there, back, truth } = largeRound(count);
console.log(`${count} items, ${(there.length / 1e6).toFixed(1)} MB packed`);
try {
  await application.start();
  const source = await timed('brought', () => bring('source.zip', there));
  await timed('read', async () => {
    await firstRows(source);
    await read(source, killed ? Math.max(500, count / 12) : 0);
  });
  console.log(`  database: ${(stored() / count / 1e3).toFixed(2)} kB an item`);
  await page('reading room', `/packages/${source}`);
  await page('reading room, once more', `/packages/${source}`);
  await page('its rows', `/api/packages/${source}/rows`);
  const { id } = await timed('begun', () =>
    asked<{ id: string }>('/api/transfers', 'POST', { from: { packageId: source }, to: null }),
  );
  await page('contents', `/transfers/${id}/contents`);
  await page('contents, once more', `/transfers/${id}/contents`);
  const banks = Array.from({ length: Math.ceil(count / 500) }, (_, n) => ({
    kind: 'bank',
    nodeId: `bank-${n + 1}`,
  }));
  const all = [{ kind: 'quiz', nodeId: 'large' }, ...banks];
  const tick = (ticks: readonly object[]) => () => asked(`/api/transfers/${id}/ticks`, 'PUT', { ticks });
  await timed('a tick', tick(all.slice(0, -1)));
  await timed('a tick', tick(all));
  await timed('forecast', async () => {
    await opened(`/transfers/${id}/forecast`);
    await until(id, ({ plan }) => plan !== null);
  });
  await page('forecast', `/transfers/${id}/forecast`);
  await page('landing', `/transfers/${id}/landing`);
  await timed('written', async () => {
    await asked(`/api/transfers/${id}/do`, 'POST', { do: 'send' });
    await until(id, atRest);
  });
  await page('send', `/transfers/${id}/send`);
  const came = await bring('back.zip', back);
  await timed('read back', () => read(came));
  await timed('compared', async () => {
    await asked(`/api/transfers/${id}/arrive`, 'POST', { packageId: came });
    if (killed) {
      await wait(Math.max(300, count / 20));
      await application.kill();
    }
    await until(id, atRest);
  });
  await page('arrival', `/transfers/${id}/arrival`);
  await page('rows of both sides', `/api/transfers/${id}/seam?at=${count >> 1}`);
  await page('receipt', `/transfers/${id}/receipt`);
  const receipt = await asked<Receipt>(`/transfers/${id}/receipt.json`);
  const said = { altered: receipt.altered.length, missing: receipt.missing.length };
  const ids = new Set([...receipt.altered.map((a) => a.source), ...receipt.missing.map((m) => m.id)]);
  const right =
    JSON.stringify({ ...said, extra: receipt.counts['extra'] }) === JSON.stringify(truth.counts) &&
    ids.size === truth.ids.length &&
    truth.ids.every((i) => ids.has(i)) &&
    receipt.counts['intact'] === count - ids.size &&
    receipt.sent.items === count;
  console.log(`database in the end: ${(stored() / 1e6).toFixed(0)} MB`);
  console.log(`the receipt says ${JSON.stringify(receipt.counts)}: ${right ? 'true' : 'NOT TRUE'}`);
  if (!right) process.exitCode = 1;
} finally {
  await application.end();
  rmSync(data, { recursive: true, force: true });
}
