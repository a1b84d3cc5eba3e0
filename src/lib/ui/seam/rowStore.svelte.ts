import { SvelteMap } from 'svelte/reactivity';
import type { SeamRow } from '@alforja/core';
import { ROWS_A_PAGE, type SeamView } from '$lib/shared/seam';

/** Rows of both sides, fetched for those that are looked at. */
export class RowStore {
  readonly #transferId: string;
  readonly #rows = new SvelteMap<number, SeamRow>();
  readonly #coming = new Set<number>();
  #version = '';

  constructor(transferId: string) {
    this.#transferId = transferId;
  }

  /** Takes what the page brought; of another comparison everything known is forgotten. */
  begin({ version, first }: Pick<SeamView, 'version' | 'first'>): void {
    if (version !== this.#version) {
      this.#rows.clear();
      this.#coming.clear();
    }
    this.#version = version;
    first.forEach((row, at) => this.#rows.set(at, row));
  }

  /** The row at this place; null until it is here. */
  of(at: number): SeamRow | null {
    return this.#rows.get(at) ?? null;
  }

  /** Fetches rows where they are not here; done when they are, or cannot be. */
  async want(places: readonly number[]): Promise<void> {
    const missing = places.filter((at) => !this.#rows.has(at) && !this.#coming.has(at));
    for (let from = 0; from < missing.length; from += ROWS_A_PAGE) {
      const some = missing.slice(from, from + ROWS_A_PAGE);
      for (const at of some) this.#coming.add(at);
      await this.#fetch(some).finally(() => some.forEach((at) => this.#coming.delete(at)));
    }
  }

  /** What does not come is asked for again when it is looked at again. */
  async #fetch(places: readonly number[]): Promise<void> {
    const version = this.#version;
    const response = await fetch(`/api/transfers/${this.#transferId}/seam?at=${places.join(',')}`).catch(
      () => null,
    );
    if (!response?.ok) return;
    const rows = (await response.json()) as readonly (readonly [number, SeamRow])[];
    // Compared again meanwhile, these are rows of something else.
    if (version === this.#version) for (const [at, row] of rows) this.#rows.set(at, row);
  }
}
