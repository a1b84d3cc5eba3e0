import { readFileSync } from 'node:fs';

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

/**
 * Watches how long the main thread is held at a time. What it waits for a core does not count: that is other
 * processes' doing, and other machines'.
 * @returns ends the watch, and tells the longest time, in ms
 */
export function watchMainThread(): () => number {
  let longest = 0;
  let last = { at: performance.now(), waited: waited() };
  const look = (): void => {
    const now = { at: performance.now(), waited: waited() };
    longest = Math.max(longest, now.at - last.at - (now.waited - last.waited));
    last = now;
  };
  const timer = setInterval(look, EVERY_MS);
  return () => {
    clearInterval(timer);
    look();
    return longest;
  };
}
