import { randomUUID } from 'node:crypto';
import { desc, eq, lt, sql } from 'drizzle-orm';
import type { NoticeView } from '../../shared/types.ts';
import { db, type Transaction } from './database.ts';
import { announceSubject } from './news.ts';
import { notices } from './schema.ts';

export type Notice = Pick<NoticeView, 'text' | 'href' | 'tone'>;

export async function insertNotice(tx: Transaction, notice: Notice): Promise<void> {
  await tx.insert(notices).values({ id: randomUUID(), at: Date.now(), read: false, ...notice });
  await announceSubject(tx, 'notices');
}

export const listNotices = (limit = 50): Promise<NoticeView[]> =>
  db.select().from(notices).orderBy(desc(notices.at)).limit(limit);

export async function unreadNotices(): Promise<number> {
  const [row] = await db
    .select({ n: sql<number>`count(*)` })
    .from(notices)
    .where(eq(notices.read, false));
  return row?.n ?? 0;
}

/** Removes notices from before a moment (ms). @returns how many */
export const removeOldNotices = async (tx: Transaction, before: number): Promise<number> =>
  (await tx.delete(notices).where(lt(notices.at, before)).returning({ id: notices.id })).length;

export const markRead = (tx: Transaction): Promise<unknown> =>
  tx.update(notices).set({ read: true }).where(eq(notices.read, false));
