import { randomUUID } from 'node:crypto';
import { write } from '../db/client.ts';
import { jobs } from '../db/schema.ts';

/** The runner's ear; it stands apart so that what a job leads to can put further jobs in the queue. */
let wake: () => void = () => undefined;
export const onQueued = (hear: () => void): void => void (wake = hear);

/** Puts a job in the queue. `subject` is the package, transfer, course … it works for. */
export async function enqueue(kind: (typeof jobs.$inferSelect)['kind'], subject: string): Promise<string> {
  const id = randomUUID();
  await write((tx) => tx.insert(jobs).values({ id, kind, subject, state: 'queued', createdAt: Date.now() }));
  wake();
  return id;
}
