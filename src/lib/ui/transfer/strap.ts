import type { ContentsShown } from '$lib/shared/contents';
import { TARGET_NAMES, type Stage, type TargetName } from '$lib/shared/stages';
import type { Arrival, SentShown, TransferState } from '$lib/shared/transfers';
import { count, plural } from '../format';
import { includedOf } from './included';

/** A stage on the strap: its name, how it stands in a few words, and whether it is done. */
export interface StageState {
  readonly stage: Stage;
  readonly name: string;
  readonly says: string;
  readonly done: boolean;
}

/** What the strap tells of a transfer. */
export interface StrapFacts {
  readonly sourceName: string;
  readonly contents: Pick<ContentsShown, 'items' | 'points' | 'total' | 'rubrics' | 'rubricsTotal'>;
  readonly target: TargetName;
  /** How much the format will lose; null while it is being worked out. */
  readonly ahead: number | null;
  /** How much it lost when it was written. */
  readonly lost: number;
  readonly state: TransferState;
  readonly sent: SentShown | null;
  readonly stale: boolean;
  readonly counts: Arrival['comparison']['counts'] | null;
}

const lossesOf = (n: number): string => (n === 0 ? 'no losses' : plural(n, 'loss', 'losses'));

/** The stages of a transfer, each with its own state. */
export function stageStates(facts: StrapFacts): StageState[] {
  const { sourceName, contents, target, ahead, state, sent, stale, counts } = facts;
  const format = TARGET_NAMES[target];
  return [
    { stage: 'source', name: 'Source', says: sourceName, done: true },
    {
      stage: 'contents',
      name: 'Contents',
      says: includedOf(contents),
      done: contents.items + contents.rubrics > 0,
    },
    {
      stage: 'forecast',
      name: 'Forecast',
      says: ahead === null ? format : `${format}, ${lossesOf(ahead)}`,
      done: ahead !== null || sent !== null,
    },
    {
      stage: 'landing',
      name: 'Landing',
      says: landingSays(state),
      done: state.plan !== null && state.plan.troubles.length === 0,
    },
    { stage: 'send', name: 'Send', says: sendSays(facts), done: sent !== null && !stale },
    { stage: 'arrival', name: 'Arrival', says: arrivalSays(facts), done: counts !== null },
    {
      stage: 'receipt',
      name: 'Receipt',
      says: facts.state.takenBack
        ? 'says it was undone'
        : counts
          ? 'ready'
          : sent
            ? 'without an arrival'
            : 'available after sending',
      done: counts !== null,
    },
  ];
}

function landingSays({ to, plan }: TransferState): string {
  if (plan && plan.troubles.length > 0) return `${plural(plan.troubles.length, 'thing')} to settle`;
  if (to.kind === 'file') return 'out as a file';
  if (!to.course) return 'a course no longer listed';
  return plan === null ? to.course.title : `${to.course.term}, section ${to.course.section}`;
}

function sendSays({ state: { to, running, sending, takenBack }, sent, stale, lost }: StrapFacts): string {
  if (running) return 'under way';
  if (sending?.failure) return 'stopped';
  if (sent === null) return to.kind === 'file' ? 'not written yet' : 'not sent yet';
  if (stale) return 'changed since';
  if (takenBack) return 'undone';
  if (to.kind === 'course') return 'sent';
  return lost > 0 ? lossesOf(lost) : 'written, no losses';
}

function arrivalSays({ counts, state: { to, open, accepted, takenBack } }: StrapFacts): string {
  if (takenBack) return takenBack.refused.length > 0 ? 'undone in part' : 'undone';
  if (!counts)
    return to.kind === 'file' ? 'upload the returned export' : 'checked automatically after sending';
  if (open > 0)
    return accepted > 0 ? `${count(open)} open, ${count(accepted)} accepted` : `${count(open)} to decide`;
  return accepted > 0 ? `${count(accepted)} accepted` : 'all intact';
}
