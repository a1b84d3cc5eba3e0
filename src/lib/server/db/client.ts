import { createClient } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { databaseUrl, migrationsPath } from '../config.ts';
import * as schema from './schema.ts';

export type Database = LibSQLDatabase<typeof schema>;
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

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

let tail: Promise<unknown> = Promise.resolve();

/**
 * Runs a write after all earlier ones. Each libSQL transaction takes a connection of its own, and two that
 * write at once fail as busy; one queue for the process keeps them apart.
 */
export function write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T> {
  const next = tail.then(() => db.transaction(work));
  tail = next.catch(() => undefined);
  return next;
}
