import { createClient } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { databaseUrl, migrationsPath } from '../config.ts';
import * as schema from './schema.ts';

type Database = LibSQLDatabase<typeof schema>;
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];
/** What reads run on: the database as it is, or a transaction that sees its own changes. */
export type Reading = Database | Transaction;

const client = createClient({ url: databaseUrl });
export const db: Database = drizzle(client, { schema });

let ready: Promise<void> | null = null;

/** Opens the database once: write-ahead log, then the migrations that ship with the project. */
export function openDatabase(): Promise<void> {
  return (ready ??= (async () => {
    if (databaseUrl.startsWith('file:')) {
      await client.execute('PRAGMA journal_mode = WAL');
      await client.execute('PRAGMA synchronous = FULL');
    }
    await migrate(db, { migrationsFolder: migrationsPath });
  })());
}

const effects = new WeakMap<Transaction, (() => void)[]>();
let tail: Promise<unknown> = Promise.resolve();

/**
 * Runs one change of the database after all earlier ones: whole, or not at all. Each libSQL transaction takes
 * a connection of its own, and two that write at once fail as busy; one queue for the process keeps them
 * apart.
 */
export function write<T>(work: (tx: Transaction) => Promise<T>): Promise<T> {
  const next = tail.then(async () => {
    let after: (() => void)[] = [];
    const result = await db.transaction(async (tx) => {
      effects.set(tx, []);
      const done = await work(tx);
      after = effects.get(tx) ?? [];
      return done;
    });
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
