import { getHeapStatistics, setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

/**
 * Each thread has a heap of its own, and the engine takes all the room it is given before it looks for what nobody needs
 * any more: several threads that do so are more than a small machine has.
 */

/** How far a heap may grow over what was in use before it is looked through again, in per cent; by itself, up to 300. */
const GROWING_PERCENT = 35;
setFlagsFromString(`--heap-growing-percent=${GROWING_PERCENT}`);
setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;

/** Heaps up to this, in bytes, are left to the engine. */
const LARGE = 128 * 2 ** 20;

/** Gives back what a large order left: the thread may wait for long until the engine does so. */
export function giveBack(): void {
  if (getHeapStatistics().total_heap_size > LARGE) collect();
}
