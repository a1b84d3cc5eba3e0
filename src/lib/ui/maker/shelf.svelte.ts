import { NO_FILTER, type ItemFilter } from '@alforja/core';
import { SvelteMap, SvelteSet } from 'svelte/reactivity';
import type { BankListing, ShelfRow, ShelfView } from '$lib/shared/making';
import { ask } from '../ask';

export const bankKey = ({ place, bank }: { place: string; bank: string | null }): string =>
  JSON.stringify([place, bank]);

/** Rows that are fetched at once. */
const PAGE = 100;

/** The bank that items are taken from, narrowed by a filter; its rows come as they are needed. */
export class BankShelf {
  bank = $state.raw<BankListing | null>(null);
  filter = $state.raw<ItemFilter>(NO_FILTER);
  /** Totals and what it can be narrowed to; null until they are there. */
  head = $state.raw<Omit<ShelfView, 'rows'> | null>(null);
  trouble = $state('');
  readonly rows = new SvelteMap<number, ShelfRow>();
  readonly ticked = new SvelteSet<number>();
  at = $state(-1);
  /** What is being made: that it uses an item itself does not count. */
  readonly #but: string;
  #turn = 0;
  #asked = new Set<number>();

  constructor(but: string) {
    this.#but = but;
  }

  open(bank: BankListing | null): void {
    this.bank = bank;
    this.filter = NO_FILTER;
    this.#start();
  }
  narrow(to: Partial<ItemFilter>): void {
    this.filter = { ...this.filter, ...to };
    this.#start();
  }
  get narrowed(): boolean {
    return JSON.stringify(this.filter) !== JSON.stringify(NO_FILTER);
  }

  #start(): void {
    this.#turn += 1;
    this.#asked.clear();
    this.rows.clear();
    this.ticked.clear();
    this.at = -1;
    void this.#fetch(0);
  }

  #sight: readonly [number, number] = [0, 0];
  #following = false;

  /** Has rows fetched that are in sight: a page at a time, for where the list stands by then. */
  want(from: number, to: number): void {
    this.#sight = [from, to];
    if (!this.#following) void this.#follow();
  }

  async #follow(): Promise<void> {
    this.#following = true;
    for (let page = this.#missing(); page !== null; page = this.#missing()) await this.#fetch(page);
    this.#following = false;
  }

  /** The first page in sight that has not been asked for. */
  #missing(): number | null {
    const [from, to] = this.#sight;
    for (let page = Math.floor(from / PAGE); page <= Math.floor(to / PAGE); page++)
      if (!this.#asked.has(page)) return page;
    return null;
  }

  async #fetch(page: number): Promise<void> {
    if (!this.bank) return;
    const turn = this.#turn;
    this.#asked.add(page);
    const { place, bank } = this.bank;
    try {
      const { rows, ...head } = await ask<ShelfView>('/api/shelf', {
        place,
        bank,
        filter: this.filter,
        from: page * PAGE,
        count: PAGE,
        but: this.#but,
      });
      // What was asked for before the filter changed is late.
      if (turn !== this.#turn) return;
      this.trouble = '';
      rows.forEach((row, n) => this.rows.set(page * PAGE + n, row));
      this.head = head;
    } catch (problem) {
      if (turn === this.#turn) this.trouble = (problem as Error).message;
    }
  }

  /** The rows that are ticked, else the one that is active. */
  get chosen(): ShelfRow[] {
    const places = this.ticked.size > 0 ? [...this.ticked].sort((a, b) => a - b) : [this.at];
    return places.flatMap((n) => this.rows.get(n) ?? []);
  }
  tick(n: number): void {
    if (!this.ticked.delete(n)) this.ticked.add(n);
  }
}

/** What is dragged: rows of the bank, or an item of the quiz by its key. */
export const dragged = $state<{ rows: readonly ShelfRow[]; key: string | null }>({ rows: [], key: null });
export function dropped(): void {
  dragged.rows = [];
  dragged.key = null;
}
