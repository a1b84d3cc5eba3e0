import { setImmediate as comeRound } from 'node:timers/promises';
import {
  beside,
  cut,
  indexWords,
  interactionsOf,
  keyTexts,
  kindOf,
  newPurse,
  opening,
  optionSets,
  optionText,
  recognise,
  shortKey,
  stemText,
  type Item,
  type Recognised,
} from '@alforja/core';
import type { StoredItem } from '../../shared/types.ts';
import { write } from '../store/database.ts';
import { itemCodec, itemFilesCodec } from '../store/documents/packages.ts';
import { insertItems, removeItemsAt, type PlacedRow } from '../store/items.ts';

/** An item of a reading on its way into its row. */
export interface PlacedItem {
  readonly item: Item;
  /** See core's `fingerprint`. */
  readonly print: string;
  readonly seq: number;
  /** Whether its place has a row already, which it takes. */
  readonly again: boolean;
}

/** Items are kept so many at a time, so that other changes get in between. */
const KEPT_AT_ONCE = 200;

/** Puts items of a reading into their rows. */
export class ItemRows {
  readonly #readingId: string;
  readonly #purse = newPurse();
  #waiting: (PlacedRow & Pick<PlacedItem, 'again'>)[] = [];

  constructor(readingId: string) {
    this.#readingId = readingId;
  }

  /** @returns what has to be waited for before the next */
  add({ item, print, seq, again }: PlacedItem): Promise<void> | undefined {
    // Its key is found by running it, beside what else runs: that takes nothing from a reading.
    const recognised = beside(this.#purse, () => recognise(item));
    this.#waiting.push({ row: storedItem(item, print, recognised), seq, again });
    return this.#waiting.length < KEPT_AT_ONCE ? undefined : this.flush();
  }

  async flush(): Promise<void> {
    // Of one place the last counts: an item may come again before it was stored.
    const rows = [...new Map(this.#waiting.map((r) => [r.seq, r])).values()];
    this.#waiting = [];
    const again = rows.filter((r) => r.again).map((r) => r.seq);
    await write(async (tx) => {
      await removeItemsAt(tx, this.#readingId, again);
      await insertItems(tx, this.#readingId, rows);
    });
    // What the driver holds of a change is freed only when the event loop comes round: else all items stand there once more.
    await comeRound();
  }
}

/** The longest key that lists show, and the longest text an item is found by, in characters. */
const LONGEST_KEY = 80;
const LONGEST_SAID = 20_000;

function storedItem(item: Item, print: string, recognised: Recognised): StoredItem {
  const key = cut(keyTexts(item, recognised).join(', '), LONGEST_SAID);
  const stem = stemText(item);
  const options = interactionsOf(item).flatMap((i) => optionSets(i).flatMap((set) => set.map(optionText)));
  const files = item.files.map((f) => f.path);
  return {
    nodeId: item.id,
    title: item.title,
    stem,
    kinds: kindOf(item),
    points: item.points,
    fingerprint: print,
    category: item.category,
    gradedByHand: recognised.shape.kind === 'manual',
    json: itemCodec.write(item, recognised),
    files: item.files.length > 0 ? itemFilesCodec.write(item.files) : '',
    keyText: opening(key, LONGEST_KEY),
    shortKey: shortKey(item, recognised),
    says: indexed([item.title, stem, item.id, item.category ?? '', ...options, ...files].join(' ')),
    keyed: indexed(key),
  };
}

/** A text as the index takes it: its words and its pairs of characters, each once. */
function indexed(text: string): string {
  const { words, pairs } = indexWords(cut(text, LONGEST_SAID));
  return [...new Set([...words, ...pairs])].join(' ');
}
