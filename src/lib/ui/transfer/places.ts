import type { Landing } from '@alforja/core';
import { TARGET_NAMES, type TargetName } from '$lib/shared/stages';
import type { CourseListing } from '$lib/shared/courses';
import type { Destination, TransferState } from '$lib/shared/transfers';
import type { PackageListing } from '$lib/shared/types';
import { formatName, plural } from '../format';

/** "Tides (NAV 205), section 01, Spring 2026, Quayside". */
export const courseSays = (c: CourseListing): string =>
  `${c.title} (${c.code}), section ${c.section}, ${c.term}, ${c.system}`;

/** Where a transfer goes, in words. */
export function destinationSays(to: Destination): string {
  if (to.kind === 'file') return 'a file to keep or to mail';
  return to.course ? courseSays(to.course) : 'a course no longer listed';
}

/** Whether a thing that is not sent is not sent because the same is there. */
export const sameThere = (l: Pick<Landing, 'existing'>): boolean => l.existing === 'same';

/** Why nothing goes at all, where everything stays. */
export function stayingSays(staying: readonly Pick<Landing, 'existing'>[]): string {
  const same = staying.filter(sameThere).length;
  if (same === staying.length) return 'nothing: everything is already there';
  const others = staying.length - same;
  const left = `${plural(others, 'thing')} left out at the landing`;
  return same === 0 ? `nothing: ${left}` : `nothing: ${plural(same, 'thing')} there already, ${left}`;
}

/** Where a transfer goes, in a few words: above a column of what arrived. */
export function destinationShort(to: Destination, arrived: PackageListing | null): string {
  if (to.kind === 'course' && to.course) return `${to.course.title}, ${to.course.system}`;
  return arrived?.name ?? '';
}

/** The whole trip in one line: from where, to where. */
export function placesSay({ from, to }: TransferState, source: PackageListing, target: TargetName): string {
  const format = source.summary ? ` (${formatName(source.summary.format)})` : '';
  const here = from ? `${from.title}, ${from.term}, ${from.system}` : `${source.name}${format}`;
  if (to.kind === 'file') return `${here} → ${TARGET_NAMES[target]}`;
  const { course } = to;
  const there = course
    ? `${course.title}, section ${course.section}, ${course.term}, ${course.system}`
    : 'a course no longer listed';
  return `${here} → ${there}`;
}
