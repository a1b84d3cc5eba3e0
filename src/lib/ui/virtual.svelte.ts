import {
  elementScroll,
  observeElementOffset,
  observeElementRect,
  Virtualizer,
  type VirtualItem,
} from '@tanstack/virtual-core';
import { untrack } from 'svelte';

/** A virtual list over a scrolling element: only the rows in sight are in the page. */
export class VirtualRows {
  rows = $state.raw<VirtualItem[]>([]);
  total = $state(0);
  #virtualizer: Virtualizer<HTMLElement, HTMLElement> | null = null;
  #options: { count: number; estimate: (index: number) => number; key: (index: number) => string | number };

  constructor(options: {
    count: number;
    estimate: (index: number) => number;
    key: (index: number) => string | number;
  }) {
    this.#options = options;
  }

  #settings(element: HTMLElement) {
    const { count, estimate, key } = this.#options;
    return {
      count,
      getScrollElement: () => element,
      estimateSize: estimate,
      getItemKey: key,
      overscan: 8,
      observeElementRect,
      observeElementOffset,
      scrollToFn: elementScroll,
      onChange: () => this.#refresh(),
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

  #refresh(): void {
    this.rows = this.#virtualizer?.getVirtualItems() ?? [];
    this.total = this.#virtualizer?.getTotalSize() ?? 0;
  }
}
