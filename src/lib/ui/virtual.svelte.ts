import {
  defaultRangeExtractor,
  elementScroll,
  observeElementOffset,
  observeElementRect,
  Virtualizer,
  type Range,
  type VirtualItem,
} from '@tanstack/virtual-core';
import { untrack } from 'svelte';

interface VirtualOptions {
  readonly count: number;
  /** Both are asked for every row, over and over: they read no state. */
  readonly estimate: (index: number) => number;
  readonly key: (index: number) => string | number;
  /** A row that stays in the page wherever the list is scrolled to, so that what is active can be told. */
  readonly keep?: () => number;
}

/** A virtual list over a scrolling element: only the rows in sight are in the page. */
export class VirtualRows {
  rows = $state.raw<VirtualItem[]>([]);
  total = $state(0);
  #virtualizer: Virtualizer<HTMLElement, HTMLElement> | null = null;
  #options: VirtualOptions;

  constructor(options: VirtualOptions) {
    this.#options = options;
  }

  #settings(element: HTMLElement) {
    const { count, estimate, key, keep } = this.#options;
    const range = (seen: Range): number[] => {
      const rows = defaultRangeExtractor(seen);
      const kept = keep?.() ?? -1;
      if (kept < 0 || kept >= count || rows.includes(kept)) return rows;
      return kept < rows[0]! ? [kept, ...rows] : [...rows, kept];
    };
    return {
      count,
      getScrollElement: () => element,
      estimateSize: estimate,
      getItemKey: key,
      overscan: 8,
      rangeExtractor: range,
      observeElementRect,
      observeElementOffset,
      scrollToFn: elementScroll,
      onChange: () => this.#refreshSoon(),
    };
  }

  #element: HTMLElement | null = null;

  /** Svelte action for the scrolling element. */
  attach = (element: HTMLElement): { destroy: () => void } => {
    this.#element = element;
    this.#virtualizer = new Virtualizer(this.#settings(element));
    const unmount = this.#virtualizer._didMount();
    this.#virtualizer._willUpdate();
    this.#refresh();
    return { destroy: unmount };
  };

  /** Svelte action for a row, so that its real height counts. */
  measure = (element: HTMLElement): void => {
    this.#virtualizer?.measureElement(element);
  };

  set(count: number): void {
    untrack(() => {
      this.#options = { ...this.#options, count };
      if (!this.#virtualizer || !this.#element) return;
      this.#virtualizer.setOptions(this.#settings(this.#element));
      this.#virtualizer._willUpdate();
      this.#refresh();
    });
  }

  scrollTo(index: number): void {
    this.#virtualizer?.scrollToIndex(index, { align: 'auto' });
  }

  #due = false;

  /** Once for all rows that are measured together, and before they are painted: each time goes over all rows. */
  #refreshSoon(): void {
    if (this.#due) return;
    this.#due = true;
    queueMicrotask(() => {
      this.#due = false;
      this.#refresh();
    });
  }

  #refresh(): void {
    this.rows = this.#virtualizer?.getVirtualItems() ?? [];
    this.total = this.#virtualizer?.getTotalSize() ?? 0;
  }
}
