import type { Finding } from '../model/finding.ts';
import type { Item } from '../model/holding.ts';

const NOTHING: readonly Finding[] = [];

/**
 * Makes the items of a holding sayable in a format, each when it is asked for: what became of it is not kept, since all
 * of them are more than memory holds; what it loses is.
 */
export class ItemFits<Fitted> {
  readonly #items: readonly Item[];
  readonly #fit: (item: Item, findings: Finding[]) => Fitted;
  readonly #byId: ReadonlyMap<string, Item>;
  readonly #losses = new Map<string, readonly Finding[]>();

  /** @param fit gives the item as the format can say it, and adds what it loses to the findings */
  constructor(items: readonly Item[], fit: (item: Item, findings: Finding[]) => Fitted) {
    this.#items = items;
    this.#fit = fit;
    this.#byId = new Map(items.map((item) => [item.id, item]));
  }

  /** An item as it came. */
  given(id: string): Item | undefined {
    return this.#byId.get(id);
  }

  /** An item as the format can say it. */
  fitted(item: Item): Fitted {
    const findings: Finding[] = [];
    const fitted = this.#fit(item, findings);
    this.#losses.set(item.id, findings.length > 0 ? findings : NOTHING);
    return fitted;
  }

  /** What one item loses. */
  losses(item: Item): readonly Finding[] {
    if (!this.#losses.has(item.id)) this.fitted(item);
    return this.#losses.get(item.id)!;
  }

  /** What all items lose, in their order. */
  allLosses(): Finding[] {
    return this.#items.flatMap((item) => this.losses(item));
  }
}
