import { error, fail } from '@sveltejs/kit';
import { z } from 'zod';
import { speak, TARGETS } from '@alforja/core';
import { itemRows, listPackages, packageById } from '$lib/server/services/packages';
import { receiptOf } from '$lib/server/services/receipt';
import {
  contentsOf,
  latestJobs,
  lookAhead,
  parsedArrival,
  parsedForecast,
  parsedSent,
  rename,
  send,
  setTarget,
  ticksFor,
  transferById,
} from '$lib/server/services/transfers';
import type { Stage, TargetName } from '$lib/shared/stages';
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
  const key = (list: readonly { kind: string; nodeId: string }[]): string =>
    list
      .map((t) => `${t.kind} ${t.nodeId}`)
      .sort()
      .join('\n');
  const now = key(ticks);
  const ahead = parsedForecast(transfer);
  const current = ahead !== null && ahead.target === transfer.target && key(ahead.ticks) === now;
  // One that failed is not tried again by itself, or the page would never come to rest.
  if (stage === 'forecast' && !current && (await latestJobs(transfer.id)).forecast?.state !== 'failed')
    await lookAhead(transfer.id);
  const arrived = transfer.arrivedPackageId ? await packageById(transfer.arrivedPackageId) : null;
  const arrival = parsedArrival(transfer);
  return {
    transfer: {
      id: transfer.id,
      title: transfer.title,
      target: transfer.target as TargetName,
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
    stale: sent !== null && (key(sent.ticks) !== now || sent.target !== transfer.target),
    forecast: current ? ahead.findings.map(speak) : null,
    names:
      stage === 'forecast' || stage === 'send'
        ? Object.fromEntries((await itemRows(held.id, tree)).map((r) => [r.id, { seq: r.seq, name: r.name }]))
        : {},
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

const Wanted = z.object({ target: z.enum(TARGETS) });
const Title = z.object({ title: z.string().trim().min(1, 'Give the transfer a name.').max(200) });

export const actions: Actions = {
  send: async ({ params }) => {
    if (!(await transferById(params.id))) error(404, 'There is no such transfer.');
    await send(params.id);
  },
  target: async ({ params, request }) => {
    const form = Wanted.safeParse(Object.fromEntries(await request.formData()));
    if (!form.success) return fail(400, { message: 'Choose one of the formats.' });
    if (!(await transferById(params.id))) error(404, 'There is no such transfer.');
    await setTarget(params.id, form.data.target);
  },
  rename: async ({ params, request }) => {
    const form = Title.safeParse(Object.fromEntries(await request.formData()));
    if (!form.success) return fail(400, { message: form.error.issues[0]!.message });
    await rename(params.id, form.data.title);
  },
};
