import type { Destination, Plan, PlanShown, TransferState } from '../../shared/transfers.ts';
import { courseById } from '../store/courses.ts';
import { db } from '../store/database.ts';
import { underWay } from '../store/jobs.ts';
import { snapshotById } from '../store/snapshots.ts';
import { systemById } from '../store/systems.ts';
import type { Transfer } from '../store/transfers.ts';
import { currentPlan, planNow } from './plan.ts';

/** How a transfer stands. @param planning whether a plan that is out of date is made anew */
export async function stateOf(transfer: Transfer, { planning = true } = {}): Promise<TransferState> {
  const running = await underWay(db, 'send', transfer.id);
  return {
    from: transfer.sourceCourse ? await courseById(transfer.sourceCourse) : null,
    to: await destinationOf(transfer),
    // While it is being sent, the plan is what is being carried out.
    plan: shown(running ? transfer.plan : planning ? await planNow(transfer) : await currentPlan(transfer)),
    options: transfer.options,
    byHand: Object.keys(transfer.overrides),
    targetChosen: transfer.targetChosen,
    sending: transfer.sending,
    takenBack: transfer.sending?.undone ?? null,
    running,
    open: transfer.tally?.open ?? 0,
    accepted: transfer.tally?.accepted ?? 0,
    notes: transfer.arrival?.notes ?? [],
  };
}

async function destinationOf({ destCourse, destSnapshot }: Transfer): Promise<Destination> {
  if (destCourse === null) return { kind: 'file' };
  const course = await courseById(destCourse);
  const system = course ? await systemById(course.systemId) : null;
  const taken = destSnapshot ? await snapshotById(destSnapshot) : null;
  return { kind: 'course', course, outline: taken?.outline ?? null, takes: system?.about.takes ?? [] };
}

/** What the format loses is told apart, where somebody asks for it. */
function shown(plan: Plan | null): PlanShown | null {
  if (plan === null) return null;
  const { findings: _, repairs: __, ...rest } = plan;
  return rest;
}
