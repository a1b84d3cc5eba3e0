import type { ContentsView, SpokenFinding } from '@alforja/core';
import { TARGET_NAMES, type Stage, type TargetName } from '$lib/shared/stages';
import type { Arrival, Sent, TransferState } from '$lib/shared/transfers';
import { plural } from '../format';
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
  readonly contents: ContentsView;
  readonly target: TargetName;
  /** Null while it is being worked out. */
  readonly forecast: readonly SpokenFinding[] | null;
  readonly losses: readonly SpokenFinding[];
  readonly state: TransferState;
  readonly sent: Sent | null;
  readonly stale: boolean;
  readonly counts: Arrival['comparison']['counts'] | null;
}

const real = (findings: readonly SpokenFinding[]): number =>
  findings.filter((f) => f.severity !== 'note').length;
const lossesOf = (n: number): string => (n === 0 ? 'no losses' : plural(n, 'loss', 'losses'));

/** The stages of a transfer, each with its own state. */
export function stageStates(facts: StrapFacts): StageState[] {
  const { sourceName, contents, target, forecast, state, sent, stale, counts } = facts;
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
      says: forecast ? `${format}, ${lossesOf(real(forecast))}` : format,
      done: forecast !== null || sent !== null,
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

function sendSays({ state: { to, running, sending, takenBack }, sent, stale, losses }: StrapFacts): string {
  if (running) return 'under way';
  if (sending?.failure) return 'stopped';
  if (sent === null) return to.kind === 'file' ? 'not written yet' : 'not sent yet';
  if (stale) return 'changed since';
  if (takenBack) return 'undone';
  if (to.kind === 'course') return 'sent';
  return real(losses) > 0 ? lossesOf(real(losses)) : 'written, no losses';
}

function arrivalSays({ counts, state: { to, differences, takenBack } }: StrapFacts): string {
  if (takenBack) return takenBack.refused.length > 0 ? 'undone in part' : 'undone';
  if (!counts)
    return to.kind === 'file' ? 'upload the returned export' : 'checked automatically after sending';
  const open = differences.filter((d) => d.decision === null).length;
  const accepted = differences.length - open;
  if (open > 0) return accepted > 0 ? `${open} open, ${accepted} accepted` : `${open} to decide`;
  return accepted > 0 ? `${accepted} accepted` : 'all intact';
}
