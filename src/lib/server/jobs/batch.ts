import { and, asc, eq, inArray } from 'drizzle-orm';
import type { ThingKind } from '@alforja/core';
import type { Tick, Tree } from '../../shared/types.ts';
import { db, write } from '../db/client.ts';
import { batches, batchPairs, transfers } from '../db/schema.ts';
import type { BatchPlan, PairException } from '../services/batches.ts';
import { startCourseTransfer, startRun } from '../services/courseTransfers.ts';
import { treeWith } from '../services/contents.ts';
import { packageById } from '../services/packages.ts';
import type { Handler, JobContext } from './context.ts';
import { lookInto } from './courses.ts';
import { announceSubject } from './events.ts';

/** Works through the pairs of a batch: looks into each source, makes the transfer, sets it going. Safe to run twice. */
export const batch: Handler = {
  async run(subject, context) {
    const [held] = await db.select().from(batches).where(eq(batches.id, subject));
    if (!held) return;
    const plan = JSON.parse(held.plan) as BatchPlan;
    const pairs = await db
      .select()
      .from(batchPairs)
      .where(and(eq(batchPairs.batchId, subject), inArray(batchPairs.state, ['waiting', 'running'])))
      .orderBy(asc(batchPairs.at));
    for (const [n, pair] of pairs.entries()) {
      context.signal.throwIfAborted();
      context.tell(`Starting course ${n + 1} of ${pairs.length}`, n, pairs.length);
      await begin(pair, plan, context);
    }
  },
  failed: async () => undefined,
};

async function begin(
  pair: typeof batchPairs.$inferSelect,
  plan: BatchPlan,
  context: JobContext,
): Promise<void> {
  const mine = and(eq(batchPairs.batchId, pair.batchId), eq(batchPairs.at, pair.at));
  try {
    const [had] = pair.transferId
      ? await db.select().from(transfers).where(eq(transfers.id, pair.transferId))
      : [];
    if (had) {
      // It was begun before the process ended; its own job is taken up by itself.
      if (had.run === null) await startRun(had);
      return;
    }
    const look = await lookInto(pair.sourceCourse, context);
    const tree = treeWith((await packageById(look.packageId))!.tree!, look.outline);
    const kinds = pair.exception ? (JSON.parse(pair.exception) as PairException).kinds : plan.kinds;
    const ticks = ticksFor(tree, kinds);
    const id = await startCourseTransfer({ courseId: pair.sourceCourse }, pair.destCourse, {
      ticks,
      options: plan.options,
      batchId: pair.batchId,
    });
    if (id === null) throw new Error('The destination is no longer in sight.');
    await write((tx) => tx.update(batchPairs).set({ transferId: id, state: 'running' }).where(mine));
    const [made] = await db.select().from(transfers).where(eq(transfers.id, id));
    await startRun(made!);
  } catch (error) {
    if (context.signal.aborted) throw error;
    await write((tx) =>
      tx
        .update(batchPairs)
        .set({ state: 'failed', trouble: (error as Error).message })
        .where(mine),
    );
  }
  announceSubject(pair.batchId);
}

const ticksFor = (tree: Tree, kinds: BatchPlan['kinds']): Tick[] => {
  const on = (kind: ThingKind, list: readonly { id: string }[]): Tick[] =>
    kinds.includes(kind) ? list.map((x) => ({ kind, nodeId: x.id })) : [];
  return [
    ...on('quiz', tree.quizzes),
    ...on('bank', tree.banks),
    ...on('link', tree.links),
    ...on('rubric', tree.rubrics),
  ];
};
