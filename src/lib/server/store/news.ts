import { EventEmitter } from 'node:events';
import { asc, desc, eq, gt, lt } from 'drizzle-orm';
import { z } from 'zod';
import type { JobView } from '../../shared/types.ts';
import { db, onCommit, unfenced, type Transaction } from './database.ts';
import { news } from './schema.ts';

/** Something that open pages should know of. */
export interface NewsItem {
  /** Its number; that of the latest news where it is only of how far a job is. */
  readonly id: number;
  readonly job?: JobView;
  /** The subject that changed, where it is no news of a job. */
  readonly changed?: string;
}

/** News is looked back for so far. */
const KEPT = 500;
/** How often it is looked for what other processes tell, in ms. */
const LOOK_EVERY_MS = 300;

/** Tells open pages that a job has changed; part of the change itself. */
export const announce = (tx: Transaction, job: JobView): Promise<void> =>
  put(tx, { job: JSON.stringify(job) });

/** Tells open pages that something has changed; part of the change itself. */
export const announceSubject = (tx: Transaction, changed: string): Promise<void> => put(tx, { changed });

async function put(
  tx: Transaction,
  said: { readonly job?: string; readonly changed?: string },
): Promise<void> {
  const [row] = await tx.insert(news).values(said).returning({ id: news.id });
  if (row!.id % KEPT === 0) await tx.delete(news).where(lt(news.id, row!.id - 2 * KEPT));
  onCommit(tx, () => live.look());
}

const View = z.custom<JobView>((said) => typeof said === 'object' && said !== null && 'state' in said);
const itemOf = ({ id, job, changed }: typeof news.$inferSelect): NewsItem =>
  job === null ? { id, changed: changed ?? '' } : { id, job: View.parse(JSON.parse(job)) };

/** The number of the latest news; 0 before there was any. */
export async function latestNews(): Promise<number> {
  const [row] = await db.select({ id: news.id }).from(news).orderBy(desc(news.id)).limit(1);
  return row?.id ?? 0;
}

/**
 * What was told after this number, oldest first.
 * @returns null where that can no longer be said: too long ago, or no number of ours
 */
export async function newsSince(after: string): Promise<NewsItem[] | null> {
  if (!/^\d{1,15}$/u.test(after)) return null;
  const from = Number(after);
  const rows = await db
    .select()
    .from(news)
    .where(gt(news.id, from))
    .orderBy(asc(news.id))
    .limit(KEPT + 1);
  if (rows.length > KEPT) return null;
  // The number itself must still be known, or what followed it may be gone: only the very first has none before.
  if (from > 0 && (await db.select({ id: news.id }).from(news).where(eq(news.id, from))).length === 0)
    return null;
  return rows.map(itemOf);
}

/** News for the open pages of this process, from whichever process it comes. */
class LiveNews {
  readonly #emitter = new EventEmitter().setMaxListeners(0);
  #last: number | null = null;
  #timer: NodeJS.Timeout | undefined;
  #looking = false;
  #again = false;

  /** Subscribes to what comes from now on; gives the way to stop. */
  listen(hear: (news: NewsItem) => void): () => void {
    this.#emitter.on('news', hear);
    if (!this.#timer) {
      this.#timer = setInterval(() => this.look(), LOOK_EVERY_MS);
      this.#timer.unref();
      this.look();
    }
    return () => {
      this.#emitter.off('news', hear);
      if (this.#emitter.listenerCount('news') > 0) return;
      clearInterval(this.#timer);
      this.#timer = undefined;
      this.#last = null;
    };
  }

  /** Has somebody told when there is no more news: this process ends. */
  onClose(hear: () => void): () => void {
    this.#emitter.on('close', hear);
    return () => this.#emitter.off('close', hear);
  }

  close(): void {
    this.#emitter.emit('close');
  }

  /** Whether anybody listens. */
  get heard(): boolean {
    return this.#timer !== undefined;
  }

  /** Tells how far a job is; nobody who missed it asks for it again. */
  progress(job: JobView): void {
    this.#emitter.emit('news', { id: this.#last ?? 0, job } satisfies NewsItem);
  }

  /** Looks for news now. */
  look(): void {
    if (!this.#timer) return;
    if (this.#looking) return void (this.#again = true);
    this.#looking = true;
    unfenced(() => this.#tell())
      .catch((error: unknown) => console.error('News could not be read:', error))
      .finally(() => {
        this.#looking = false;
        if (this.#again) this.look();
      });
  }

  async #tell(): Promise<void> {
    this.#again = false;
    const from = this.#last;
    if (from === null) return void (this.#last = await latestNews());
    const rows = await db.select().from(news).where(gt(news.id, from)).orderBy(asc(news.id)).limit(KEPT);
    for (const row of rows) {
      this.#last = row.id;
      this.#emitter.emit('news', itemOf(row));
    }
    if (rows.length === KEPT) this.#again = true;
  }
}

export const live = new LiveNews();
