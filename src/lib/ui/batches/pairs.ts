import type { ThingKind } from '@alforja/core';
import type { CourseListing } from '$lib/shared/courses';
import { holds } from '../courses/holds';
import { plural } from '../format';

/** A pair of an old and a new course as the list shows it. */
export interface PairLine {
  readonly source: string;
  readonly name: string;
  readonly holds: string;
  /** Empty where the course is left out. */
  readonly dest: string;
  /** What is otherwise for this pair; null is as the plan says. */
  readonly kinds: readonly ThingKind[] | null;
}
export type PairChange = Partial<Pick<PairLine, 'dest' | 'kinds'>>;

interface Proposed {
  readonly source: CourseListing;
  readonly dest: string;
}
interface Given {
  readonly source: string;
  readonly dest: string;
}

/**
 * Pairs as proposed, or as a table that was dropped says; then by hand.
 * @param given null where no table was dropped
 */
export const pairLines = (
  proposed: readonly Proposed[],
  given: readonly Given[] | null,
  byHand: Readonly<Record<string, PairChange>>,
): PairLine[] =>
  proposed.map(({ source, dest }) => ({
    source: source.id,
    name: `${source.code} ${source.title}, section ${source.section}`,
    holds: `${holds(source)}; ${plural(source.items, 'question')}`,
    dest: given ? (given.find((p) => p.source === source.id)?.dest ?? '') : dest,
    kinds: null,
    ...byHand[source.id],
  }));

/** Pairs that have somewhere to go and something to bring. */
export const readyPairs = (lines: readonly PairLine[]): PairLine[] =>
  lines.filter((l) => l.dest !== '' && l.kinds?.length !== 0);

/** Destinations that two courses go to. */
export const takenTwice = (lines: readonly PairLine[]): ReadonlySet<string> =>
  new Set(lines.map((l) => l.dest).filter((d, at, all) => d !== '' && all.indexOf(d) !== at));

/** What can be said of one pair beside the plan for all. */
export const EXCEPTIONS: readonly { readonly value: string; readonly says: string }[] = [
  { value: '', says: 'as planned' },
  { value: 'quiz,bank', says: 'without links' },
  { value: 'bank', says: 'only banks' },
  { value: 'quiz', says: 'only quizzes, with what they need' },
  { value: 'none', says: 'leave this course out' },
];

export const exceptionOf = ({ kinds }: Pick<PairLine, 'kinds'>): string =>
  kinds === null ? '' : kinds.length === 0 ? 'none' : kinds.join(',');

export const kindsOf = (exception: string): ThingKind[] | null =>
  exception === '' ? null : exception === 'none' ? [] : (exception.split(',') as ThingKind[]);
