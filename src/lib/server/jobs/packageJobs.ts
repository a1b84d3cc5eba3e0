import { eq } from 'drizzle-orm';
import type { ColumnRole, Finding, ReadingRule, TableLayout, Target } from '@alforja/core';
import type { Arrival, Forecast, Sent, SentPart, StoredItem } from '../../shared/types.ts';
import { db, write } from '../db/client.ts';
import { items, packages, readingRules, tableLayouts, ticks, transfers } from '../db/schema.ts';
import { storeBytes, storedPath } from '../files.ts';
import { tallyOf } from '../services/differences.ts';
import { enqueue } from './queue.ts';
import type { FileRefInput } from './tasks.ts';
import type { Handler, Succeeded, Tell } from './context.ts';
import type { Order } from './worker.ts';

/** A job that is one order to a worker: what it needs before, and what becomes of the result. All of it is safe to run twice. */
interface Ordered {
  readonly order: (subject: string) => Promise<Order | null>;
  /** @param order what was asked for: what the user has changed since does not belong to this result */
  readonly finished: (subject: string, outcome: Succeeded, order: Order, tell: Tell) => Promise<void>;
  readonly failed: (subject: string, failure: Finding) => Promise<void>;
}

const ordered = ({ order, finished, failed }: Ordered): Handler => ({
  async run(subject, { tell, work }) {
    const asked = await order(subject);
    if (!asked) throw new Error('what it works for is gone');
    await finished(subject, await work(asked), asked, tell);
  },
  failed,
});

const BATCH = 200;

export async function fileOf(packageId: string): Promise<(FileRefInput & { sha256: string }) | null> {
  const [row] = await db
    .select({ sha256: packages.sha256, name: packages.name })
    .from(packages)
    .where(eq(packages.id, packageId));
  return row
    ? {
        path: storedPath(row.sha256),
        name: row.name,
        sha256: row.sha256,
        rules: await rulesNow(),
        layouts: await layoutsNow(),
      }
    : null;
}

const rulesNow = async (): Promise<ReadingRule[]> =>
  (await db.select().from(readingRules)).map(({ name, origin, label, means }) => ({
    name,
    origin,
    label,
    means,
  }));

const layoutsNow = async (): Promise<TableLayout[]> =>
  (await db.select().from(tableLayouts)).map(({ header, roles }) => ({
    header: JSON.parse(header) as string[],
    roles: JSON.parse(roles) as ColumnRole[],
  }));

export const transferOf = async (id: string) =>
  (await db.select().from(transfers).where(eq(transfers.id, id)))[0] ?? null;
export const ticksOf = (id: string) =>
  db.select({ kind: ticks.kind, nodeId: ticks.nodeId }).from(ticks).where(eq(ticks.transferId, id));

const readOrdered: Ordered = {
  async order(subject) {
    const file = await fileOf(subject);
    return file && { kind: 'read', file };
  },
  async finished(subject, outcome, _, tell) {
    if (outcome.kind !== 'read') return;
    const { tree, summary, rows } = outcome.result;
    // Rows of an earlier, interrupted run go first; the package shows only once all are in.
    await write((tx) => tx.delete(items).where(eq(items.packageId, subject)));
    for (let at = 0; at < rows.length; at += BATCH) {
      const batch = rows
        .slice(at, at + BATCH)
        .map((row: StoredItem, n) => ({ ...row, packageId: subject, seq: at + n }));
      await write((tx) => tx.insert(items).values(batch));
      tell('Storing items', Math.min(at + BATCH, rows.length), rows.length);
    }
    await write((tx) =>
      tx
        .update(packages)
        .set({ state: 'ready', tree: JSON.stringify(tree), summary: JSON.stringify(summary), failure: null })
        .where(eq(packages.id, subject)),
    );
  },
  failed: (subject, failure) =>
    write(async (tx) => {
      await tx
        .update(packages)
        .set({ state: 'failed', failure: JSON.stringify(failure) })
        .where(eq(packages.id, subject));
    }),
};

