import { many } from '../../shared/many.ts';
import type { LineState, TransferLine, TransferListing } from '../../shared/transfers.ts';
import { listBatches } from '../store/batches.ts';
import { listTransfers } from '../store/transfers.ts';
import { batchView } from './batches.ts';

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

type View = NonNullable<Awaited<ReturnType<typeof batchView>>>;

function batchState({ rows }: View, open: number): LineState {
  if (rows.some((r) => r.state === 'waiting' || r.state === 'running')) return 'sending';
  if (rows.some((r) => r.state === 'failed')) return 'stopped';
  return open > 0 ? 'open' : 'done';
}

function batchLine(view: View): TransferLine {
  const sum = (of: (row: View['rows'][number]) => number): number =>
    view.rows.reduce((total, row) => total + of(row), 0);
  const open = sum((r) => r.open);
  const failed = sum((r) => (r.state === 'failed' ? 1 : 0));
  const goes = sum((r) => (r.state === 'left' ? 0 : 1));
  return {
    kind: 'batch',
    id: view.id,
    title: view.title,
    from: many(goes, 'course'),
    state: batchState(view, open),
    createdAt: view.createdAt,
    lastAt: view.createdAt,
    counts: view.rows.some((r) => r.counts)
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
  const views = await Promise.all((await listBatches()).map((b) => batchView(b.id)));
  return views.flatMap((view) => (view ? [batchLine(view)] : []));
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
