import { eachOnce } from '@alforja/core';
import { putRight } from '../library/putRight.ts';
import type { Transfer } from '../store/transfers.ts';
import { currentPlan } from './plan.ts';

/**
 * Changes the source so that losses of the forecast are none.
 * @param at places of the losses among the findings of the plan
 * @param basis what the plan rested on that was looked at
 * @returns false where the plan is another by now, or has no such repairs
 */
export async function avoidLosses(
  transfer: Transfer,
  { at, basis }: { readonly at: readonly number[]; readonly basis: string },
): Promise<boolean> {
  const plan = await currentPlan(transfer);
  if (plan?.basis !== basis) return false;
  const wanted = new Set(at);
  const edits = eachOnce(plan.repairs.filter((r) => wanted.has(r.at)).flatMap((r) => r.edits));
  if (edits.length === 0) return false;
  await putRight(transfer.packageId, { way: 'repair', edits });
  return true;
}