const forecastOrdered: Ordered = {
  async order(subject) {
    const transfer = await transferOf(subject);
    const file = transfer && (await fileOf(transfer.packageId));
    return (
      file && { kind: 'forecast', file, ticks: await ticksOf(subject), target: transfer.target as Target }
    );
  },
  async finished(subject, outcome, order) {
    if (outcome.kind !== 'forecast' || order.kind !== 'forecast') return;
    const ahead: Forecast = {
      target: order.target,
      ticks: order.ticks,
      findings: outcome.result,
    };
    await write((tx) =>
      tx
        .update(transfers)
        .set({ forecast: JSON.stringify(ahead) })
        .where(eq(transfers.id, subject)),
    );
    // Another choice was made meanwhile: its own forecast follows.
    if ((await transferOf(subject))?.target !== order.target) await enqueue('forecast', subject);
  },
  failed: async () => undefined,
};

const sendOrdered: Ordered = {
  async order(subject) {
    const transfer = await transferOf(subject);
    const file = transfer && (await fileOf(transfer.packageId));
    return file && { kind: 'send', file, ticks: await ticksOf(subject), target: transfer.target as Target };
  },
  async finished(subject, outcome, order) {
    if (outcome.kind !== 'send' || order.kind !== 'send') return;
    const { contents, items: count, points, findings } = outcome.result;
    const transfer = (await transferOf(subject))!;
    const base = fileName(transfer.title);
    const ending = order.target.startsWith('cc') ? 'imscc' : 'zip';
    const parts: SentPart[] = [];
    for (const [at, content] of contents.entries()) {
      const name = contents.length > 1 ? `${base}-${at + 1}.${ending}` : `${base}.${ending}`;
      parts.push({ ...(await storeBytes(content)), name });
    }
    const [first, ...more] = parts;
    const sent: Sent = {
      ...first!,
      more,
      target: order.target,
      items: count,
      points,
      findings,
      ticks: order.ticks,
    };
    await write((tx) =>
      tx
        .update(transfers)
        .set({ sent: JSON.stringify(sent), sentAt: Date.now() })
        .where(eq(transfers.id, subject)),
    );
  },
  failed: async () => undefined,
};

export const fileName = (title: string): string =>
  title
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/gu, '')
    .toLowerCase()
    .slice(0, 60) || 'package';

const compareOrdered: Ordered = {
  async order(subject) {
    const transfer = await transferOf(subject);
    const source = transfer && (await fileOf(transfer.packageId));
    const arrived = transfer?.arrivedPackageId ? await fileOf(transfer.arrivedPackageId) : null;
    if (!transfer || !source || !arrived) return null;
    const sent = transfer.sent ? (JSON.parse(transfer.sent) as Sent) : null;
    return {
      kind: 'compare',
      source,
      // What was sent is what was planned, even if ticks were changed since.
      ticks: sent?.ticks ?? (await ticksOf(subject)),
      arrived,
      sentSha256: sent?.sha256 ?? '',
      arrivedSha256: arrived.sha256,
    };
  },
  async finished(subject, outcome, order) {
    if (outcome.kind !== 'compare' || order.kind !== 'compare') return;
    const { sentSha256, arrivedSha256 } = order;
    // Where another file was dropped meanwhile, its own comparison follows.
    const transfer = await transferOf(subject);
    const now = transfer?.arrivedPackageId ? await fileOf(transfer.arrivedPackageId) : null;
    if (now?.sha256 !== arrivedSha256) return;
    const arrival: Arrival = { ...outcome.result, sentSha256, arrivedSha256, landing: null };
    await write((tx) =>
      tx
        .update(transfers)
        .set({
          arrival: JSON.stringify(arrival),
          tally: JSON.stringify(tallyOf(arrival, [])),
          comparedAt: Date.now(),
        })
        .where(eq(transfers.id, subject)),
    );
  },
  failed: async () => undefined,
};

export const read = ordered(readOrdered);
export const forecast = ordered(forecastOrdered);
export const send = ordered(sendOrdered);
export const compare = ordered(compareOrdered);
