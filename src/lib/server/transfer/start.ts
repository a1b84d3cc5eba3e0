import { landingId, type LandingOverride, type Tick } from '@alforja/core';
import type { CourseListing } from '../../shared/courses.ts';
import { DEFAULT_OPTIONS, type TransferOptions } from '../../shared/transfers.ts';
import { courseById } from '../store/courses.ts';
import { write, type Transaction } from '../store/database.ts';
import { latestSnapshot } from '../store/snapshots.ts';
import { sameTicks, setTicks, ticksOf } from '../store/ticks.ts';
import { insertTransfer, transferById, unsentDraft, type TransferChange } from '../store/transfers.ts';
import { allTicks, sourceOf } from './source.ts';

export type From = { readonly courseId: string } | { readonly packageId: string };
/** A course by its id; null is a file to keep or to mail. */
export type To = string | null;

interface Over {
  /** Nothing said: everything for a file, nothing for a course. */
  readonly ticks?: readonly Tick[];
  /** Everything in it was chosen before: all of it is ticked. */
  readonly all?: boolean;
  readonly options?: TransferOptions;
  readonly batchId?: string;
  /** Does more in the change that makes the transfer. */
  readonly also?: (tx: Transaction, id: string) => Promise<unknown>;
  readonly overrides?: TransferChange['overrides'];
  /** Items and assignments of the destination that the rubrics which go are attached to. */
  readonly attach?: readonly string[];
}

/**
 * Starts a transfer from a course (of which there is a snapshot) or a package in hand.
 * @returns its id, or null where the source has not been read or the destination is not listed
 */
export async function startTransfer(from: From, to: To, over: Over = {}): Promise<string | null> {
  const taken = 'courseId' in from ? await latestSnapshot(from.courseId) : null;
  const packageId = 'courseId' in from ? taken?.packageId : from.packageId;
  const source = packageId ? await sourceOf({ packageId, sourceSnapshot: taken?.id ?? null }) : null;
  const dest = to === null ? null : await courseById(to);
  if (!source || (to !== null && !dest)) return null;
  const course = 'courseId' in from ? await courseById(from.courseId) : null;
  const there = to === null ? null : await latestSnapshot(to);
  const name = course ? `${course.title}, ${course.term}` : source.tree.title || source.package.name;
  // Into a course nothing goes unasked, but for rubrics that somebody brings alone, what was made here to go there, and
  // test banks that came as documents: somebody has just put them together.
  const alone = (source.package.summary?.items ?? 0) === 0 && source.tree.rubrics.length > 0 && !course;
  const made = source.package.cameBy === 'made' || source.tree.documents !== undefined || over.all === true;
  const ticks = over.ticks ?? (to === null || alone || made ? await allTicks(source) : []);
  const overrides = over.attach ? attached(ticks, over.attach) : over.overrides;
  return write(async (tx) => {
    // A draft that was begun and never sent is gone on with: pressing twice makes one.
    const place = {
      packageId: source.package.id,
      sourceCourse: 'courseId' in from ? from.courseId : null,
      destCourse: to,
    };
    const draft = over.batchId || overrides ? null : await unsentDraft(tx, place);
    if (draft !== null && (!over.ticks || sameTicks(over.ticks, await ticksOf(draft, tx)))) return draft;
    const id = await insertTransfer(tx, {
      title: dest ? `${name} → ${destinationName(dest, course)}` : name,
      ...place,
      target: 'qti2.1',
      // A file has one format from the start; into a course goes the one that loses least.
      targetChosen: to === null,
      sourceSnapshot: taken?.id ?? null,
      destSnapshot: there?.id ?? null,
      options: over.options ?? DEFAULT_OPTIONS,
      batchId: over.batchId ?? null,
      ...(overrides ? { overrides } : {}),
    });
    await setTicks(tx, id, ticks);
    await over.also?.(tx, id);
    return id;
  });
}

/** Every rubric that goes, attached to the same. */
const attached = (ticks: readonly Tick[], to: readonly string[]): Record<string, LandingOverride> =>
  Object.fromEntries(
    ticks
      .filter((t) => t.kind === 'rubric')
      .map((t) => [landingId({ kind: 'rubric', node: t.nodeId }), { attach: to }]),
  );

const destinationName = (to: CourseListing, from: CourseListing | null): string =>
  `${from?.title === to.title ? '' : `${to.title}, `}${to.term}, section ${to.section}`;

/** The same choice into another course: from a practice course into the real one, mostly. */
export async function startAgain(id: string, destCourse: string): Promise<string | null> {
  const transfer = await transferById(id);
  if (!transfer) return null;
  const from = transfer.sourceCourse
    ? { courseId: transfer.sourceCourse }
    : { packageId: transfer.packageId };
  // Names and dates set by hand go along; sections and what is there already are another course's.
  const overrides = Object.fromEntries(
    Object.entries(transfer.overrides).map(([key, change]) => [key, travellingPart(change)]),
  );
  return startTransfer(from, destCourse, {
    ticks: await ticksOf(id),
    options: transfer.options,
    overrides,
  });
}

function travellingPart({ name, opens, closes, hidden }: LandingOverride): LandingOverride {
  return {
    ...(name === undefined ? {} : { name }),
    ...(opens === undefined ? {} : { opens }),
    ...(closes === undefined ? {} : { closes }),
    ...(hidden === undefined ? {} : { hidden }),
  };
}
