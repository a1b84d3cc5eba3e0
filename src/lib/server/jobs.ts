import { speak } from '@alforja/core';
import type { JobKind } from '../shared/types.ts';
import { snapshot } from './library/courses.ts';
import { notify } from './library/notices.ts';
import { read, readAnew } from './library/reading.ts';
import { sync } from './library/systems.ts';
import { clean } from './keeping/clean.ts';
import { Runner, type GivenUp, type Handlers } from './runner/runner.ts';
import { closeThreads } from './runner/threads.ts';
import { closeDatabase } from './store/database.ts';
import { cleanTemporary } from './store/files.ts';
import { live } from './store/news.ts';
import { openStore } from './store/open.ts';
import { sweepReadings } from './store/readings.ts';
import { batch } from './transfer/batch.ts';
import { plan } from './transfer/plan.ts';
import { send } from './transfer/send.ts';
import { takeUp } from './transfer/takeUp.ts';
import { undo } from './transfer/undo.ts';

export { warmThreads } from './runner/threads.ts';

/** What is done for each kind of job. */
export const HANDLERS: Handlers = { read, sync, snapshot, plan, send, undo, batch };

/** What each kind of job is called, and where it is seen. */
const SEEN: Readonly<Record<JobKind, { readonly name: string; readonly at: (subject: string) => string }>> = {
  read: { name: 'The reading of a package', at: (id) => `/packages/${id}` },
  sync: { name: 'The look at the courses of a system', at: () => '/systems' },
  snapshot: { name: 'The look into a course', at: (id) => `/courses/${encodeURIComponent(id)}` },
  plan: { name: 'The plan of a transfer', at: (id) => `/transfers/${id}` },
  send: { name: 'A transfer', at: (id) => `/transfers/${id}/send` },
  undo: { name: 'The undoing of a transfer', at: (id) => `/transfers/${id}/send` },
  batch: { name: 'The start of a batch', at: (id) => `/batches/${id}` },
};

/** Nobody may be looking when a job is given up. */
export const givenUp: GivenUp = (tx, { kind, subject }, why) =>
  notify(tx, {
    text: `${SEEN[kind].name} was given up. ${speak(why).message}`,
    href: SEEN[kind].at(subject),
    tone: 'bad',
  });

export const runner = new Runner(HANDLERS, givenUp);

const EVERY_DAY_MS = 86_400_000;

/**
 * Opens the house: database, files, and whatever earlier processes left to do.
 * @throws StoreTrouble where it cannot be opened, in words
 */
export async function openHouse(): Promise<void> {
  await openStore();
  await cleanTemporary();
  // First what processes had that are gone: what still runs then is another's, and left alone.
  await runner.takeOver();
  await sweepReadings();
  await takeUp();
  await runner.start();
  await readAnew();
  // It goes through every stored file: nobody waits for it.
  const tidy = (): void => void clean().catch(console.error);
  tidy();
  setInterval(tidy, EVERY_DAY_MS).unref();
}

/** How long work may take to end by itself when the process is to end, in ms. */
const GRACE_MS = 4000;

/**
 * Closes the house: no work is taken up any more, what runs is ended or handed back, open pages are let go.
 * @param answered what else is waited for before the database is closed
 */
export async function closeHouse(answered: Promise<unknown> = Promise.resolve()): Promise<void> {
  live.close();
  await Promise.all([runner.stop(GRACE_MS), answered]);
  await closeThreads();
  closeDatabase();
}

/** The process is gone this long after it was told to end, whatever is still under way, in ms. */
const END_MS = 9000;

/** Closes the house when the process is told to end, and then ends it. */
export function endWith(process: NodeJS.Process): void {
  let ending = false;
  const end = (): void => {
    if (ending) return;
    ending = true;
    setTimeout(() => process.exit(1), END_MS).unref();
    // Requests that are under way are answered first, where the server says when that is.
    const answered = new Promise<void>((resolve) => process.once('sveltekit:shutdown', () => resolve()));
    const enough = new Promise<void>((resolve) => setTimeout(resolve, GRACE_MS).unref());
    closeHouse(Promise.race([answered, enough])).then(
      () => process.exit(0),
      (error: unknown) => {
        console.error(error);
        process.exit(1);
      },
    );
  };
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, end);
}
