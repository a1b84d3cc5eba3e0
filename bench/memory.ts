import { readFileSync } from 'node:fs';
import { readHolding } from '@alforja/core';
import { itemHolder } from '@alforja/core/itemHolder';
import { nodePlatform } from '@alforja/core/node';
import { LIMITS } from './raw.ts';

/** Items that stay as they are, as in the application. */
const PLAIN_ITEMS = 1000;

/**
 * How far a process grows that reads a package and does nothing else, in bytes: node memory.js PATH [held]. Held, its
 * items lie packed, as they do in the application, where each goes on to be stored.
 */
const bytes = new Uint8Array(readFileSync(process.argv[2]!));
globalThis.gc?.();
const before = process.memoryUsage().rss;
let peak = before;
const look = (): void => void (peak = Math.max(peak, process.memoryUsage().rss));
const watch = setInterval(look, 10);
const holding = await readHolding('bench.zip', bytes, nodePlatform, {
  ...LIMITS,
  onProgress: look,
  ...(process.argv[3] === 'held' ? { holder: itemHolder(PLAIN_ITEMS) } : {}),
});
look();
clearInterval(watch);
process.stdout.write(JSON.stringify({ items: holding.items.length, peakBytes: peak - before }));
