import { deserialize } from 'node:v8';
import { parentPort, workerData } from 'node:worker_threads';
import type { Item } from '@alforja/core';
import { closeDatabase, fenced } from '../store/database.ts';
import { Gate, passThrough } from '../store/gate.ts';
import { needOwner } from '../store/jobs.ts';
import { troubleOf } from '../store/open.ts';
import { ItemRows } from './itemRows.ts';
import type { FromRowThread, RowBatch, RowThreadStart, ToRowThread } from './rowThread.ts';

/** Stores items of a reading while another thread reads. */

const { readingId, by, gate } = workerData as RowThreadStart;
if (gate) passThrough(new Gate(gate));
const rows = new ItemRows(readingId);
const tell = (told: FromRowThread): void => parentPort!.postMessage(told);
const asOwner = (work: () => Promise<void>): Promise<void> =>
  fenced(by ? (tx) => needOwner(tx, by) : null, work);

async function store({ items, places }: RowBatch): Promise<void> {
  const read = deserialize(items) as readonly Item[];
  for (const [at, place] of places.entries()) {
    const wait = rows.add({ item: read[at]!, ...place });
    if (wait) await wait;
  }
  tell({ stored: places.length });
}

async function finish(): Promise<void> {
  await rows.flush();
  closeDatabase();
  tell(null);
  parentPort!.close();
}

let tail: Promise<void> = Promise.resolve();
parentPort!.on('message', (asked: ToRowThread) => {
  tail = tail.then(() => asOwner(() => (asked === null ? finish() : store(asked))));
  tail.catch((error: unknown) => tell({ failed: troubleOf(error).message }));
});
