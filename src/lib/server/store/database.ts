import { AsyncLocalStorage } from 'node:async_hooks';
import { setTimeout as wait } from 'node:timers/promises';
import { isMainThread } from 'node:worker_threads';
import { createClient, type Client } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { databaseUrl } from '../config.ts';
import { behindGate } from './gate.ts';
import * as schema from './schema.ts';

type Database = LibSQLDatabase<typeof schema>;
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];
/** What reads run on: the database as it is, or a transaction that sees its own changes. */
export type Reading = Database | Transaction;

/**
 * How long a read waits for a lock of another connection, in ms. The thread stands still meanwhile; readers hardly
 * ever wait, since the log is written ahead.
 */
const BUSY_MS = isMainThread ? 100 : 5000;

let readers: Client | null = null;
/** The client, opened when it is first needed: a build loads this file where there is no data folder. */
export const client = (): Client =>
  (readers ??= behindGate(() => createClient({ url: databaseUrl, timeout: BUSY_MS })));

let writer: Client | null = null;
/** The one connection that writes; it waits for no lock, but is asked again (`patiently`). */
const theWriter = (): Client =>
  (writer ??= behindGate(() => createClient({ url: databaseUrl, concurrency: 1 })));

const over = (of: () => Client): Database =>
  drizzle({
    client: new Proxy({} as Client, {
      get: (_, name) => {
        const value: unknown = Reflect.get(of(), name);
        return typeof value === 'function' ? value.bind(of()) : value;
      },
    }),
    schema,
  });

export const db: Database = over(client);
const writing: Database = over(theWriter);

/** The connection that writes is opened anew with the next change. */
function dropWriter(): void {
  writer?.close();
  writer = null;
}

/** Closes the database, as far as this process is concerned. */
export function closeDatabase(): void {
  dropWriter();
  readers?.close();
  readers = null;
}

/** What is asked in every change of some work before it is made; throws where the work is no longer wanted. */
type Fence = (tx: Transaction) => Promise<void>;
const fences = new AsyncLocalStorage<Fence | null>();

/** Does work whose changes are made only as long as a fence lets them through. */
export const fenced = <T>(fence: Fence | null, work: () => Promise<T>): Promise<T> => fences.run(fence, work);
/** Does what is no part of the work that set it off. */
export const unfenced = <T>(work: () => T): T => fences.run(null, work);

const effects = new WeakMap<Transaction, (() => void)[]>();
let tail: Promise<unknown> = Promise.resolve();

/**
 * Runs one change of the database after all earlier ones of this process: whole, or not at all. Other processes
 * on the same folder are kept apart by the database's own lock.
 * @throws where the database cannot be written, or stays locked for longer than a minute
 */
export function write<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
  const fence = fences.getStore();
  const next = tail.then(async () => {
    let after: (() => void)[] = [];
    const result = await patiently((begun) =>
      writing.transaction(async (tx) => {
        begun();
        effects.set(tx, []);
        await fence?.(tx);
        const done = await work(tx);
        after = effects.get(tx) ?? [];
        return done;
      }),
    );
    for (const effect of after) effect();
    return result;
  });
  tail = next.catch(() => undefined);
  return next;
}

/** Does something once the change has been committed, and never if it was not. */
export function onCommit(tx: Transaction, effect: () => void): void {
  effects.get(tx)?.push(effect);
}

const PATIENCE_MS = 60_000;
const [FIRST_MS, LONGEST_MS] = [5, 100];

/**
 * Tries again while another process is in the way, without standing still: first soon, then less often.
 * @param work says when it has got the lock; what fails after that is not tried again
 * @param inTheWay whether an error comes of another process
 * @param drop gives up the connections that work is done on
 */
export async function patiently<T>(
  work: (begun: () => void) => Promise<T>,
  inTheWay: (error: unknown) => boolean = isBusy,
  drop: () => void = dropWriter,
): Promise<T> {
  const from = performance.now();
  for (let pause = FIRST_MS; ; pause = Math.min(pause * 1.5, LONGEST_MS)) {
    let begun = false;
    try {
      return await work(() => (begun = true));
    } catch (error) {
      if (begun || !inTheWay(error) || performance.now() - from > PATIENCE_MS) throw error;
      // The driver leaves a statement under way that did not get its lock, and nothing can be committed beside it.
      drop();
      await wait(pause * (0.5 + Math.random()));
    }
  }
}

/** An error and what it was caused by: Drizzle wraps what the driver throws. */
export function causesOf(error: unknown): NodeJS.ErrnoException[] {
  const causes: NodeJS.ErrnoException[] = [];
  for (let e = error; e instanceof Error; e = e.cause) causes.push(e);
  return causes;
}

/** Whether another connection holds what was needed. */
export const isBusy = (error: unknown): boolean =>
  causesOf(error).some(({ code }) => String(code).startsWith('SQLITE_BUSY'));
