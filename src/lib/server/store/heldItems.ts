import { HeldItem, within, type Item, type PackedRecognised, type Recognised } from '@alforja/core';
import { itemCodec, itemFilesCodec } from './documents/packages.ts';
import { alsoKnown, packedItemsOf } from './items.ts';
import { unpack } from './packed.ts';

/** Documents side by side in one piece of memory: thousands of small ones cost far more. */
class Documents implements PackedRecognised {
  readonly #bytes: Uint8Array;
  readonly #ends: Uint32Array;

  constructor(documents: readonly Uint8Array[]) {
    this.#bytes = Buffer.concat(documents);
    this.#ends = new Uint32Array(documents.length);
    let end = 0;
    documents.forEach(({ length }, at) => (this.#ends[at] = end += length));
  }

  #document(at: number): string {
    const from = at === 0 ? 0 : this.#ends[at - 1];
    return unpack(this.#bytes.subarray(from, this.#ends[at]));
  }

  item(at: number): Item {
    return itemCodec.read(this.#document(at));
  }

  recognised(at: number): Recognised | null {
    return itemCodec.recognised(this.#document(at));
  }
}

const NO_FILES: Item['files'] = [];
const KEPT_WITHIN = within(['id', 'title', 'points', 'category', 'files']);

/** Every item of a reading, in order. */
export async function heldItemsOf(readingId: string): Promise<Item[]> {
  const out: Item[] = [];
  for await (const batch of packedItemsOf(readingId)) {
    const packed = new Documents(batch.map((row) => row.packed));
    batch.forEach((row, at) => {
      const { id, title, points, category } = row;
      const files = row.files === '' ? NO_FILES : itemFilesCodec.read(row.files);
      const item = HeldItem.of({ id, title, points, category, files }, KEPT_WITHIN, { packed, at });
      out.push(alsoKnown(item, row));
    });
  }
  return out;
}
