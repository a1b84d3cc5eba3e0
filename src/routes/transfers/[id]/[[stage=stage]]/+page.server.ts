import { error, fail } from '@sveltejs/kit';
import { z } from 'zod';
import { rubricPoints, rubricSides, speak, TARGETS } from '@alforja/core';
import { gradableItems, itemRows, listPackages, packageById } from '$lib/server/services/packages';
import { receiptOf } from '$lib/server/services/receipt';
import { courseState, type CourseState } from '$lib/server/services/courseState';
import { setCourseTarget } from '$lib/server/services/courseTransfers';
import { contentsOf, groupsOf, treeWith } from '$lib/server/services/contents';
import { lookById } from '$lib/server/services/courses';
import { systemById } from '$lib/server/services/systems';
import {
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
import type { Gradable, SystemAbout } from '$lib/shared/courses';
import type { Stage, TargetName } from '$lib/shared/stages';
import type { ArrivedRubric, Tree } from '$lib/shared/types';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const transfer = await transferById(params.id);
  const held = transfer && (await packageById(transfer.packageId));
  if (!transfer || !held?.tree) error(404, 'There is no such transfer.');
  const { tree: read, sha256, ...source } = held;
  const stage: Stage =
    params.stage ?? (transfer.comparedAt ? 'arrival' : transfer.sentAt ? 'send' : 'contents');
  const ticks = await ticksFor(transfer.id);
  const sent = parsedSent(transfer);
  const look = transfer.sourceSnapshot ? await lookById(transfer.sourceSnapshot) : null;
  // What the course calls its things goes before what their files are called.
  const tree: Tree = look ? treeWith(read, look.outline) : read;
  const key = (list: readonly { kind: string; nodeId: string }[]): string =>
    list
      .map((t) => `${t.kind} ${t.nodeId}`)
      .sort()
      .join('\n');
  const now = key(ticks);
  const ahead = parsedForecast(transfer);
  const current = ahead !== null && ahead.target === transfer.target && key(ahead.ticks) === now;
  // One that failed is not tried again by itself, or the page would never come to rest.
  if (
    stage === 'forecast' &&
    !transfer.destCourse &&
    !current &&
    (await latestJobs(transfer.id)).forecast?.state !== 'failed'
  )
    await lookAhead(transfer.id);
  const course = transfer.destCourse ? await courseState(transfer) : null;
  const carried = course ? course.plan !== null && ahead?.target === transfer.target : current;
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
    forecast: carried && ahead ? ahead.findings.map(speak) : null,
    course,
    // What the destination takes, where it is a course.
    takes: course ? await takesOf(course) : null,
    names:
      stage === 'forecast' || stage === 'send'
        ? Object.fromEntries((await itemRows(held.id, tree)).map((r) => [r.id, { seq: r.seq, name: r.name }]))
        : {},
    counts: arrival?.comparison.counts ?? null,
    // Only the stage in sight brings its own, possibly long, lists.
    picking:
      stage === 'contents'
        ? {
            tree,
            rows: await itemRows(held.id, tree),
            ticks,
            groups: groupsOf(tree, look?.outline ?? null),
            assignments: look?.outline.assignments ?? [],
          }
        : null,
    arrival: stage === 'arrival' ? arrival : null,
    gradable: stage === 'landing' ? await gradableThere(transfer) : [],
    rubrics: stage === 'arrival' ? (arrival?.rubrics ?? []).map(arrivedRubric) : [],
    arrived: arrived ? { ...arrived, tree: null } : null,
    others:
      stage === 'arrival'
        ? (await listPackages(50)).filter((p) => p.id !== held.id && p.state === 'ready')
        : [],
    receipt: stage === 'receipt' ? await receiptOf(transfer) : null,
  };
};

/** Items and assignments of the destination that a rubric can be attached to. */
async function gradableThere({
  destSnapshot,
}: {
  readonly destSnapshot: string | null;
}): Promise<Gradable[]> {
  const look = destSnapshot ? await lookById(destSnapshot) : null;
  if (!look) return [];
  const work = (look.outline.assignments ?? []).map((a): Gradable => ({
    kind: 'assignment',
    id: a.id,
    name: a.title || a.id,
    points: a.points,
  }));
  return [...(await gradableItems(look.packageId)), ...work];
}

/** A rubric of the plan beside what became of it. */
const arrivedRubric = ({ state, planned, arrived }: ArrivedRubric) => ({
  state,
  planned: planned && { title: planned.title, points: rubricPoints(planned) },
  arrived: arrived && { title: arrived.title, points: rubricPoints(arrived) },
  sides: planned && arrived ? rubricSides(planned, arrived) : null,
});

const takesOf = async ({ to }: CourseState): Promise<readonly string[]> => {
  const system = to ? await systemById(to.systemId) : null;
  return system ? (JSON.parse(system.about) as SystemAbout).takes : [];
};

const Wanted = z.object({ target: z.enum([...TARGETS, 'best']) });
const Title = z.object({ title: z.string().trim().min(1, 'Give the transfer a name.').max(200) });

export const actions: Actions = {
  send: async ({ params }) => {
    if (!(await transferById(params.id))) error(404, 'There is no such transfer.');
    await send(params.id);
  },
  target: async ({ params, request }) => {
    const form = Wanted.safeParse(Object.fromEntries(await request.formData()));
    if (!form.success) return fail(400, { message: 'Choose one of the formats.' });
    const transfer = await transferById(params.id);
    if (!transfer) error(404, 'There is no such transfer.');
    const { target } = form.data;
    if (transfer.destCourse) await setCourseTarget(transfer, target === 'best' ? null : target);
    else if (target === 'best') return fail(400, { message: 'Choose one of the formats.' });
    else await setTarget(params.id, target);
  },
  rename: async ({ params, request }) => {
    const form = Title.safeParse(Object.fromEntries(await request.formData()));
    if (!form.success) return fail(400, { message: form.error.issues[0]!.message });
    await rename(params.id, form.data.title);
  },
};
