import { KEPT_DAYS } from '../../shared/trash.ts';
import { write } from '../store/database.ts';
import { removeStrayFiles, strayFiles } from '../store/files.ts';
import { removeEndedJobs } from '../store/jobs.ts';
import { removeOldNotices } from '../store/notices.ts';
import { packageSums } from '../store/packages.ts';
import { sweepReadings } from '../store/readings.ts';
import { removeOldRequests } from '../store/requests.ts';
import { purgeOldLooks } from '../store/snapshots.ts';
import { purge } from '../store/trash.ts';
import { writtenSums } from '../store/transfers.ts';

/** For how many days what is over stays. */
export interface Retention {
  /** What was thrown away, and what was made here and not used. */
  readonly thrown: number;
  /** Looks into courses that no transfer rests on, but for the latest of each course. */
  readonly looks: number;
  readonly jobs: number;
  readonly notices: number;
  /** Requests of pages, each known by its key: nobody asks again after that. */
  readonly requests: number;
}
export const RETENTION: Retention = { thrown: KEPT_DAYS, looks: 180, jobs: 30, notices: 180, requests: 7 };

/** How much of each sort was removed, or would be. */
export interface Cleaned {
  readonly packages: number;
  readonly looks: number;
  readonly jobs: number;
  readonly notices: number;
  readonly requests: number;
  readonly files: number;
  /** Of the files. */
  readonly bytes: number;
}

const DAY_MS = 86_400_000;

/** Undoes a change that was only to be looked at. */
class OnlyLooked extends Error {}

/**
 * Removes for good what is over, by the rules of retention. What a transfer, a receipt or something made here rests on
 * stays, however old.
 * @param over `dryRun`: removes nothing, and says what would be
 */
export async function clean(
  over: { readonly dryRun?: boolean; readonly now?: number } = {},
): Promise<Cleaned> {
  const { dryRun = false, now = Date.now() } = over;
  const before = (days: number): number => now - days * DAY_MS;
  let came: Omit<Cleaned, 'files' | 'bytes'> | null = null;
  let kept = new Set<string>();
  await write(async (tx) => {
    // Looks first: the packages that they alone rested on go with them.
    const looks = await purgeOldLooks(tx, before(RETENTION.looks));
    came = {
      looks,
      packages: await purge(tx, before(RETENTION.thrown)),
      jobs: await removeEndedJobs(tx, before(RETENTION.jobs)),
      notices: await removeOldNotices(tx, before(RETENTION.notices)),
      requests: await removeOldRequests(tx, before(RETENTION.requests)),
    };
    kept = new Set([...(await packageSums(tx)), ...(await writtenSums(tx))]);
    if (dryRun) throw new OnlyLooked();
  }).catch((error: unknown) => {
    if (!(error instanceof OnlyLooked)) throw error;
  });
  if (!dryRun) await sweepReadings();
  const files = dryRun ? await strayFiles(kept) : await removeStrayFiles(kept);
  return { ...came!, files: files.length, bytes: files.reduce((sum, f) => sum + f.bytes, 0) };
}
