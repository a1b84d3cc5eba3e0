import type { ItemPlaces } from './itemPlaces.ts';

/** A set of items of one list, of which most may be in it: kept by their places, which are told faster than their ids. */
export class ItemSet {
  readonly #places: ItemPlaces;
  readonly #marks: Uint8Array;
  /** Ids that no item has. */
  readonly #others = new Set<string>();

  constructor(places: ItemPlaces) {
    this.#places = places;
    this.#marks = new Uint8Array(places.count);
  }

  has(id: string): boolean {
    const at = this.#places.at(id);
    return at === undefined ? this.#others.has(id) : this.#marks[at] === 1;
  }

  /** The same of an item by its place. */
  hasAt(at: number): boolean {
    return this.#marks[at] === 1;
  }

  /** @returns false where it was in it before */
  add(id: string): boolean {
    const at = this.#places.at(id);
    return at === undefined ? this.#addOther(id) : this.#mark(at);
  }

  /** Adds all that a list names. @param added told of each that was not in it before */
  addAll(list: readonly string[], added?: (id: string) => unknown): void {
    const places = this.#places.of(list);
    for (let n = 0; n < places.length; n++) {
      const at = places[n]!;
      if (at < 0 ? this.#addOther(list[n]!) : this.#mark(at)) added?.(list[n]!);
    }
  }

  /** Those of the list that are in it, in order. */
  among<T>(items: readonly T[]): T[] {
    return items.filter((_, at) => this.#marks[at] === 1);
  }

  #mark(at: number): boolean {
    if (this.#marks[at] === 1) return false;
    this.#marks[at] = 1;
    return true;
  }

  #addOther(id: string): boolean {
    if (this.#others.has(id)) return false;
    this.#others.add(id);
    return true;
  }
}
