import { readFileSync } from 'node:fs';
import { constants, PerformanceObserver, type PerformanceEntry } from 'node:perf_hooks';
import { setTimeout as wait } from 'node:timers/promises';

const EVERY_MS = 4;
/** A hundredth of a second, in which the system counts. */
const TICK_MS = 10;

/**
 * How long this process's main thread has waited for a core so far, in ms, and how long the cores themselves were
 * kept from this machine: 0 where the system does not say.
 * Source: Linux, Documentation/scheduler/sched-stats.rst, "/proc/<pid>/schedstat", and Documentation/filesystems/proc.rst,
 * "/proc/stat" (steal).
 */
function waited(): number {
  try {
    const [, forCore = '0'] = readFileSync(`/proc/self/task/${process.pid}/schedstat`, 'utf8').split(' ');
    const stolen = readFileSync('/proc/stat', 'utf8').split('\n', 1)[0]!.split(/\s+/u)[8] ?? '0';
    return Number(forCore) / 1e6 + Number(stolen) * TICK_MS;
  } catch {
    return 0;
  }
}

/** A stretch of time in which the main thread did one thing after the other, in ms. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
  /** How much of it was waited for a core. */
  readonly waited: number;
}
type Pause = Pick<PerformanceEntry, 'startTime' | 'duration'>;

/** How long it was held at most: neither what it waited counts, nor pauses in which the heap was looked through. */
export function longestHeld(stretches: readonly Stretch[], pauses: readonly Pause[]): number {
  const paused = ({ from, to }: Stretch): number =>
    pauses
      .map((p) => Math.min(to, p.startTime + p.duration) - Math.max(from, p.startTime))
      .reduce((sum, both) => sum + Math.max(0, both), 0);
  return Math.max(...stretches.map((s) => s.to - s.from - s.waited - paused(s)));
}

const isMajor = (entry: PerformanceEntry): boolean =>
  (entry as { readonly detail?: { readonly kind?: number } }).detail?.kind ===
  constants.NODE_PERFORMANCE_GC_MAJOR;

/** What is told of a pause comes after it, in ms. */
const TOLD_AFTER_MS = 50;

/**
 * Watches how long the main thread is held at a time. What it waits for a core does not count: that is other
 * processes' doing, and other machines'. Nor does looking through the whole heap: it is that of all tests.
 * @returns ends the watch, and tells the longest time, in ms
 */
export function watchMainThread(): () => Promise<number> {
  const stretches: Stretch[] = [];
  const pauses: PerformanceEntry[] = [];
  const observer = new PerformanceObserver((list) => void pauses.push(...list.getEntries().filter(isMajor)));
  observer.observe({ entryTypes: ['gc'] });
  let last = { at: performance.now(), waited: waited() };
  const look = (): void => {
    const now = { at: performance.now(), waited: waited() };
    stretches.push({ from: last.at, to: now.at, waited: now.waited - last.waited });
    last = now;
  };
  const timer = setInterval(look, EVERY_MS);
  return async () => {
    clearInterval(timer);
    look();
    await wait(TOLD_AFTER_MS);
    observer.disconnect();
    return longestHeld(stretches, pauses);
  };
}
