import { randomUUID } from 'node:crypto';
import { STEPS, type StepName } from '../../shared/stages.ts';
import type {
  RecordEntry,
  Sending,
  SendingFailure,
  SendingPart,
  SendingStep,
} from '../../shared/transfers.ts';
import { write } from '../store/database.ts';
import { announceSubject } from '../store/news.ts';
import { changeTransfer, type Transfer } from '../store/transfers.ts';

/** The record of one sending, kept after every step so that it can be taken up again where it stood. */

export interface SendingOrder {
  readonly by: string;
  readonly only?: SendingPart;
  readonly sectionsAs?: Sending['sectionsAs'];
  /** Only reads what arrived, and compares. */
  readonly checkOnly?: boolean;
}

const CHECKING: ReadonlySet<StepName> = new Set(['back', 'attach', 'compare']);

const step = (name: StepName): SendingStep => ({
  name,
  state: 'waiting',
  startedAt: null,
  endedAt: null,
  says: '',
});

/**
 * The steps of a sending into a course, or of what is written as a file; a check goes only the last of them.
 */
function stepsFor(
  { destCourse, sourceCourse }: Pick<Transfer, 'destCourse' | 'sourceCourse'>,
  before: Sending | null,
  checkOnly: boolean,
): SendingStep[] {
  // What was sent stays as it stood: a check goes its own steps after it.
  const went = (before?.steps ?? []).filter((s) => !CHECKING.has(s.name));
  if (checkOnly)
    return [
      ...went,
      ...STEPS.filter((name) => CHECKING.has(name) && (destCourse !== null || name !== 'attach')).map(step),
    ];
  if (destCourse !== null) return STEPS.map(step);
  return [...(sourceCourse === null ? [] : [step('export')]), step('read'), step('convert')];
}

/** A new sending; what earlier ones of the transfer made there, and what they set aside, stays known. */
export function newSending(
  transfer: Pick<Transfer, 'destCourse' | 'sourceCourse' | 'sending'>,
  order: SendingOrder,
): Sending {
  const before = transfer.sending;
  const checkOnly = order.checkOnly ?? false;
  return {
    id: randomUUID(),
    ...(checkOnly && before
      ? { by: before.by, only: before.only, startedAt: before.startedAt, undone: before.undone }
      : { by: order.by, only: order.only ?? null, startedAt: Date.now(), undone: null }),
    checkedBy: checkOnly ? order.by : null,
    endedAt: null,
    steps: stepsFor(transfer, before, checkOnly),
    imports: [],
    unseen: before?.failure
      ? [...before.unseen, ...before.imports.map((i) => i.job)]
      : (before?.unseen ?? []),
    created: before?.created ?? [],
    attached: before?.attached ?? [],
    setAside: before?.setAside ?? [],
    notes: checkOnly ? (before?.notes ?? []) : [],
    failure: null,
    sectionsAs: order.sectionsAs ?? 'source',
  };
}

/** The sending that gives way to a new one, as the record keeps it; nothing where none was begun. */
export const keptOf = ({ sending }: Pick<Transfer, 'sending'>): RecordEntry[] =>
  sending
    ? [
        {
          act: 'sent',
          at: sending.startedAt,
          by: sending.by,
          part: sending.only !== null,
          steps: sending.steps,
          failure: sending.failure?.detail ?? null,
        },
      ]
    : [];

/**
 * Another sending of the transfer has begun, or somebody has stopped this one: its record is no longer this
 * one's to write.
 */
export class Superseded extends Error {}

/**
 * Changes the record of a sending by what it is now, and tells the open pages.
 * @throws Superseded where the transfer has another sending now
 */
export function changeSending(
  transferId: string,
  sendingId: string,
  change: (before: Sending) => Sending,
): Promise<Sending> {
  return write(async (tx) => {
    await announceSubject(tx, transferId);
    const after = await changeTransfer(tx, transferId, ({ sending }) => {
      if (sending?.id !== sendingId) throw new Superseded();
      return { sending: change(sending) };
    });
    return after!.sending!;
  });
}

export const withStep = (sending: Sending, name: StepName, change: Partial<SendingStep>): Sending => ({
  ...sending,
  steps: sending.steps.map((s) => (s.name === name ? { ...s, ...change } : s)),
});

/** The record of a sending that stopped: at the step it was in, and why. */
export function stoppedAt(sending: Sending, failure: SendingFailure): Sending {
  const now = Date.now();
  const broken =
    sending.steps.find((s) => s.state === 'running') ?? sending.steps.find((s) => s.state === 'waiting');
  const marked = broken
    ? withStep(sending, broken.name, { state: 'failed', endedAt: now, says: failure.detail })
    : sending;
  return { ...marked, failure, endedAt: now };
}

/** Together, each once. */
export const union = (a: readonly string[], b: readonly string[]): string[] => [...new Set([...a, ...b])];
