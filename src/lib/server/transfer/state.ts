import {
  differencesOf,
  sortOf,
  speakDifference,
  type Mend,
  type OpenDifference,
  type Subject,
} from '@alforja/core';
import type { Destination, JudgedDifference, TransferState } from '../../shared/transfers.ts';
import { courseById } from '../store/courses.ts';
import { db } from '../store/database.ts';
import { underWay } from '../store/jobs.ts';
import { snapshotById } from '../store/snapshots.ts';
import { systemById } from '../store/systems.ts';
import type { Transfer } from '../store/transfers.ts';
import { mendsOf, undoneBy } from './mend.ts';
import { currentPlan, planNow } from './plan.ts';

/** How a transfer stands. @param planning whether a plan that is out of date is made anew */
export async function stateOf(transfer: Transfer, { planning = true } = {}): Promise<TransferState> {
  const running = await underWay(db, 'send', transfer.id);
  return {
    from: transfer.sourceCourse ? await courseById(transfer.sourceCourse) : null,
    to: await destinationOf(transfer),
    // While it is being sent, the plan is what is being carried out.
    plan: running ? transfer.plan : planning ? await planNow(transfer) : await currentPlan(transfer),
    options: transfer.options,
    byHand: Object.keys(transfer.overrides),
    targetChosen: transfer.targetChosen,
    sending: transfer.sending,
    takenBack: transfer.sending?.undone ?? null,
    running,
    differences: await judgedDifferences(transfer),
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

/** Every difference in words, with what can be done about it and what somebody decided. */
async function judgedDifferences(transfer: Transfer): Promise<JudgedDifference[]> {
  const { arrival, decisions } = transfer;
  if (!arrival) return [];
  const mends = await mendsOf(transfer, arrival);
  const decided = new Map(decisions.map((d) => [d.key, d]));
  return differencesOf(arrival).map((difference: OpenDifference) => {
    const mend: Mend | undefined = mends.get(difference.id);
    return {
      ...speakDifference(difference, arrival),
      id: difference.id,
      about: difference.subject.about,
      itemState: difference.subject.about === 'item' ? difference.subject.state : null,
      sort: sortOf(difference.subject),
      items: sourceItems(difference.subject),
      mend: mend?.do ?? null,
      undoes: undoneBy(mend, transfer, arrival),
      decision: decided.get(difference.id) ?? null,
    };
  });
}

/** The source items that a difference is about. */
function sourceItems(subject: Subject): readonly string[] {
  if (subject.about === 'family') return subject.family.items;
  if (subject.about !== 'item') return [];
  if (subject.state === 'altered') return [subject.pair.source];
  return subject.state === 'missing' ? [subject.item] : [];
}
