import { deserialize, serialize } from 'node:v8';
import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { HeldItem, within, type Packed } from '../src/model/heldItem.ts';
import type { Item } from '../src/model/holding.ts';
import { Lately } from '../src/model/lately.ts';
import type { ItemHolder } from '../src/reading/itemHolder.ts';

/** Items that are packed together: one by one they take twice the time. */
const TOGETHER = 32;
/** So many of those stay unpacked, of each reading: whoever comes next asks for the item after, or for one it goes with. */
const OPEN = 4;
/** They stand in memory for a minute: less effort is enough. */
const EFFORT = { level: 1 } as const;

/** Where items go as soon as they are held, while they wait here, too. */
export interface Onward {
  /**
   * @param from the place of the first among all items
   * @param items serialised together; the receiver's from now on
   * @param prints the fingerprint of each
   */
  readonly send: (from: number, items: Uint8Array, prints: readonly string[]) => void;
  /** What is to be waited for before more is sent. */
  readonly room: () => Promise<void> | undefined;
}

type Opened = Lately<readonly Item[], Waiting>;

/** Items that wait for others to be read; in memory only, so that nothing of them need be said in any form. */
class Waiting implements Packed {
  readonly #open: Opened;
  #items: Item[] = [];
  #packed: Uint8Array | null = null;

  /** @param open those of the same reading that are unpacked */
  constructor(open: Opened) {
    this.#open = open;
  }

  get full(): boolean {
    return this.#packed !== null;
  }

  /** @returns where it lies */
  add(item: Item): { readonly packed: Packed; readonly at: number } {
    return { packed: this, at: this.#items.push(item) - 1 };
  }

  /** Packs them once there are enough. @returns what was packed */
  pack(): Uint8Array | null {
    if (this.#items.length < TOGETHER) return null;
    const together = serialize(this.#items);
    this.#packed = deflateRawSync(together, EFFORT);
    this.#items = [];
    return together;
  }

  item(at: number): Item {
    if (this.#packed === null) return this.#items[at]!;
    let items = this.#open.get(this);
    if (!items) this.#open.set(this, (items = deserialize(inflateRawSync(this.#packed)) as Item[]));
    return items[at]!;
  }
}

/** What everything asks of all items that were read, so that none need be looked into for it. */
const ASKED_OF_ALL = [
  'id',
  'title',
  'points',
  'pointsExact',
  'scale',
  'category',
  'files',
  'metadata',
] as const;
const READ_WITHIN = within(ASKED_OF_ALL);

const askedOfAll = (item: Item): Partial<Item> =>
  Object.fromEntries(ASKED_OF_ALL.map((name) => [name, item[name]]));

/** Packs items, as many together as come one after the other. */
class Packing {
  readonly #open: Opened;
  #waiting: Waiting;

  constructor(open: Opened) {
    this.#open = open;
    this.#waiting = new Waiting(open);
  }

  /** @returns what stands for the item, and all that were packed with it where they have been by now */
  put(item: Item): { readonly held: Item; readonly packed: Uint8Array | null } {
    if (this.#waiting.full) this.#waiting = new Waiting(this.#open);
    // Copied, since what is at hand would keep the document that it was cut out of.
    const held = HeldItem.of(structuredClone(askedOfAll(item)), READ_WITHIN, this.#waiting.add(item));
    return { held, packed: this.#waiting.pack() };
  }
}

/**
 * Keeps items while a package is read.
 * @param small so many of them stay as they are
 * @param onward told of the others while they are read, as many at a time as are packed together
 */
export function itemHolder(small: number, onward?: Onward): ItemHolder {
  const open: Opened = new Lately(OPEN);
  const early = new Packing(open);
  const late = new Packing(open);
  let count = 0;
  let lateCount = 0;
  let prints: string[] = [];
  return {
    hold(item, asked) {
      count += 1;
      if (count <= small) return item;
      if (onward) prints.push(asked(item).print);
      const { held, packed } = early.put(item);
      if (packed && onward) {
        onward.send(count - prints.length, packed, prints);
        prints = [];
      }
      return held;
    },
    holdLate: (item) => (++lateCount <= small ? item : late.put(item).held),
    room: () => onward?.room(),
    settled: (held, points) => (HeldItem.isOne(held) ? HeldItem.put(held, points) : { ...held, ...points }),
  };
}
