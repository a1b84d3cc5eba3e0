/**
 * Where the items of a list stand in it, by their ids. Lists of very many are asked for again and again: what was found
 * of one, and of the lists that name its items, is kept as long as they are.
 */
export class ItemPlaces {
  /** How many items there are. */
  readonly count: number;
  readonly #byId: ReadonlyMap<string, number>;
  readonly #lists = new WeakMap<readonly string[], Int32Array>();

  /** @param ids of all items, in order; each stands there once */
  constructor(ids: readonly string[]) {
    this.count = ids.length;
    this.#byId = new Map(ids.map((id, at) => [id, at]));
  }

  /** The place of an item, from 0; undefined where there is none of that id. */
  at(id: string): number | undefined {
    return this.#byId.get(id);
  }

  /** The places of the items that a list names, in its order; -1 for those there are not. */
  of(list: readonly string[]): Int32Array {
    let places = this.#lists.get(list);
    if (!places) this.#lists.set(list, (places = Int32Array.from(list, (id) => this.#byId.get(id) ?? -1)));
    return places;
  }

  /** The same without those there are not. */
  found(list: readonly string[]): Int32Array {
    const places = this.of(list);
    return places.includes(-1) ? places.filter((at) => at >= 0) : places;
  }
}

const known = new WeakMap<readonly object[], ItemPlaces>();

/** Where items stand in their list. */
export function itemPlaces(items: readonly { readonly id: string }[]): ItemPlaces {
  let places = known.get(items);
  if (!places) known.set(items, (places = new ItemPlaces(items.map((i) => i.id))));
  return places;
}

/** Says where items stand in their list, so that it need not be found once more. */
export const knowItemPlaces = (items: readonly object[], places: ItemPlaces): unknown =>
  known.set(items, places);
