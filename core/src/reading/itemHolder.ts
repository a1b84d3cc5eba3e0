import type { AskedOf } from '../checks/check.ts';
import type { Item } from '../model/holding.ts';

/** Keeps items in less memory than trees take. */
export interface ItemHolder {
  /** The same item, value by value, in memory of its own: one that was just read. */
  readonly hold: (item: Item, asked: AskedOf) => Item;
  /** The same for one that has become another since, or has come otherwise. */
  readonly holdLate: (item: Item) => Item;
  /** What is to be waited for before the next is held. */
  readonly room: () => Promise<void> | undefined;
  /** An item that was held, as it is once its points are found. */
  readonly settled: (held: Item, points: Pick<Item, 'points' | 'pointsExact' | 'scale'>) => Item;
}
