import { many } from '../../shared/many.ts';
import type { LineState, TransferLine, TransferListing } from '../../shared/transfers.ts';
import { listBatches, type Batch } from '../store/batches.ts';
import { listTransfers } from '../store/transfers.ts';
import { batchRows, type BatchRow } from './batches.ts';

/** Transfers and batches in one list. */

interface LineFilter {
  readonly query?: string;
  readonly from?: string;
  readonly to?: string;
}

const MOST = 1000;

const lineOf = (t: TransferListing): TransferLine => ({
  kind: 'transfer',
  id: t.id,
  title: t.title,
  from: t.packageName,
  state: t.state,
  createdAt: t.createdAt,
  lastAt: t.takenBack?.at ?? t.comparedAt ?? t.sentAt ?? t.createdAt,
  counts: t.counts,
  open: t.open,
  accepted: t.accepted,
  takenBack: t.takenBack,
  trouble: t.trouble,
});

function batchState(rows: readonly BatchRow[], open: number): LineState {
  if (rows.some((r) => r.state === 'waiting' || r.state === 'running')) return 'sending';
  if (rows.some((r) => r.state === 'failed')) return 'stopped';
  return open > 0 ? 'open' : 'done';
}

function batchLine(
  { id, title, createdAt }: Pick<Batch, 'id' | 'title' | 'createdAt'>,
  rows: readonly BatchRow[],
): TransferLine {
  const sum = (of: (row: BatchRow) => number): number => rows.reduce((total, row) => total + of(row), 0);
  const open = sum((r) => r.open);
  const failed = sum((r) => (r.state === 'failed' ? 1 : 0));
  const goes = sum((r) => (r.state === 'left' ? 0 : 1));
  return {
    kind: 'batch',
    id,
    title,
    from: many(goes, 'course'),
    state: batchState(rows, open),
    createdAt,
    lastAt: createdAt,
    counts: rows.some((r) => r.counts)
      ? {
          intact: sum((r) => r.counts?.intact ?? 0),
          altered: sum((r) => r.counts?.altered ?? 0),
          missing: sum((r) => r.counts?.missing ?? 0),
          extra: sum((r) => r.counts?.extra ?? 0),
        }
      : null,
    open,
    accepted: sum((r) => r.accepted),
    takenBack: null,
    trouble: failed > 0 ? `${failed} of ${goes} stopped` : null,
  };
}

/** Every batch that is not thrown away, as a line. */
export async function batchLines(): Promise<TransferLine[]> {
  return Promise.all((await listBatches()).map(async (batch) => batchLine(batch, await batchRows(batch.id))));
}

/** Transfers and batches, the one begun last first. */
export async function transferLines(filter: LineFilter = {}): Promise<TransferLine[]> {
  const { query = '', from, to } = filter;
  const transfers = (await listTransfers(MOST, filter)).map(lineOf);
  const within = ({ createdAt }: TransferLine): boolean =>
    (!from || createdAt >= Date.parse(`${from}T00:00:00Z`)) &&
    (!to || createdAt <= Date.parse(`${to}T23:59:59.999Z`));
  const named = ({ title }: TransferLine): boolean =>
    query === '' || title.toLowerCase().includes(query.toLowerCase());
  const batches = (await batchLines()).filter((line) => within(line) && named(line));
  return [...transfers, ...batches].sort((a, b) => b.createdAt - a.createdAt);
}
