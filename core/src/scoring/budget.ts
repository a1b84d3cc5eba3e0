/**
 * What running programs may cost. A program comes from a package, and a few lines of one can ask for more than any
 * machine has: steps are counted, and what has used up its own is broken off and said so.
 */

/** Signals that the steps are used up; caught by the `within` that gave them. */
class Overspent extends Error {}
const OVERSPENT = new Overspent('steps');

let left = Number.POSITIVE_INFINITY;
let broken = 0;

/** Uses up steps: one is an expression run, or some eight values or sixty-four characters looked at. */
export function spend(steps: number): void {
  left -= steps;
  if (left < 0) throw OVERSPENT;
}

/**
 * Does something within so many steps, or within what is left of those around it. Nothing in it may wait: the
 * count is one for the whole thread.
 * @param over what it comes to where the steps did not do
 */
export function within<T>(steps: number, work: () => T, over: () => T): T {
  const before = left;
  const given = Math.min(steps, before);
  left = given;
  try {
    return work();
  } catch (error) {
    if (error !== OVERSPENT) throw error;
    broken += 1;
    return over();
  } finally {
    left = before - (given - left);
  }
}

/**
 * The same for what is done very often: something to work on is handed over, so that no function is made each time.
 * @returns whether the steps did
 */
export function withinSteps<T>(steps: number, work: (on: T) => void, on: T): boolean {
  const before = left;
  const given = Math.min(steps, before);
  left = given;
  try {
    work(on);
    return true;
  } catch (error) {
    if (error !== OVERSPENT) throw error;
    broken += 1;
    return false;
  } finally {
    left = before - (given - left);
  }
}

/** How many steps there still are. */
export const stepsLeft = (): number => left;

/** How often something was broken off so far: more than before means that what lies between is not whole. */
export const brokenOff = (): number => broken;

/** One run of a program on one answer. */
export const RUN_STEPS = 50_000;
/** Everything that is tried to find out one thing of an item: its best answer, its shape, what its checks ask. */
export const ITEM_STEPS = 1_000_000;
/** What each thing that is asked of an item may take in any case, however many there are. */
const LEAST_STEPS = 10_000;
/** What all that is asked in one piece of work may take together beyond that. */
const PURSE = 50_000_000;

let purse = PURSE;

/** A piece of work begins: a source is read, two are compared. */
export const refill = (): void => void (purse = PURSE);

/** What is left of the steps of one piece of work. */
export interface Purse {
  left: number;
}
export const newPurse = (): Purse => ({ left: PURSE });

/** Does something beside a piece of work, out of a purse of its own: the work is left with what it had. */
export function beside<T>(own: Purse, work: () => T): T {
  const before = purse;
  purse = own.left;
  try {
    return work();
  } finally {
    own.left = purse;
    purse = before;
  }
}

/**
 * Finds out one thing of an item by running it: within `ITEM_STEPS`, and less once many items of the same piece of
 * work have taken much.
 * @param over what it comes to where the steps did not do
 */
export function explore<T>(work: () => T, over: () => T): T {
  const given = LEAST_STEPS + Math.min(ITEM_STEPS, purse);
  return within(
    given,
    () => {
      const before = left;
      try {
        return work();
      } finally {
        purse = Math.max(0, purse - Math.max(0, before - left - LEAST_STEPS));
      }
    },
    over,
  );
}
