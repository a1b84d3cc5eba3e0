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

/** How often something was broken off so far: more than before means that what lies between is not whole. */
export const brokenOff = (): number => broken;

/** One run of a program on one answer. */
export const RUN_STEPS = 100_000;
/** Everything that is tried to find out one thing of an item: its best answer, its shape, what its checks ask. */
export const ITEM_STEPS = 3_000_000;
/** What all items of one source may take together beyond what each may take in any case. */
export const SOURCE_STEPS = 300_000_000;
export const LEAST_ITEM_STEPS = 60_000;
