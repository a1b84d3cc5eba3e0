import { parentPort, workerData } from 'node:worker_threads';
import { createClient } from '@libsql/client';
import { behindGate, Gate, passThrough } from '../../src/lib/server/store/gate.ts';

/** What a thread does, where the database is, and what its gate shares. */
export interface EndedThread {
  readonly what: 'ask' | 'keep';
  readonly url: string;
  readonly gate: SharedArrayBuffer;
}

const { what, url, gate } = workerData as EndedThread;
passThrough(new Gate(gate));
const client = behindGate(() => createClient({ url, timeout: 5000 }));

/** Asks the database without an end: it hardly does anything else. */
async function ask(): Promise<never> {
  parentPort!.postMessage('begun');
  for (;;) {
    await client.execute('SELECT name, sql FROM sqlite_master LIMIT 2');
    const change = await client.transaction('write');
    await change.execute({ sql: 'UPDATE packages SET name = ? WHERE id = ?', args: ['x', 'nobody'] });
    await change.commit();
  }
}

/** Keeps all that the database says, and tells why it was broken off. */
async function keep(): Promise<void> {
  const { Refusal } = await import('@alforja/core');
  const { needMemory } = await import('../../src/lib/server/work/memory.ts');
  passThrough(new Gate(gate), () => needMemory('keeping'));
  const kept: unknown[] = [];
  try {
    for (;;) kept.push(await client.execute('SELECT name, sql FROM sqlite_master'));
  } catch (error) {
    parentPort!.postMessage(error instanceof Refusal ? error.finding.code : String(error));
  }
}

await (what === 'ask' ? ask() : keep());
