import { error, fail } from '@sveltejs/kit';
import { z } from 'zod';
import { speak } from '@alforja/core';
import { itemRows, listPackages, packageById } from '$lib/server/services/packages';
import { receiptOf } from '$lib/server/services/receipt';
import {
  contentsOf,
  latestJobs,
  parsedArrival,
  parsedSent,
  rename,
  send,
  ticksFor,
  transferById,
} from '$lib/server/services/transfers';
import type { Stage } from '$lib/shared/stages';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const transfer = await transferById(params.id);
  const held = transfer && (await packageById(transfer.packageId));
  if (!transfer || !held?.tree) error(404, 'There is no such transfer.');
  const { tree, sha256, ...source } = held;
  const stage: Stage =
    params.stage ?? (transfer.comparedAt ? 'arrival' : transfer.sentAt ? 'send' : 'contents');
  const ticks = await ticksFor(transfer.id);
  const sent = parsedSent(transfer);
  const arrived = transfer.arrivedPackageId ? await packageById(transfer.arrivedPackageId) : null;
  const arrival = parsedArrival(transfer);
  const key = (list: readonly { kind: string; nodeId: string }[]): string =>
    list
      .map((t) => `${t.kind} ${t.nodeId}`)
      .sort()
      .join('\n');
  return {
    transfer: {
      id: transfer.id,
      title: transfer.title,
      sentAt: transfer.sentAt,
      comparedAt: transfer.comparedAt,
    },
    stage,
    source,
    sha256,
    contents: await contentsOf(held.id, tree, ticks),
    jobs: await latestJobs(transfer.id),
    sent,
    losses: sent ? sent.findings.map(speak) : [],
    stale: sent !== null && key(sent.ticks) !== key(ticks),
    counts: arrival?.comparison.counts ?? null,
    // Only the stage in sight brings its own, possibly long, lists.
    picking: stage === 'contents' ? { tree, rows: await itemRows(held.id, tree), ticks } : null,
    arrival: stage === 'arrival' ? arrival : null,
    arrived: arrived ? { ...arrived, tree: null } : null,
    others:
      stage === 'arrival'
        ? (await listPackages(50)).filter((p) => p.id !== held.id && p.state === 'ready')
        : [],
    receipt: stage === 'receipt' ? await receiptOf(transfer) : null,
  };
};

const Title = z.object({ title: z.string().trim().min(1, 'Give the transfer a name.').max(200) });

export const actions: Actions = {
  send: async ({ params }) => {
    if (!(await transferById(params.id))) error(404, 'There is no such transfer.');
    await send(params.id);
  },
  rename: async ({ params, request }) => {
    const form = Title.safeParse(Object.fromEntries(await request.formData()));
    if (!form.success) return fail(400, { message: form.error.issues[0]!.message });
    await rename(params.id, form.data.title);
  },
};
