import type { Comparison } from '@alforja/core';
import type { ReceiptAct, ReceiptTakenBack } from '../../shared/receipt.ts';
import { saysTally, saysTakenBack } from '../../shared/record.ts';
import type { RecordEntry, SendingStep } from '../../shared/transfers.ts';
import type { Transfer } from '../store/transfers.ts';

/** The record of a transfer in words, as receipts state it. */

const iso = (at: number): string => new Date(at).toISOString();

const ACTS = {
  sent: 'sent',
  checked: 'checked',
  mended: 'fixed',
  'taken-back': 'undone',
} as const satisfies Record<RecordEntry['act'], string>;

export const stepsSaid = (
  steps: readonly SendingStep[],
  words: Readonly<Record<string, string>>,
): ReceiptAct['steps'] =>
  steps.map((s) => ({
    name: words[s.name] ?? s.name,
    state: s.state,
    says: s.says,
    ended: s.endedAt === null ? null : iso(s.endedAt),
  }));

/** Every act, oldest first. @param words what the steps of this transfer are called */
export const actsOf = (
  record: readonly RecordEntry[],
  words: Readonly<Record<string, string>>,
): ReceiptAct[] =>
  record.map((entry) => ({
    at: iso(entry.at),
    by: entry.by,
    act: ACTS[entry.act],
    says: saysOf(entry),
    steps: entry.act === 'sent' ? stepsSaid(entry.steps, words) : [],
  }));

function saysOf(entry: RecordEntry): string {
  switch (entry.act) {
    case 'sent':
      return [
        entry.part ? 'only what was missing or altered' : 'all of it',
        ...(entry.failure === null ? [] : [`stopped: ${entry.failure}`]),
      ].join('; ');
    case 'checked':
      return saysTally(entry.tally);
    case 'mended':
      return [
        entry.mended.join('; '),
        ...(entry.undoes.length > 0 ? [`undone by it: ${entry.undoes.join('; ')}`] : []),
      ].join('. ');
    case 'taken-back':
      return saysTakenBack(entry);
  }
}

interface Standing {
  readonly verdict: Comparison['verdict'] | 'taken-back' | null;
  readonly foundBefore: Comparison['verdict'] | null;
  readonly takenBack: ReceiptTakenBack | null;
}

/** What holds now: what the last look found, unless it was taken back since. */
export function standingOf({ sending, tally, record, comparedAt }: Transfer): Standing {
  const undone = sending?.undone;
  const found = tally?.verdict ?? null;
  if (!undone) return { verdict: found, foundBefore: null, takenBack: null };
  const before = record.findLast((e) => e.act === 'checked' && e.at <= undone.at);
  const looked = comparedAt !== null && comparedAt <= undone.at ? found : null;
  return {
    verdict: 'taken-back',
    foundBefore: before?.act === 'checked' ? before.tally.verdict : looked,
    takenBack: { ...undone, at: iso(undone.at) },
  };
}
