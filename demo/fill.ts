import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { demoFiles } from './packages.ts';

/** Fills a running application with the demo, through the same doors a user has: node --import tsx demo/fill.ts BASE_URL */

interface Held {
  readonly id: string;
  readonly state: string;
}

export async function bring(
  base: string,
  name: string,
  bytes: Uint8Array,
): Promise<{ id: string; known: boolean }> {
  const response = await fetch(`${base}/api/packages?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: new Uint8Array(bytes),
  });
  if (!response.ok) throw new Error(`${name}: ${response.status} ${await response.text()}`);
  const { package: held, known } = (await response.json()) as { package: Held; known: boolean };
  return { id: held.id, known };
}

/** Waits until a condition on the application holds. */
export async function until(what: string, holds: () => Promise<boolean>): Promise<void> {
  for (let tries = 0; tries < 300; tries++) {
    if (await holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error(`${what} did not happen within a minute`);
}

async function settled(base: string): Promise<boolean> {
  const all = (await (await fetch(`${base}/api/packages`)).json()) as Held[];
  return all.every((p) => p.state !== 'reading');
}

const post = (address: string, fields: Record<string, string>): Promise<Response> =>
  fetch(address, {
    method: 'POST',
    body: new URLSearchParams(fields),
    redirect: 'manual',
    headers: { Accept: 'text/html' },
  });

/** Brings every demo file in, and makes one transfer whose export has come back altered. */
export async function fill(base: string): Promise<{ transfer: string | null }> {
  const ids = new Map<string, { id: string; known: boolean }>();
  for (const { name, bytes } of demoFiles().reverse()) ids.set(name, await bring(base, name, bytes));
  await until('reading', () => settled(base));
  const source = ids.get('pilotage-week5.imscc')!;
  if (source.known) return { transfer: null };
  const started = await post(`${base}/transfers?/start`, { package: source.id });
  const transfer = /\/transfers\/([\w-]+)/u.exec(started.headers.get('location') ?? '')?.[1];
  if (!transfer) throw new Error(`the transfer did not start: ${started.status} ${await started.text()}`);
  await post(`${base}/transfers/${transfer}/send?/send`, {});
  await until(
    'writing',
    async () => (await fetch(`${base}/transfers/${transfer}/package`, { method: 'HEAD' })).ok,
  );
  await fetch(`${base}/api/transfers/${transfer}/arrive`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ packageId: ids.get('pilotage-came-back.imscc')!.id }),
  });
  await until(
    'comparing',
    async () =>
      (
        (await (await fetch(`${base}/transfers/${transfer}/receipt.json`)).json()) as {
          verdict?: string | null;
        }
      ).verdict != null,
  );
  return { transfer };
}

if (process.argv[1]?.endsWith('fill.ts')) {
  const folder = 'data/demo-packages';
  await mkdir(folder, { recursive: true });
  for (const file of demoFiles()) await writeFile(join(folder, file.name), file.bytes);
  const { transfer } = await fill(process.argv[2] ?? 'http://127.0.0.1:4173');
  process.stdout.write(transfer ? 'The demo data is in.\n' : 'The demo data was in already.\n');
}
