import type {
  CourseListing,
  CourseOutline,
  Decision,
  Plan,
  Run,
  TransferOptions,
} from '../../shared/courses.ts';
import { optionsOf, overridesOf } from '../jobs/plan.ts';
import { runOf } from '../jobs/run.ts';
import { courseById, lookById } from './courses.ts';
import { decisionsOf, planNow } from './courseTransfers.ts';
import { differencesOf, type OpenDifference } from './differences.ts';
import { mendsOf, type Mend } from './mend.ts';
import { jobsFor, parsedArrival, type TransferRow } from './transfers.ts';

export interface JudgedDifference extends OpenDifference {
  /** What can be done about it there. */
  readonly mend: Mend['do'] | null;
  readonly decision: Decision | null;
}

/** Everything the screens show of a transfer into a course, beside its contents. */
export interface CourseState {
  readonly from: CourseListing | null;
  readonly to: CourseListing | null;
  readonly there: CourseOutline | null;
  readonly plan: Plan | null;
  readonly options: TransferOptions;
  readonly byHand: readonly string[];
  readonly targetChosen: boolean;
  readonly run: Run | null;
  readonly running: boolean;
  readonly differences: readonly JudgedDifference[];
  readonly notes: readonly string[];
}

export async function courseState(transfer: TransferRow): Promise<CourseState> {
  const arrival = parsedArrival(transfer);
  const mends = arrival ? await mendsOf(transfer, arrival) : new Map<string, { do: Mend['do'] }>();
  const decisions = decisionsOf(transfer);
  const { carry } = await jobsFor(transfer.id);
  const dest = transfer.destSnapshot ? await lookById(transfer.destSnapshot) : null;
  const running = carry?.state === 'queued' || carry?.state === 'running';
  return {
    from: transfer.sourceCourse ? await courseById(transfer.sourceCourse) : null,
    to: await courseById(transfer.destCourse!),
    there: dest?.outline ?? null,
    // While it is being sent, the plan is what is being carried out.
    plan: running && transfer.plan ? (JSON.parse(transfer.plan) as Plan) : await planNow(transfer),
    options: optionsOf(transfer),
    byHand: Object.keys(overridesOf(transfer)),
    targetChosen: transfer.targetChosen,
    run: runOf(transfer),
    running,
    differences: (arrival ? differencesOf(arrival) : []).map((d) => ({
      ...d,
      mend: mends.get(d.key)?.do ?? null,
      decision: decisions.find((x) => x.key === d.key) ?? null,
    })),
    notes: arrival?.landing?.notes ?? [],
  };
}
