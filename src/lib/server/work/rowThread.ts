import { serialize } from 'node:v8';
import { Worker } from 'node:worker_threads';
import { ownGate } from '../store/gate.ts';
import type { JobOwner } from '../store/jobs.ts';
import { troubleOf } from '../store/open.ts';
import type { PlacedItem } from './itemRows.ts';

export interface RowThreadAsked {
  readonly readingId: string;
  /** For whom it stores; null where nobody asked for it as a job. */
  readonly by: JobOwner | null;
}
/** What the thread is told when it is started. */
export interface RowThreadStart extends RowThreadAsked {
  /** It ends with the thread that started it, and passes its gate. */
  readonly gate: SharedArrayBuffer | null;
}

/** Some items of a reading, one after the other. */
export interface RowBatch {
  /** The items, serialised together: whoever holds them has done that already. */
  readonly items: Uint8Array;
  readonly places: readonly Omit<PlacedItem, 'item'>[];
}

/** Null is the end: what waits is stored. */
export type ToRowThread = RowBatch | null;
/** How many items a batch had that is done; why one could not be; null once all are stored. */
export type FromRowThread = { readonly stored: number } | { readonly failed: string } | null;

/** Bytes that are under way at a time: while the thread is behind, reading waits. */
const UNDER_WAY = 16 * 2 ** 20;
/** Rows are short-lived, and there are two such heaps. */
const YOUNG_GENERATION_MB = 32;

/** The bundle beside this one in production; the source otherwise. */
const ENTRY = import.meta.url.endsWith('.ts') ? './rowsFromSource.js' : './rows.js';

/** The thread that stores items of a reading while others are read. */
export class RowThread {
  readonly #worker: Worker;
  /** The size of each batch that is under way, in bytes, in order. */
  readonly #batches: number[] = [];
  #underWay = 0;
  #stored = 0;
  #failed: Error | null = null;
  #done = false;
  #heard: (() => void) | null = null;

  constructor(asked: RowThreadAsked) {
    this.#worker = new Worker(new URL(ENTRY, import.meta.url), {
      workerData: { ...asked, gate: ownGate()?.shared ?? null } satisfies RowThreadStart,
      execArgv: [],
      resourceLimits: { maxYoungGenerationSizeMb: YOUNG_GENERATION_MB },
    });
    this.#worker.on('message', (told: FromRowThread) => this.#hear(told));
    this.#worker.on('error', (error) => this.#fail(new Error(troubleOf(error).message)));
    this.#worker.on('exit', () => this.#fail(new Error('The thread that stores items has ended.')));
  }

  #hear(told: FromRowThread): void {
    if (told === null) this.#done = true;
    else if ('failed' in told) return this.#fail(new Error(told.failed));
    else {
      this.#underWay -= this.#batches.shift() ?? 0;
      this.#stored += told.stored;
    }
    this.#heard?.();
  }

  #fail(error: Error): void {
    if (!this.#done) this.#failed ??= error;
    this.#heard?.();
  }

  send(batch: RowBatch): void {
    this.#batches.push(batch.items.length);
    this.#underWay += batch.items.length;
    this.#worker.postMessage(batch satisfies ToRowThread, [batch.items.buffer as ArrayBuffer]);
  }

  /** The same with items that nobody has serialised. */
  post(items: readonly PlacedItem[]): void {
    const places = items.map(({ item: _, ...place }) => place);
    this.send({ items: serialize(items.map((i) => i.item)), places });
  }

  /** What is to be waited for before more is sent. @throws where something could not be stored */
  room(): Promise<void> | undefined {
    return this.#failed || this.#underWay >= UNDER_WAY
      ? this.#until(() => this.#underWay < UNDER_WAY)
      : undefined;
  }

  /**
   * Comes to an end once all is stored.
   * @param tell told of how many that is, while it is waited for
   * @throws where something could not be
   */
  async finish(tell: (stored: number) => void): Promise<void> {
    this.#worker.postMessage(null satisfies ToRowThread);
    await this.#until(() => {
      tell(this.#stored);
      return this.#done;
    });
  }

  async #until(reached: () => boolean): Promise<void> {
    while (!reached() && !this.#failed) await new Promise<void>((resolve) => (this.#heard = resolve));
    if (this.#failed) throw this.#failed;
  }

  /** Ends the thread; what it was given is stored, so that no change is broken off. */
  async end(): Promise<void> {
    if (!this.#done && !this.#failed) await this.finish(() => undefined).catch(() => undefined);
    await this.#worker.terminate();
  }
}
