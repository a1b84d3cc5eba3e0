import { randomUUID } from 'node:crypto';
import { asc, eq, sql } from 'drizzle-orm';
import type { SystemAbout, SystemView } from '../../shared/courses.ts';
import { OneRosterConnector } from '../connectors/oneroster.ts';
import { seal, unseal } from '../connectors/secret.ts';
import type { Connector } from '../connectors/types.ts';
import { db, write } from '../db/client.ts';
import { courses, systems } from '../db/schema.ts';
import { enqueue } from '../jobs/queue.ts';

export async function listSystems(): Promise<SystemView[]> {
  const rows = await db.select().from(systems).orderBy(asc(systems.createdAt));
  const counts = await db
    .select({ systemId: courses.systemId, count: sql<number>`count(*)` })
    .from(courses)
    .groupBy(courses.systemId);
  return rows.map(({ id, name, address, about, syncedAt, trouble }) => ({
    id,
    name,
    address,
    about: JSON.parse(about) as SystemAbout,
    courses: counts.find((c) => c.systemId === id)?.count ?? 0,
    syncedAt,
    trouble,
  }));
}

export const systemById = async (id: string) =>
  (await db.select().from(systems).where(eq(systems.id, id)))[0] ?? null;

/** @param onRetry told when a request had to be made again @throws where there is no such system any more */
export async function connectorTo(systemId: string, onRetry?: (what: string) => void): Promise<Connector> {
  const system = await systemById(systemId);
  if (!system) throw new Error('That course system is no longer connected.');
  const { name, address } = system;
  return new OneRosterConnector({
    name,
    address,
    token: unseal(system.token),
    ...(onRetry ? { onRetry } : {}),
  });
}

/** Connects a system after asking it who it is. The same address and holder is the same connection, with a new token. */
export async function connect(address: string, token: string): Promise<string> {
  const about = await new OneRosterConnector({ name: address, address, token }).about();
  const known = (await listSystems()).find((s) => s.address === address && s.about.user.id === about.user.id);
  const id = known?.id ?? randomUUID();
  const name = await freeName(about, id);
  const row = { name, address, token: seal(token), about: JSON.stringify(about), trouble: null };
  await write((tx) =>
    known
      ? tx.update(systems).set(row).where(eq(systems.id, id))
      : tx.insert(systems).values({ id, ...row, createdAt: Date.now(), syncedAt: null }),
  );
  await enqueue('sync', id);
  return id;
}

/** Two connections to one system are told apart by whose they are. */
async function freeName(about: SystemAbout, id: string): Promise<string> {
  const taken = (await listSystems()).some((s) => s.id !== id && s.name === about.name);
  return taken ? `${about.name} (${about.user.name})` : about.name;
}

export async function disconnect(id: string): Promise<void> {
  await write(async (tx) => {
    await tx.delete(courses).where(eq(courses.systemId, id));
    await tx.delete(systems).where(eq(systems.id, id));
  });
}

const STALE_MS = 60_000;

/** Looks at the courses of every system again whose last look is older than a minute. */
export async function lookAgain(force = false): Promise<void> {
  for (const { id, syncedAt } of await listSystems())
    if (force || syncedAt === null || Date.now() - syncedAt > STALE_MS) await enqueueOnce('sync', id);
}

/** Queues a job unless one like it waits or runs. */
export async function enqueueOnce(kind: 'sync' | 'fetch' | 'plan', subject: string): Promise<void> {
  const [busy] = await db.all<{ n: number }>(
    sql`SELECT count(*) AS n FROM jobs WHERE kind = ${kind} AND subject = ${subject} AND state IN ('queued', 'running')`,
  );
  if ((busy?.n ?? 0) === 0) await enqueue(kind, subject);
}
