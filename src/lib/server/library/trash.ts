import type { Throwable } from '../../shared/trash.ts';
import { write } from '../store/database.ts';
import { underWay } from '../store/jobs.ts';
import { setThrown } from '../store/trash.ts';
import type { JobKind } from '../../shared/types.ts';

/** Work on a thing during which it stays. */
const BUSY: Readonly<Record<Throwable, readonly JobKind[]>> = {
  package: ['read'],
  transfer: ['send', 'undo', 'plan'],
  batch: ['batch'],
  look: [],
  made: [],
};

export type ThrowOutcome = 'done' | 'busy' | 'unknown';

/** Throws something away; it can be brought back for thirty days. What is being worked on stays. */
export const throwAway = (kind: Throwable, id: string): Promise<ThrowOutcome> =>
  write(async (tx) => {
    for (const job of BUSY[kind]) if (await underWay(tx, job, id)) return 'busy';
    return (await setThrown(tx, kind, id, Date.now())) ? 'done' : 'unknown';
  });

/** Brings back what was thrown away. */
export const bringBack = (kind: Throwable, id: string): Promise<ThrowOutcome> =>
  write(async (tx) => ((await setThrown(tx, kind, id, null)) ? 'done' : 'unknown'));
