import { getHeapStatistics, setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { resourceLimits } from 'node:worker_threads';
import { Refusal } from '@alforja/core';
import { tooMuch } from './beyond.ts';

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

/** A heap is full from this part of what it may take: some of the rest lies between what is in use. */
const FULL = 0.8;

/** What this thread may take, in megabytes; no bound where it is none. */
const MEGABYTES = resourceLimits.maxOldGenerationSizeMb ?? Infinity;

const isFull = (): boolean => getHeapStatistics().used_heap_size > MEGABYTES * 2 ** 20 * FULL;

/**
 * Looks whether there is memory left, after all has been given back that nobody needs.
 * @param step what is being done
 * @throws Refusal where there is hardly any
 */
export function needMemory(step: string): void {
  if (!isFull()) return;
  collect();
  if (isFull()) throw new Refusal(tooMuch(MEGABYTES, step));
}
