import { readlinkSync } from 'node:fs';
import { hostname } from 'node:os';
import { and, eq, notInArray } from 'drizzle-orm';
import { db, type Transaction } from './database.ts';
import { processes } from './schema.ts';

/** A process that has jobs, with its lease. */
export type Process = typeof processes.$inferSelect;

/** How long a lease holds that is not renewed, in ms. */
export const LEASE_MS = 15_000;

/** This machine, and on Linux the room in which process numbers count: containers have one each. */
const HERE = `${hostname()} ${(() => {
  try {
    return readlinkSync('/proc/self/ns/pid');
  } catch {
    return '';
  }
})()}`;

/** Takes or renews the lease of a process. @param id made anew at each start */
export async function takeLease(tx: Transaction, id: string): Promise<void> {
  const leaseUntil = Date.now() + LEASE_MS;
  await tx
    .insert(processes)
    .values({ id, host: HERE, pid: process.pid, leaseUntil })
    .onConflictDoUpdate({ target: processes.id, set: { leaseUntil } });
}

/** Renews a lease. @returns false where it was lost meanwhile */
export async function renewLease(tx: Transaction, id: string): Promise<boolean> {
  const renewed = await tx
    .update(processes)
    .set({ leaseUntil: Date.now() + LEASE_MS })
    .where(eq(processes.id, id))
    .returning({ id: processes.id });
  return renewed.length > 0;
}

export const dropLease = (tx: Transaction, id: string): Promise<unknown> =>
  tx.delete(processes).where(eq(processes.id, id));

/** Ends a lease that has lapsed, unless it was renewed since somebody looked. */
export const endLease = (tx: Transaction, { id, leaseUntil }: Process): Promise<unknown> =>
  tx.delete(processes).where(and(eq(processes.id, id), eq(processes.leaseUntil, leaseUntil)));

/** All leases but those of these processes. */
export const otherLeases = (ids: readonly string[]): Promise<Process[]> =>
  db
    .select()
    .from(processes)
    .where(notInArray(processes.id, [...ids]));

/**
 * Whether a process is known to be gone: it was on this machine, and its number is nobody's, or ours. One whose
 * number somebody else has by now is found by its lease.
 */
export function isGone({ host, pid }: Process): boolean {
  if (host !== HERE) return false;
  if (pid === process.pid) return true;
  try {
    process.kill(pid, 0);
    return false;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'ESRCH';
  }
}
