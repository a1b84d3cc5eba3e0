import { outlineName, rubricPoints, speak } from '@alforja/core';
import { courseName, STEP_WORDS, type Plan } from '../../shared/courses.ts';
import type { Arrival, CourseReceipt, Receipt, ReceiptRubric, SheetLine } from '../../shared/types.ts';
import { runOf } from '../jobs/run.ts';
import { sourceTree } from './contents.ts';
import { courseById } from './courses.ts';
import { decisionsOf } from './courseTransfers.ts';
import { differencesOf } from './differences.ts';
import type { TransferRow } from './transfers.ts';
import { parsedArrival, parsedSent } from './transfers.ts';
import { packageById } from './packages.ts';

/** Everything a receipt states; null until something has been sent or has arrived. */
export async function receiptOf(transfer: TransferRow): Promise<Receipt | null> {
  const sent = parsedSent(transfer);
  const arrival = parsedArrival(transfer);
  if (!sent && !arrival) return null;
  const source = (await packageById(transfer.packageId))!;
  const arrived = transfer.arrivedPackageId ? await packageById(transfer.arrivedPackageId) : null;
  const names = new Map(arrival?.left.map((r) => [r.id, r.name]));
  return {
    transfer: {
      id: transfer.id,
      title: transfer.title,
      started: iso(transfer.createdAt),
      format: transfer.target,
    },
    source: { name: source.name, bytes: source.bytes, sha256: source.sha256, brought: iso(source.broughtAt) },
    sent: sent && {
      name: sent.name,
      bytes: sent.bytes,
      sha256: sent.sha256,
      more: sent.more,
      at: iso(transfer.sentAt),
      items: sent.items,
      points: sent.points,
      losses: sent.findings.map(speak),
    },
    arrived: arrived && {
      name: arrived.name,
      bytes: arrived.bytes,
      sha256: arrived.sha256,
      brought: iso(arrived.broughtAt),
      compared: iso(transfer.comparedAt),
    },
    verdict: arrival?.comparison.verdict ?? null,
    counts: arrival?.comparison.counts ?? null,
    totals: arrival?.totals ?? null,
    altered: (arrival?.comparison.pairs ?? [])
      .filter((p) => p.state === 'altered')
      .map((p) => ({ ...p, name: names.get(p.source) ?? p.source })),
    missing: arrival?.comparison.missing ?? [],
    extra: arrival?.comparison.extra ?? [],
    containers: (arrival?.comparison.containers ?? []).filter((c) => c.state !== 'intact'),
    rubrics: arrival ? rubricsIn(arrival) : [],
    missingFiles: arrival?.comparison.missingFiles ?? [],
    course: transfer.destCourse ? await courseReceipt(transfer) : null,
    sheet: await settingsSheet(transfer),
  };
}

/** Each rubric as it was found there, or as it was planned where it is missing. */
const rubricsIn = ({ rubrics = [], right, landing }: Arrival): ReceiptRubric[] =>
  rubrics.flatMap(({ state, planned, arrived }) => {
    const rubric = arrived ?? planned;
    if (!rubric) return [];
    const held = landing?.outline.rubrics?.find((r) => r.rubric.id === arrived?.id)?.rubric ?? rubric;
    const nameOf = (id: string): string =>
      right.find((r) => r.id === id)?.name ?? (landing ? outlineName(landing.outline, id) : null) ?? id;
    const grades = arrived ? held.attachedTo.map(nameOf) : [];
    return [
      {
        name: rubric.title || rubric.id,
        state,
        criteria: rubric.criteria.length,
        points: rubricPoints(rubric),
        grades,
      },
    ];
  });

async function courseReceipt(transfer: TransferRow): Promise<CourseReceipt | null> {
  const [from, to] = [
    transfer.sourceCourse ? await courseById(transfer.sourceCourse) : null,
    await courseById(transfer.destCourse!),
  ];
  const run = runOf(transfer);
  const arrival = parsedArrival(transfer);
  if (!run) return null;
  const decisions = decisionsOf(transfer);
  const landings = transfer.plan ? (JSON.parse(transfer.plan) as Plan).landings : [];
  const differences = (arrival ? differencesOf(arrival) : []).map(({ key, what, planned, found }) => {
    const decision = decisions.find((d) => d.key === key);
    return {
      what,
      planned,
      found,
      accepted: decision ? { reason: decision.reason, by: decision.by, at: iso(decision.at)! } : null,
    };
  });
  return {
    from: from ? courseName(from) : null,
    to: to ? courseName(to) : transfer.destCourse!,
    by: run.by,
    steps: run.steps.map((s) => ({
      name: STEP_WORDS[s.name],
      state: s.state,
      says: s.says,
      ended: iso(s.endedAt),
    })),
    planned: landings.map(({ kind, name, action }) => ({ kind, name, action: ACTION_WORDS[action] })),
    differences,
    open: differences.filter((d) => d.accepted === null).length,
    accepted: differences.filter((d) => d.accepted !== null).length,
    notes: run.notes,
  };
}

const ACTION_WORDS = {
  add: 'new',
  skip: 'was there already',
  replace: 'new; the older one is hidden',
  keep: 'new, beside another',
} as const;

/** What no package carries has to be set at the destination: dates, visibility and review always, the rest by format. */
async function settingsSheet(transfer: TransferRow): Promise<SheetLine[]> {
  const said = await sourceTree(transfer);
  const sent = parsedSent(transfer);
  if (!said || !sent) return [];
  const ticked = new Set(sent.ticks.filter((t) => t.kind === 'quiz').map((t) => t.nodeId));
  const landings = transfer.plan ? (JSON.parse(transfer.plan) as Plan).landings : null;
  const arrival = parsedArrival(transfer);
  const lost = sent.findings.filter((f) => f.code === 'loss-settings');
  const out: SheetLine[] = [];
  for (const quiz of said.quizzes.filter((q) => ticked.has(q.id))) {
    const landing = landings?.find((l) => l.kind === 'quiz' && l.node === quiz.id) ?? null;
    if (landing?.action === 'skip' && landing.existing !== 'same') continue;
    const there =
      arrival?.landing?.outline.things.find((t) => t.id === arrival.landing?.landed[`quiz ${quiz.id}`]) ??
      null;
    const name = landing?.name ?? quiz.title ?? quiz.id;
    const add = (setting: string, value: string | null, found: boolean | null): void => {
      if (value !== null) out.push({ quiz: name, setting, value, found });
    };
    const { opens, closes } = landing ?? quiz.settings;
    add('opens', opens, there && there.opens === opens);
    add('closes', closes, there && there.closes === closes);
    add('answers may be reviewed', landing?.review ?? null, there && there.review === landing?.review);
    if (landing)
      add(
        'students',
        landing.hidden ? 'do not see it yet' : 'see it',
        there && there.hidden === landing.hidden,
      );
    const gone = lost.filter((f) => f.where.node === quiz.id).map((f) => String(f.params['what'] ?? ''));
    for (const what of gone) if (!/dates/u.test(what)) add('set by hand', what, null);
  }
  return out;
}

const iso = (at: number | null): string | null => (at === null ? null : new Date(at).toISOString());
