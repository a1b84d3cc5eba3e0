import { randomUUID } from 'node:crypto';
import { asc, eq, sql } from 'drizzle-orm';
import type { SystemAbout, SystemView } from '../../shared/courses.ts';
import { db, type Reading, type Transaction } from './database.ts';
import { aboutCodec } from './documents/courses.ts';
import { courses, systems } from './schema.ts';

/** A connected system with the sealed token that opens it. */
export interface System {
  readonly id: string;
  readonly name: string;
  readonly address: string;
  /** Sealed; `connectors/secret.ts` opens it. */
  readonly token: string;
  readonly about: SystemAbout;
}

export async function systemById(id: string, on: Reading = db): Promise<System | null> {
  const [row] = await on.select().from(systems).where(eq(systems.id, id));
  return row ? { ...row, about: aboutCodec.read(row.about) } : null;
}

export async function listSystems(on: Reading = db): Promise<SystemView[]> {
  const rows = await on.select().from(systems).orderBy(asc(systems.createdAt));
  const counts = await on
    .select({ systemId: courses.systemId, count: sql<number>`count(*)` })
    .from(courses)
    .groupBy(courses.systemId);
  return rows.map(({ id, name, address, about, syncedAt, trouble }) => ({
    id,
    name,
    address,
    about: aboutCodec.read(about),
    courses: counts.find((c) => c.systemId === id)?.count ?? 0,
    syncedAt,
    trouble,
  }));
}

/**
 * Keeps a connection; the same address and holder is the same connection, with a new token.
 * @returns its id
 */
export async function keepSystem(
  tx: Transaction,
  { address, token, about }: Pick<System, 'address' | 'token' | 'about'>,
): Promise<string> {
  const all = await listSystems(tx);
  const known = all.find((s) => s.address === address && s.about.user.id === about.user.id);
  // Two connections to one system are told apart by whose they are.
  const taken = all.some((s) => s.id !== known?.id && s.name === about.name);
  const name = taken ? `${about.name} (${about.user.name})` : about.name;
  const row = { name, address, token, about: aboutCodec.write(about), trouble: null };
  if (known) {
    await tx.update(systems).set(row).where(eq(systems.id, known.id));
    return known.id;
  }
  const id = randomUUID();
  await tx.insert(systems).values({ id, ...row, createdAt: Date.now(), syncedAt: null });
  return id;
}

/**
 * Notes that a system was asked for its courses: what it says of itself now, or why it could not be asked.
 */
export const noteSync = (
  tx: Transaction,
  id: string,
  came: { readonly about: SystemAbout } | { readonly trouble: string },
): Promise<unknown> =>
  tx
    .update(systems)
    .set({
      syncedAt: Date.now(),
      ...('about' in came
        ? { trouble: null, about: aboutCodec.write(came.about) }
        : { trouble: came.trouble }),
    })
    .where(eq(systems.id, id));

export const removeSystem = (tx: Transaction, id: string): Promise<unknown> =>
  tx.delete(systems).where(eq(systems.id, id));
