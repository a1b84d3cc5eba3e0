/** So many are kept for certain. */
const KEPT = 4096;

/**
 * What was found out of objects, the latest of them: it holds for as long as they do not change, and is forgotten when
 * very many others came after, since what is found out of a hundred thousand is more than memory holds.
 */
export class Recent<K extends object, V> {
  #young = new WeakMap<K, V>();
  #old = new WeakMap<K, V>();
  #count = 0;

  get(key: K): V | undefined {
    return this.#young.get(key) ?? this.#old.get(key);
  }

  set(key: K, value: V): void {
    if (this.#count === KEPT) {
      [this.#old, this.#young] = [this.#young, new WeakMap()];
      this.#count = 0;
    }
    this.#young.set(key, value);
    this.#count += 1;
  }
}
