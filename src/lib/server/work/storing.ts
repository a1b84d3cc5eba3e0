import type { Item } from '@alforja/core';
import type { Onward } from '@alforja/core/itemHolder';
import type { JobOwner } from '../store/jobs.ts';
import { ItemRows, type PlacedItem } from './itemRows.ts';
import type { Progress } from './progress.ts';
import { RowThread, type RowThreadAsked } from './rowThread.ts';

/** Of a package with more items than this they are stored by a thread of its own. */
export const LARGE = 1000;
/** Items that go to it together. */
const TOGETHER = 32;

/** What is told of an item that is to be stored. */
interface Told {
  readonly print: string;
  /** How many items there are. */
  readonly of: number;
  /** Whether it is otherwise than it was when it was held. */
  readonly altered: boolean;
}

/** Stores the items of a reading: those that are held while others are read, and the rest once all are whole. */
export class Storing implements Onward {
  readonly #start: RowThreadAsked;
  readonly #progress: Progress;
  readonly #rows: ItemRows;
  #thread: RowThread | null = null;
  /** Places of those that went to the thread while others were read. */
  #early = { from: 0, to: 0 };
  #waiting: PlacedItem[] = [];
  #next = 0;

  constructor(readingId: string, by: JobOwner | null, progress: Progress) {
    this.#start = { readingId, by };
    this.#progress = progress;
    this.#rows = new ItemRows(readingId);
  }

  #open(): RowThread {
    return (this.#thread ??= new RowThread(this.#start));
  }

  /** Takes items that are held, one batch after the other. */
  send(from: number, items: Uint8Array, prints: readonly string[]): void {
    if (this.#early.to === 0) this.#early = { from, to: from };
    this.#early.to += prints.length;
    const places = prints.map((print, n) => ({ print, seq: from + n, again: false }));
    this.#open().send({ items, places });
  }

  room(): Promise<void> | undefined {
    return this.#thread?.room();
  }

  /** Takes the next item, in order. @returns what has to be waited for before the one after it */
  add(item: Item, { print, of, altered }: Told): Promise<void> | undefined {
    const seq = this.#next++;
    const again = seq >= this.#early.from && seq < this.#early.to;
    if (again && !altered) return undefined;
    const placed: PlacedItem = { item, print, seq, again };
    if (this.#thread === null && of <= LARGE) {
      const wait = this.#rows.add(placed);
      if (wait) this.#progress('Storing items', seq + 1, of);
      return wait;
    }
    this.#waiting.push(placed);
    if (this.#waiting.length < TOGETHER) return undefined;
    this.#post();
    return this.#thread?.room();
  }

  #post(): void {
    if (this.#waiting.length > 0) this.#open().post(this.#waiting);
    this.#waiting = [];
  }

  /** Comes to an end once all is stored. @throws where something could not be */
  async finish(): Promise<void> {
    this.#post();
    await this.#rows.flush();
    if (this.#thread)
      await this.#thread.finish((stored) => this.#progress('Storing items', stored, this.#next));
  }

  /** Ends the thread, whatever became of the reading. */
  async end(): Promise<void> {
    await this.#thread?.end();
    this.#thread = null;
  }
}
