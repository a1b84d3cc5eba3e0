import { MOST_NAMES } from '$lib/shared/room';

/**
 * What items are called, fetched for those that are looked at: the names of fifty thousand are several megabytes.
 */
export class Names {
  readonly #packageId: string;
  readonly #known = new Map<number, string>();
  readonly #coming = new Map<number, Promise<void>>();
  /** Grows with what is known, so that rows are drawn anew. */
  #version = $state(0);

  constructor(packageId: string) {
    this.#packageId = packageId;
  }

  /** What the item at this place is called; null until it is known. */
  of(at: number): string | null {
    void this.#version;
    return this.#known.get(at) ?? null;
  }

  /** Fetches the names of these items where they are not known; done when all have come, or cannot. */
  async want(places: readonly number[]): Promise<void> {
    const missing = places.filter((at) => !this.#known.has(at) && !this.#coming.has(at));
    for (let from = 0; from < missing.length; from += MOST_NAMES) {
      const some = missing.slice(from, from + MOST_NAMES);
      const fetched = this.#fetch(some).finally(() => some.forEach((at) => this.#coming.delete(at)));
      for (const at of some) this.#coming.set(at, fetched);
    }
    await Promise.all(new Set(places.flatMap((at) => this.#coming.get(at) ?? [])));
  }

  /** What does not come is asked for again when it is looked at again. */
  async #fetch(places: readonly number[]): Promise<void> {
    const response = await fetch(`/api/packages/${this.#packageId}/names?at=${places.join(',')}`).catch(
      () => null,
    );
    if (!response?.ok) return;
    const names = (await response.json()) as readonly (readonly [number, string])[];
    for (const [at, name] of names) this.#known.set(at, name);
    this.#version += 1;
  }
}
