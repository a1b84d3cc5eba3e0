import { randomUUID } from 'node:crypto';
import { EventEmitter } from 'node:events';
import type { JobView } from '../../shared/types.ts';

/** Something that open pages should know of. */
export interface NewsItem {
  readonly id: string;
  readonly job?: JobView;
  /** The subject that changed, where it is no news of a job. */
  readonly changed?: string;
}

/** News for every open page, numbered so that a page can ask for what it missed. */
export interface News {
  /** The number of the latest news. */
  latest(): string;
  announceJob(job: JobView): void;
  announceSubject(subject: string): void;
  /**
   * Jobs that ended after this number.
   * @returns null where that can no longer be told: another run of the process, or too long ago
   */
  endedSince(id: string): NewsItem[] | null;
  /** Subscribes; gives the way to stop. */
  listen(hear: (news: NewsItem) => void): () => void;
}

const KEPT = 500;

/** News within this process. */
class ProcessNews implements News {
  readonly #emitter = new EventEmitter().setMaxListeners(0);
  /** Tells this run of the process from another: numbers start again with it. */
  readonly #run = randomUUID().slice(0, 8);
  readonly #ended: { readonly at: number; readonly job: JobView }[] = [];
  #count = 0;

  #idOf(at: number): string {
    return `${this.#run}-${at}`;
  }

  latest(): string {
    return this.#idOf(this.#count);
  }

  announceJob(job: JobView): void {
    this.#count += 1;
    if (job.state !== 'queued' && job.state !== 'running') {
      this.#ended.push({ at: this.#count, job });
      if (this.#ended.length > KEPT) this.#ended.shift();
    }
    this.#emitter.emit('news', { id: this.latest(), job } satisfies NewsItem);
  }

  announceSubject(subject: string): void {
    this.#count += 1;
    this.#emitter.emit('news', { id: this.latest(), changed: subject } satisfies NewsItem);
  }

  endedSince(id: string): NewsItem[] | null {
    const [of, text] = id.split('-');
    const at = Number(text);
    if (of !== this.#run || !Number.isInteger(at)) return null;
    if (this.#ended.length === KEPT && this.#ended[0]!.at > at + 1) return null;
    return this.#ended.filter((e) => e.at > at).map((e) => ({ id: this.#idOf(e.at), job: e.job }));
  }

  listen(hear: (news: NewsItem) => void): () => void {
    this.#emitter.on('news', hear);
    return () => this.#emitter.off('news', hear);
  }
}

export const news: News = new ProcessNews();
export const announce = (job: JobView): void => news.announceJob(job);
export const announceSubject = (subject: string): void => news.announceSubject(subject);
