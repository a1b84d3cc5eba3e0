import type { Item } from './holding.ts';

/**
 * Items of a package of any size: they lie packed in memory, in a tenth of what they take as trees, and each is unpacked
 * when it is looked into, and let go when others came after it.
 */

/** Where items lie packed. */
export interface Packed {
  readonly item: (at: number) => Item;
}

const FIELDS: Readonly<Record<keyof Item, true>> = {
  id: true,
  title: true,
  standard: true,
  body: true,
  responses: true,
  outcomes: true,
  scoreOutcome: true,
  scoring: true,
  points: true,
  scale: true,
  pointsSources: true,
  pointsExact: true,
  feedback: true,
  adaptive: true,
  templates: true,
  templateRules: true,
  stimuli: true,
  kept: true,
  category: true,
  metadata: true,
  language: true,
  files: true,
  origin: true,
};

/**
 * Fields that are looked up where an item lies. Copying an item copies them, so that the copy is an item like any other.
 * @param atHand those that are not
 */
export const within = (atHand: readonly (keyof Item)[]): PropertyDescriptorMap =>
  Object.fromEntries(
    (Object.keys(FIELDS) as (keyof Item)[])
      .filter((name) => !atHand.includes(name))
      .map((name) => [
        name,
        {
          enumerable: true,
          get(this: HeldItem) {
            return HeldItem.whole(this)[name];
          },
        },
      ]),
  );

export class HeldItem {
  readonly #packed: Packed;
  readonly #at: number;
  #whole: Item | null = null;

  private constructor(packed: Packed, at: number) {
    this.#packed = packed;
    this.#at = at;
  }

  static of(
    atHand: Partial<Item>,
    looked: PropertyDescriptorMap,
    { packed, at }: { readonly packed: Packed; readonly at: number },
  ): Item {
    const held = Object.assign(new HeldItem(packed, at), atHand);
    // What is within is defined field by field, which the compiler does not see.
    return Object.defineProperties(held, looked) as unknown as Item;
  }

  static isOne(item: object): item is HeldItem {
    return #packed in item;
  }

  /** Says what is known since of an item that nobody else has been given yet. */
  static put(held: HeldItem, known: Partial<Item>): Item {
    return Object.assign(held, known) as unknown as Item;
  }

  static whole(held: HeldItem): Item {
    if (held.#whole === null) {
      held.#whole = held.#packed.item(held.#at);
      keep(held);
    }
    return held.#whole;
  }

  /** Where it lies. */
  static place(held: HeldItem): { readonly packed: Packed; readonly at: number } {
    return { packed: held.#packed, at: held.#at };
  }

  static letGo(held: HeldItem): void {
    held.#whole = null;
  }
}

/** So many are unpacked at a time: whoever goes through items looks at each of them several times, and then at others. */
const UNPACKED = 1024;
const unpacked: HeldItem[] = [];
let next = 0;

function keep(held: HeldItem): void {
  const before = unpacked[next];
  if (before) HeldItem.letGo(before);
  unpacked[next] = held;
  next = (next + 1) % UNPACKED;
}
