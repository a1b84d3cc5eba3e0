import { speak, type Finding } from '@alforja/core';
import type { StepName } from '../../shared/stages.ts';
import type { SendingFailure } from '../../shared/transfers.ts';
import { notify } from '../library/notices.ts';
import type { Handler } from '../runner/handler.ts';
import type { Transaction } from '../store/database.ts';
import { announceSubject } from '../store/news.ts';
import { changeTransfer, transferById, type Transfer } from '../store/transfers.ts';
import { settlePair } from './batch.ts';
import { attach, compare, readBack } from './return.ts';
import { exportSides, readSides } from './export.ts';
import { upload, waitForImport } from './import.ts';
import { SendContext } from './sendContext.ts';
import { stoppedAt, Superseded, union, withStep } from './sending.ts';
import { convert } from './write.ts';

/** What happens in each step of a sending; each is safe to run twice. */
const STEP_WORK: Readonly<Record<StepName, (context: SendContext) => Promise<string>>> = {
  export: exportSides,
  read: readSides,
  convert,
  upload,
  wait: waitForImport,
  back: readBack,
  attach,
  compare,
};

/** Sends what was chosen, step by step, and proves what arrived; or only checks what arrived. */
export const send: Handler = {
  waits: true,
  async run(id, job) {
    const context = await SendContext.open(id, job);
    try {
      await runSteps(context);
    } catch (error) {
      // Another sending of this transfer goes on in its place.
      if (error instanceof Superseded) return;
      throw error;
    }
    return (tx) => announceEnd(tx, id);
  },
  async failed(tx, id, failure) {
    const said = failureOf(failure);
    const stopped = await markStopped(tx, id, said);
    if (stopped && !stopped.told)
      await notify(tx, {
        text: `“${stopped.transfer.title}” stopped: ${said.detail}`,
        href: `/transfers/${id}/send`,
        tone: 'bad',
      });
  },
  stopped: (tx, id) => markStopped(tx, id, STOPPED_BY_HAND),
};

async function runSteps(context: SendContext): Promise<void> {
  for (const { name, state } of context.sending.steps) {
    if (state !== 'waiting' && state !== 'running') continue;
    await context.save((s) => withStep(s, name, { state: 'running', startedAt: Date.now(), says: '' }));
    const says = await STEP_WORK[name](context);
    await context.save((s) => ({
      ...withStep(s, name, { state: 'done', endedAt: Date.now(), says }),
      notes: union(s.notes, context.retries),
    }));
  }
  await context.save((s) => ({ ...s, endedAt: Date.now(), failure: null }));
}

/** Two codes carry a whole sentence of their own; others have their words by code. */
function failureOf(failure: Finding): SendingFailure {
  if (failure.code === 'job-failed') return { reason: 'other', detail: failure.params.detail };
  if (failure.code !== 'sending-failed') return { reason: 'other', detail: speak(failure).message };
  // A destination that counts its sections otherwise says so by its reason.
  const { reason, detail } = failure.params;
  return { reason: reason === 'section-count' ? reason : 'other', detail };
}

export const STOPPED_BY_HAND: SendingFailure = { reason: 'stopped', detail: 'It was stopped by hand.' };

/** Writes down where a sending stopped, and why; `told`: the notice of its batch tells it. */
export async function markStopped(
  tx: Transaction,
  id: string,
  failure: SendingFailure,
): Promise<{ transfer: Transfer; told: boolean } | null> {
  await announceSubject(tx, id);
  const transfer = await changeTransfer(tx, id, ({ sending }) =>
    sending ? { sending: stoppedAt(sending, failure) } : null,
  );
  if (!transfer) return null;
  return { transfer, told: transfer.sending !== null && (await settlePair(tx, id, failure.detail)) };
}

async function announceEnd(tx: Transaction, id: string): Promise<void> {
  const transfer = await transferById(id, tx);
  if (transfer && !(await settlePair(tx, id, null))) await notify(tx, endingOf(transfer));
}

function endingOf({ id, title, arrival, sent, sending }: Transfer): Parameters<typeof notify>[1] {
  const checked = sending?.steps.some((s) => s.name === 'compare') ?? false;
  if (!checked || !arrival)
    return {
      text: `“${title}” is written: ${sent?.items ?? 0} questions.`,
      href: `/transfers/${id}/send`,
      tone: 'good',
    };
  const { verdict, counts } = arrival.comparison;
  const good = verdict === 'intact' && (arrival.landing?.troubles.length ?? 0) === 0;
  return {
    text: good
      ? `“${title}” has arrived: ${counts.intact} questions, nothing differs.`
      : `“${title}” has arrived; some of it differs and waits for you.`,
    href: `/transfers/${id}/arrival`,
    tone: good ? 'good' : 'look',
  };
}
