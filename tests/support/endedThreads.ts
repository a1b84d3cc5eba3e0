import { setTimeout as wait } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import { closeDatabase } from '../../src/lib/server/store/database.ts';
import { Gate } from '../../src/lib/server/store/gate.ts';
import { openStore } from '../../src/lib/server/store/open.ts';

/**
 * Starts threads that ask the database without an end and ends each after a moment, in a process of its own on the data
 * folder that ALFORJA_DATA names. Says how many it has ended.
 */

const THREADS = 4;
const LONGEST_MS = 60;

await openStore();
for (let n = 0; n < THREADS; n++) {
  const gate = new Gate();
  const thread = new Worker(new URL('./endedFromSource.js', import.meta.url), {
    workerData: gate.shared,
  });
  await new Promise((resolve) => thread.once('message', resolve));
  await wait((LONGEST_MS * n) / THREADS);
  await gate.close();
  await thread.terminate();
}
closeDatabase();
process.stdout.write(String(THREADS));
