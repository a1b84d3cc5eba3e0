import { eq, lt } from 'drizzle-orm';
import { db, type Transaction } from './database.ts';
import { requests } from './schema.ts';

/** What was answered to a request; `status` is null where that is not known. */
export type Answered = Pick<typeof requests.$inferSelect, 'asked' | 'status' | 'body'>;

/** Notes that a request is changing something. @returns false where one with this key has done so before */
export async function claimRequest(tx: Transaction, key: string, asked: string): Promise<boolean> {
  const claimed = await tx
    .insert(requests)
    .values({ key, asked, at: Date.now() })
    .onConflictDoNothing()
    .returning({ key: requests.key });
  return claimed.length > 0;
}

export const noteAnswer = (
  tx: Transaction,
  key: string,
  answer: Pick<Answered, 'status' | 'body'>,
): Promise<unknown> => tx.update(requests).set(answer).where(eq(requests.key, key));

/** What became of the request with a key; null where none has changed anything. */
export async function requestBy(key: string): Promise<Answered | null> {
  const [row] = await db
    .select({ asked: requests.asked, status: requests.status, body: requests.body })
    .from(requests)
    .where(eq(requests.key, key));
  return row ?? null;
}

/** Forgets requests from before a moment (ms). @returns how many */
export const removeOldRequests = async (tx: Transaction, before: number): Promise<number> =>
  (await tx.delete(requests).where(lt(requests.at, before)).returning({ key: requests.key })).length;
