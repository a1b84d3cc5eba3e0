/** What was asked for last of something that takes long to find out and never changes: so many of it. */
export class Lately<T, K = string> {
  readonly #kept: number;
  /** The one asked for longest ago first. */
  readonly #known = new Map<K, T>();

  constructor(kept: number) {
    this.#kept = kept;
  }

  get(key: K): T | undefined {
    const value = this.#known.get(key);
    if (value !== undefined) this.set(key, value);
    return value;
  }

  set(key: K, value: T): void {
    this.#known.delete(key);
    this.#known.set(key, value);
    if (this.#known.size > this.#kept) this.#known.delete(this.#known.keys().next().value!);
  }
}
