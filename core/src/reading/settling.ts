import type { AskedOf, Files } from '../checks/check.ts';
import { checkItem } from '../checks/index.ts';
import { SeenItems } from '../checks/seen.ts';
import type { Finding } from '../model/finding.ts';
import type { Item } from '../model/holding.ts';
import type { ItemHolder } from './itemHolder.ts';
import { priced, pricedUnrun, unreadable, worthOf, type Worth } from './settle.ts';

/** What was found of an item by itself. */
interface Alone {
  /** Null where running or checking it failed. */
  readonly worth: Worth | null;
  readonly found: readonly Finding[];
  readonly checked: readonly Finding[];
  /** Whether its checks asked which files there are. */
  readonly asksFiles: boolean;
}

/** An item as the whole package has it. */
interface Whole extends Pick<Alone, 'found' | 'checked'> {
  readonly item: Item;
  /** Whether it is otherwise than it was taken. */
  readonly altered: boolean;
}

const NONE: readonly Finding[] = [];
/** Findings in memory of their own: what one says may be a place in a document, which would be kept with it. */
const own = (found: readonly Finding[]): readonly Finding[] =>
  found.length === 0 ? NONE : structuredClone(found);

/**
 * Gives items their points, one by one, and checks them: as far as they tell by themselves while their document is at
 * hand, and the rest, which the whole package tells, in the end.
 */
export class Settling {
  readonly seen = new SeenItems();
  readonly #holder: ItemHolder | undefined;
  readonly #alone = new Map<Item, Alone>();

  /** @param holder keeps what was taken */
  constructor(holder?: ItemHolder) {
    this.#holder = holder;
  }

  /** What an item asks: found while it was at hand. */
  get asked(): AskedOf {
    return this.seen.asked;
  }

  /** Takes an item that was just read. @returns what stands for it from now on */
  take(item: Item): Item {
    let asksFiles = false;
    const has = (): boolean => ((asksFiles = true), false);
    const { settled, worth, found, checked } = this.#look(item, 1, { has });
    const kept = this.#holder ? this.#holder.hold(settled, this.asked) : settled;
    this.seen.same(settled, kept);
    this.#alone.set(kept, { worth, found: own(found), checked: own(checked), asksFiles });
    return kept;
  }

  /**
   * Says of an item what the whole package makes of it.
   * @param item one that was taken, or has come otherwise
   * @param weight what a quiz gives for it
   * @param files the paths of the package's files
   */
  whole(item: Item, weight: number, files: Files): Whole {
    const alone = this.#alone.get(item);
    if (!alone) {
      const { settled, found, checked } = this.#look(item, weight, files);
      const kept = this.#holder ? this.#holder.holdLate(settled) : settled;
      this.seen.same(settled, kept);
      return { item: kept, found, checked, altered: true };
    }
    const { worth, found } = alone;
    const altered = weight !== 1;
    const before = item.points;
    const settled = altered ? this.#priced(item, worth, weight) : item;
    // A weight changes nothing that checks ask of one item, but whether it is worth anything.
    const again = worth !== null && (alone.asksFiles || (altered && !(before > 0 && settled.points > 0)));
    return { item: settled, found, checked: again ? checkItem(settled, files) : alone.checked, altered };
  }

  #priced(item: Item, worth: Worth | null, weight: number): Item {
    const points = worth ? priced(worth, weight) : pricedUnrun(item, weight);
    const settled = this.#holder ? this.#holder.settled(item, points) : { ...item, ...points };
    this.seen.same(item, settled);
    return settled;
  }

  #look(item: Item, weight: number, files: Files): Omit<Alone, 'asksFiles'> & { readonly settled: Item } {
    const found: Finding[] = [];
    const checked: Finding[] = [];
    try {
      const worth = worthOf(item, (one) => found.push(one));
      const settled = { ...item, ...priced(worth, weight) };
      checked.push(...checkItem(settled, files));
      this.seen.see(settled);
      return { settled, worth, found, checked };
    } catch (error) {
      // What nobody has thought of is no reason to lose the others.
      found.push(unreadable(item, error));
      return { settled: { ...item, ...pricedUnrun(item, weight) }, worth: null, found, checked };
    }
  }
}
