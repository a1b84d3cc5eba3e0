import type { Landing } from '@alforja/core';
import { snapshotById } from '../store/snapshots.ts';
import type { Transfer } from '../store/transfers.ts';
import type { ArrivalInput, ArrivedCourse } from '../work/arriving.ts';
import { selectionOf, type TransferParts } from './plan.ts';
import { union } from './sending.ts';

/** Things of the destination that a plan speaks of: what was made there, and what stood there already. */
export const spokenOf = (landings: readonly Landing[], created: readonly string[]): string[] =>
  union(
    created,
    landings.flatMap((l) => (l.action === 'skip' && l.there !== null ? [l.there] : [])),
  );

/** Both sides of an arrival, as they are compared. @param created ids of what this transfer's imports made there */
export async function arrivalInput(
  transfer: Transfer,
  parts: TransferParts,
  created: readonly string[],
): Promise<ArrivalInput> {
  const landings = transfer.plan?.landings ?? [];
  return {
    ...selectionOf(parts),
    // What was sent is what was planned, even if ticks were changed since.
    ticks: transfer.destCourse === null ? (transfer.sent?.ticks ?? parts.ticks) : parts.ticks,
    layer: transfer.sent?.layer ?? [],
    landings,
    options: transfer.options,
    arrivedPackageId: transfer.arrivedPackageId!,
    course: transfer.backSnapshot ? await arrivedCourse(transfer.backSnapshot, landings, created) : null,
  };
}

async function arrivedCourse(
  snapshotId: string,
  landings: readonly Landing[],
  created: readonly string[],
): Promise<ArrivedCourse> {
  const { outline } = (await snapshotById(snapshotId))!;
  return { outline, created, about: spokenOf(landings, created) };
}
