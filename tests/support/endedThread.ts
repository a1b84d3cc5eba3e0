import { parentPort, workerData } from 'node:worker_threads';
import { sql } from 'drizzle-orm';
import { db, write } from '../../src/lib/server/store/database.ts';
import { Gate, passThrough } from '../../src/lib/server/store/gate.ts';

/** A thread that asks the database without an end: it hardly does anything else. */

passThrough(new Gate(workerData as SharedArrayBuffer));
parentPort!.postMessage('begun');
for (;;) {
  await db.all(sql`SELECT name, sql FROM sqlite_master LIMIT 2`);
  await write((tx) => tx.run(sql`UPDATE packages SET name = 'x' WHERE id = 'nobody'`));
}
