import { createClient } from '@libsql/client';
import { drizzle } from 'drizzle-orm/libsql';
import { client } from './database.ts';
import { packageSums } from './packages.ts';
import * as schema from './schema.ts';
import { writtenSums } from './transfers.ts';

/**
 * Copies the database as it stands at one moment into a file, while the application goes on working with it.
 * @param to a file that is not there yet
 */
export const copyDatabase = (to: string): Promise<unknown> =>
  client().execute({ sql: 'VACUUM INTO ?', args: [to] });

/** The sums of all files that a copy of the database speaks of, each once. */
export async function sumsOfCopy(path: string): Promise<string[]> {
  const copy = createClient({ url: `file:${path}` });
  try {
    const db = drizzle(copy, { schema });
    return [...new Set([...(await packageSums(db)), ...(await writtenSums(db))])].sort();
  } finally {
    copy.close();
  }
}
