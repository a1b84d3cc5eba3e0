import { landingId, type SheetWay } from '@alforja/core';
import type { BothView } from '../../shared/quizzes.ts';
import { worked } from '../library/worked.ts';
import { arrivedPairs } from '../store/arrivalRows.ts';
import { transferById } from '../store/transfers.ts';
import { arrivalInput } from './arrivalInput.ts';
import { partsOf } from './plan.ts';

/** Both sides cannot be tried, in words for people. */
export class BothTrouble extends Error {}

/**
 * A quiz of a transfer, sat on both sides with the same answers.
 * @param quiz its id in what was sent
 * @throws BothTrouble with words where it cannot be
 */
export async function tryBoth(
  transferId: string,
  quiz: string,
  how: { readonly seed: string; readonly way: SheetWay },
): Promise<BothView> {
  const transfer = await transferById(transferId);
  const comparison = transfer?.arrival?.comparison;
  const parts = transfer && (await partsOf(transfer));
  if (!transfer || !comparison || !parts || transfer.arrivedPackageId === null)
    throw new BothTrouble('Nothing of this transfer has been compared yet.');
  const pair = comparison.containers.find((c) => c.kind === 'quiz' && c.source === quiz);
  if (!pair?.arrived) throw new BothTrouble('That quiz did not arrive: there is nothing to try beside it.');
  const asked = {
    arrival: await arrivalInput(transfer, parts, transfer.sending?.created ?? []),
    source: quiz,
    arrived: pair.arrived,
    pairs: transfer.seamId
      ? await arrivedPairs(transfer.seamId)
      : comparison.pairs.map((p) => [p.source, p.arrived] as const),
    ...how,
  };
  return worked('bothSides', asked, BothTrouble);
}

/** What the page of both sides shows before it is tried; null where there is no such quiz. */
export async function bothHead(
  transferId: string,
  quiz: string,
): Promise<{ readonly transfer: string; readonly name: string } | null> {
  const transfer = await transferById(transferId);
  const comparison = transfer?.arrival?.comparison;
  const pair = comparison?.containers.find((c) => c.kind === 'quiz' && c.source === quiz);
  if (!transfer || !pair?.arrived) return null;
  return {
    transfer: transfer.title,
    name: transfer.arrival?.names[landingId({ kind: 'quiz', node: quiz })] ?? quiz,
  };
}
