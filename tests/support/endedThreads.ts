import { setTimeout as wait } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import { databaseUrl } from '../../src/lib/server/config.ts';
import { closeDatabase } from '../../src/lib/server/store/database.ts';
import { Gate } from '../../src/lib/server/store/gate.ts';
import { openStore } from '../../src/lib/server/store/open.ts';
import type { EndedThread } from './endedThread.ts';

/**
 * Starts threads that ask the database without an end and ends each after a moment, then one that keeps whatever it is
 * told until its memory is full; in a process of its own, on the data folder that ALFORJA_DATA names. Says how many it has
 * ended, and what the last one said.
 */

const THREADS = 12;
const LONGEST_MS = 60;
const MEGABYTES = 80;

/** Starts a thread. @returns the thread, and what it says first */
function started(what: EndedThread['what'], gate: Gate): { thread: Worker; said: Promise<unknown> } {
  const thread = new Worker(new URL('./endedFromSource.js', import.meta.url), {
    workerData: { what, url: databaseUrl, gate: gate.shared } satisfies EndedThread,
    resourceLimits: { maxOldGenerationSizeMb: MEGABYTES },
  });
  const said = new Promise((resolve, reject) => thread.once('message', resolve).once('error', reject));
  return { thread, said };
}

await openStore();
for (let n = 0; n < THREADS; n++) {
  const gate = new Gate();
  const { thread, said } = started('ask', gate);
  await said;
  await wait((LONGEST_MS * n) / THREADS);
  await gate.close();
  await thread.terminate();
}
const last = await started('keep', new Gate()).said;
closeDatabase();
process.stdout.write(`${THREADS} ${String(last)}`);
