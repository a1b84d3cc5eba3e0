import { Lately } from '../model/lately.ts';
import { explore, spend, stepsLeft } from './budget.ts';
import type { Answers, Recognisable } from './run.ts';
import { skeletonText } from './skeletonText.ts';
import { Stripping } from './stripping.ts';

/**
 * What items of one make have in common. Most items of a bank are asked and scored alike: they differ in what is read,
 * in the names of their choices, and in which of a few patterns their key follows. Such an item has a skeleton: its
 * program and what can be picked, under plain names in the order of the document. What is found out by running a
 * skeleton holds for every item that has it, once the plain names are exchanged for its own.
 *
 * Only items have one whose scoring cannot tell names apart but by whether they are equal: choices that are picked
 * or put in order, and no operator that looks into a text.
 */

export interface Stripped {
  /** The same object for all items of one make. */
  readonly skeleton: Recognisable;
  /** The item's own names by the plain ones, of choices and of responses. */
  readonly own: ReadonlyMap<string, string>;
}

/** An item's own name for what a skeleton calls so. */
export const ownName = ({ own }: Stripped, plain: string): string => own.get(plain) ?? plain;

/** Answers to a skeleton as answers to its item. */
export const ownAnswers = (stripped: Stripped, answers: Answers): Answers =>
  Object.fromEntries(
    Object.entries(answers).map(([id, values]) => [
      ownName(stripped, id),
      values.map((v) => (typeof v === 'string' ? ownName(stripped, v) : v)),
    ]),
  );

/** What is found out of skeletons: once of each. */
export class OfSkeletons<T> {
  readonly #found = new WeakMap<Recognisable, { readonly value: T; readonly steps: number }>();

  /**
   * What is found out of a skeleton, for the steps it took when it was found first.
   * @returns null where there were not so many left: then it is to be found of the item itself
   */
  of(skeleton: Recognisable, find: () => T): T | null {
    return explore<T | null>(
      () => {
        const known = this.#found.get(skeleton);
        if (known) {
          spend(known.steps);
          return known.value;
        }
        const before = stepsLeft();
        const value = find();
        this.#found.set(skeleton, { value, steps: before - stepsLeft() });
        return value;
      },
      () => null,
    );
  }
}

/** Makes that are at hand: those seen last. */
const makes = new Lately<Recognisable>(1024);

/** An item's skeleton, with what its names stand for; null where it has none. */
export function strippedOf(item: Recognisable): Stripped | null {
  const stripping = new Stripping(item);
  const made = stripping.skeleton();
  if (!made) return null;
  const key = skeletonText(made);
  let skeleton = makes.get(key);
  if (!skeleton) makes.set(key, (skeleton = made));
  return { skeleton, own: stripping.own };
}
