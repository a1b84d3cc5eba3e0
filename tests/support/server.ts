import { execFileSync } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';
import type { Item } from '@alforja/core';
import { workersPath } from '../../src/lib/server/config.ts';
import { openStore } from '../../src/lib/server/store/open.ts';
import { storeBytes } from '../../src/lib/server/store/files.ts';
import { givenUp, HANDLERS } from '../../src/lib/server/jobs.ts';
import { bringIn } from '../../src/lib/server/library/packages.ts';
import { Runner } from '../../src/lib/server/runner/runner.ts';
import { closeThreads } from '../../src/lib/server/runner/threads.ts';
import { jobsUnderWay } from '../../src/lib/server/store/jobs.ts';
import { itemAt, itemsOf } from '../../src/lib/server/store/items.ts';
import { packageById, packageFile, type Package } from '../../src/lib/server/store/packages.ts';
import { bytesOf } from './read.ts';

/** The server's own parts on a real database file, with real threads, without a page; threads run bundles, as in production. */

const PATIENCE_MS = 100_000;
const ASK_EVERY_MS = 15;

/** Waits until something holds; what never comes fails with what it was. */
export async function until(what: string, holds: () => boolean | Promise<boolean>): Promise<void> {
  for (const from = Date.now(); Date.now() - from < PATIENCE_MS; await wait(ASK_EVERY_MS))
    if (await holds()) return;
  throw new Error(`${what} did not happen`);
}

/** Waits until no job waits or runs. */
export const settled = (): Promise<void> =>
  until('the end of all jobs', async () => (await jobsUnderWay()).length === 0);

/** Bundles what threads run, as it is now: a thread starts several times as fast as from the source. */
function bundle(): void {
  const args = [
    'vite',
    'build',
    '--config',
    'vite.workers.config.ts',
    '--logLevel',
    'warn',
    '--sourcemap',
    'inline',
  ];
  execFileSync('npx', [...args, '--outDir', workersPath!], { stdio: 'inherit' });
}
bundle();

let runner: Runner | null = null;

/** Opens the house for some tests: database and runner. */
export async function openServer(): Promise<Runner> {
  await openStore();
  runner ??= new Runner(HANDLERS, givenUp);
  await runner.start();
  return runner;
}

/** Stops the runner; the threads stay for the next tests, since starting one takes a second or two. */
export async function closeServer(): Promise<void> {
  await runner?.stop();
  runner = null;
}

// Of the whole run: it can end only once the threads are gone.
after(closeThreads);

/** Brings a file in and waits until it has been read. */
export async function brought(name: string, content: string | Uint8Array): Promise<Package> {
  const { package: kept } = await bringIn(name, await storeBytes(bytesOf(content)));
  await settled();
  return (await packageById(kept.id))!;
}

/** An item by its place in a package; null where there is none. */
export async function packageItem(packageId: string, seq: number): Promise<Item | null> {
  const held = await packageFile(packageId);
  return held?.readingId ? itemAt(held.readingId, seq) : null;
}

/** Every item of a package, in order. */
export async function packageItems(packageId: string): Promise<Item[]> {
  const held = await packageFile(packageId);
  return held?.readingId ? itemsOf(held.readingId) : [];
}
