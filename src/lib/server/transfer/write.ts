import { landingId, type Landing } from '@alforja/core';
import { TARGET_NAMES } from '../../shared/stages.ts';
import type { Plan, Sending, Sent, SentPart } from '../../shared/transfers.ts';
import { appliedEdits, sameEdits } from '../library/layers.ts';
import { ensureRead } from '../library/reading.ts';
import { write } from '../store/database.ts';
import { changeTransfer, type Transfer } from '../store/transfers.ts';
import type { WriteResult } from '../work/writing.ts';
import { currentPlan, makePlan, selectionOf, type TransferParts } from './plan.ts';
import { sendingError, type SendContext } from './sendContext.ts';
import { saysParts } from './says.ts';

/** Plans with both sides as they are now, writes the packages, and keeps them. */
export async function convert(context: SendContext): Promise<string> {
  // What was put right a moment ago goes too.
  await ensureRead((await context.transfer()).packageId, context.job);
  const parts = await context.parts();
  const plan = (await standingPlan(parts)) ?? (await makePlan(parts, context.job));
  const landings = judged(plan.landings, context.sending);
  const standing = landings.length > 0 && landings.every((l) => l.action === 'skip');
  if (plan.troubles.length > 0 && !standing)
    throw sendingError(`It cannot be sent like this. ${plan.troubles.join(' ')}`);
  const { only } = context.sending;
  const { transfer, file, takes, ticks, layer } = parts;
  const written = await context.job.work('write', {
    ...selectionOf(parts),
    file,
    landings,
    options: transfer.options,
    target: plan.target,
    takes,
    only: only && 'ticks' in only ? only.ticks : null,
  });
  if (!sameEdits(layer, await appliedEdits(transfer.packageId)))
    throw sendingError('What is sent was changed while it was being written. Send it again.');
  const files = namedParts(transfer.title, plan.target, written, takes.rubrics);
  const { items, points, findings } = written;
  const ticked = new Set(ticks.flatMap((t) => (t.kind === 'quiz' ? [t.nodeId] : [])));
  const quizzes = parts.source.tree.quizzes
    .filter((q) => ticked.has(q.id))
    .map(({ id, title, settings }) => ({ id, title, settings }));
  const sent: Sent = {
    parts: files,
    items,
    points,
    findings,
    target: plan.target,
    ticks,
    layer,
    quizzes,
    again: [],
  };
  await write((tx) =>
    changeTransfer(tx, context.id, (before) => ({
      ...sentAfter(before, sent, context.sending),
      plan: { ...plan, landings },
    })),
  );
  return saysParts(written, TARGET_NAMES[plan.target], plan.landings);
}

/** The plan as it was looked at, where nothing it rests on can have changed: a file has no destination of its own. */
const standingPlan = async ({ transfer, dest }: TransferParts): Promise<Plan | null> =>
  dest === null ? currentPlan(transfer) : null;

/** What this transfer has landed already is not sent again, nor what this sending is not about. */
export function judged(landings: readonly Landing[], { created, only }: Sending): Landing[] {
  const about = only && 'landings' in only ? only.landings : null;
  return landings.map((l) => {
    const ours = l.there !== null && created.includes(l.there);
    const aside = about !== null && !about.includes(landingId(l));
    return ours || aside ? { ...l, action: 'skip' as const } : l;
  });
}

/** The record of what was sent: the whole anew, or beside it what only a part of it was written for. */
function sentAfter(
  { sent: before }: Transfer,
  sent: Sent,
  { only, startedAt }: Sending,
): { sent: Sent; sentAt?: number } {
  if (only === null || before === null) return { sent, sentAt: Date.now() };
  const others = before.again.filter((a) => a.at !== startedAt);
  return {
    sent: {
      ...before,
      layer: sent.layer,
      quizzes: sent.quizzes,
      again: [...others, { at: startedAt, parts: sent.parts }],
    },
  };
}

/** What the files that were written are called. */
function namedParts(
  title: string,
  target: string,
  { packages, rubrics }: WriteResult,
  form: string | null,
): SentPart[] {
  const stem = fileName(title);
  const ending = target.startsWith('cc') ? 'imscc' : 'zip';
  const parts: SentPart[] = packages.map((kept, at) => ({
    ...kept,
    name: packages.length > 1 ? `${stem}-${at + 1}.${ending}` : `${stem}.${ending}`,
  }));
  if (rubrics) parts.push({ ...rubrics, name: `${stem}-rubrics.${form === 'csv' ? 'csv' : 'json'}` });
  return parts;
}

/** The longest name of a file, in characters, without its ending. */
const LONGEST_NAME = 60;

export const fileName = (title: string): string =>
  title
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|(?<!-)-+$/gu, '')
    .toLowerCase()
    .slice(0, LONGEST_NAME) || 'package';
