import { randomUUID } from 'node:crypto';
import { asc, eq } from 'drizzle-orm';
import { db, type Transaction } from './database.ts';
import { libraries } from './schema.ts';

/** A connected library with the sealed token that opens it. */
interface Library {
  readonly id: string;
  readonly name: string;
  readonly address: string;
  /** Sealed; `connectors/secret.ts` opens it. */
  readonly token: string;
}

export const listLibraries = (): Promise<Library[]> =>
  db.select().from(libraries).orderBy(asc(libraries.createdAt));

export async function libraryById(id: string): Promise<Library | null> {
  const [row] = await db.select().from(libraries).where(eq(libraries.id, id));
  return row ?? null;
}

/** Keeps a connection; the same address is the same library, with a new token. @returns its id */
export async function keepLibrary(tx: Transaction, given: Omit<Library, 'id'>): Promise<string> {
  const [had] = await tx.select().from(libraries).where(eq(libraries.address, given.address));
  if (had) {
    await tx.update(libraries).set(given).where(eq(libraries.id, had.id));
    return had.id;
  }
  const id = randomUUID();
  await tx.insert(libraries).values({ id, ...given, createdAt: Date.now() });
  return id;
}

export const removeLibrary = (tx: Transaction, id: string): Promise<unknown> =>
  tx.delete(libraries).where(eq(libraries.id, id));
