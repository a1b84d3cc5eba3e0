import { EventEmitter } from 'node:events';
import { randomUUID } from 'node:crypto';
import type { JobView } from '../../shared/types.ts';

/** Job news for every open page of this process, numbered so that a page can ask for what it missed. */
const emitter = new EventEmitter();
emitter.setMaxListeners(0);

/** Tells this run of the process from another: numbers start again with it. */
const run = randomUUID().slice(0, 8);
const KEPT = 500;
const ended: { readonly at: number; readonly job: JobView }[] = [];
let count = 0;

export interface News {
  readonly id: string;
  readonly job?: JobView;
  /** The subject that changed, where it is no news of a job. */
  readonly changed?: string;
}

const idOf = (at: number): string => `${run}-${at}`;

/** The number of the latest news. */
export const latestNews = (): string => idOf(count);

export function announce(job: JobView): void {
  count += 1;
  if (job.state !== 'queued' && job.state !== 'running') {
    ended.push({ at: count, job });
    if (ended.length > KEPT) ended.shift();
  }
  emitter.emit('news', { id: idOf(count), job } satisfies News);
}

/**
 * Jobs that ended after this number.
 * @returns null where that can no longer be told: another run of the process, or too long ago
 */
export function endedSince(id: string): News[] | null {
  const [of, text] = id.split('-');
  const at = Number(text);
  if (of !== run || !Number.isInteger(at)) return null;
  if (ended.length === KEPT && ended[0]!.at > at + 1) return null;
  return ended.filter((e) => e.at > at).map((e) => ({ id: idOf(e.at), job: e.job }));
}

/** Subscribes to job news; gives the way to stop. */
export function listen(hear: (news: News) => void): () => void {
  emitter.on('news', hear);
  return () => emitter.off('news', hear);
}

/** Tells open pages that something of a transfer, system … changed while its job goes on. */
export function announceSubject(subject: string): void {
  count += 1;
  emitter.emit('news', { id: idOf(count), changed: subject });
}
