import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';

/** Ends a process and waits until it is gone: till then it may still write. */
export async function stopped(child: ChildProcess, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = once(child, 'exit');
  child.kill(signal);
  await gone;
}
