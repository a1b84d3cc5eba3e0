import { cut } from '@alforja/core';
import type { Waiting } from '../../shared/desk.ts';
import { WAITING_SORTS } from '../../shared/desk.ts';
import { many } from '../../shared/many.ts';
import type { TransferLine } from '../../shared/transfers.ts';
import type { PackageListing } from '../../shared/types.ts';
import type { SystemView } from '../../shared/courses.ts';
import { OWN, rubricsBehind } from '../library/heldRubrics.ts';
import { broughtPackages } from '../library/packages.ts';
import { listSystems } from '../store/systems.ts';
import { transferLines } from './lines.ts';

/** What waits for a person, in the order in which it matters. */

const LONGEST_SAID = 140;

function ofLine(line: TransferLine): Waiting[] {
  const at = line.lastAt;
  const batch = line.kind === 'batch';
  const home = batch ? `/batches/${line.id}` : `/transfers/${line.id}`;
  const said = { name: line.title, at } as const;
  switch (line.state) {
    case 'stopped':
      return [
        {
          ...said,
          sort: batch ? 'batch' : 'stopped',
          says: cut(line.trouble ?? 'it stopped', LONGEST_SAID),
          next: batch ? 'Open the batch' : 'See why and go on',
          href: batch ? home : `${home}/send`,
        },
      ];
    case 'open':
      return [
        {
          ...said,
          sort: batch ? 'batch' : 'open',
          says: `${many(line.open, 'difference')} to decide`,
          next: batch ? 'Open the batch' : 'Decide',
          href: batch ? home : `${home}/arrival`,
        },
      ];
    case 'sent':
      return [
        {
          ...said,
          sort: 'unchecked',
          says: 'sent, and nobody has checked what arrived',
          next: 'Check the arrival',
          href: `${home}/arrival`,
        },
      ];
    case 'draft':
      return [
        { ...said, sort: 'draft', says: 'begun and not sent', next: 'Continue', href: `${home}/contents` },
      ];
    default:
      return [];
  }
}

function ofPackage({ id, name, state, failure, summary, broughtAt, settledAt }: PackageListing): Waiting[] {
  const said = { name, at: broughtAt } as const;
  if (state === 'failed')
    return [
      {
        ...said,
        sort: 'unread',
        says: cut(failure?.message ?? 'it could not be read', LONGEST_SAID),
        next: 'See why',
        href: `/packages/${id}`,
      },
    ];
  if (!summary || settledAt !== null || summary.errors + summary.warnings === 0) return [];
  const counts = [
    summary.errors > 0 ? many(summary.errors, 'error') : '',
    summary.warnings > 0 ? many(summary.warnings, 'warning') : '',
  ];
  return [
    {
      ...said,
      sort: 'findings',
      says: `${counts.filter((c) => c !== '').join(' and ')} found on reading`,
      next: 'Go through them',
      href: `/packages/${id}?in=findings:decide`,
    },
  ];
}

const ofSystem = ({ name, trouble }: SystemView): Waiting[] =>
  trouble === null
    ? []
    : [{ sort: 'system', name, says: trouble, next: 'Open systems', href: '/systems', at: null }];

const ofRubric = ({ id, title, at }: { id: string; title: string; at: number }): Waiting => ({
  sort: 'behind',
  name: title,
  says: 'its original has changed',
  next: 'See what changed',
  href: `/rubrics/${OWN}/${encodeURIComponent(id)}`,
  at,
});

/** Everything that waits: what stopped first, findings last; within one sort the newest first. */
export async function whatWaits(): Promise<Waiting[]> {
  const [lines, packages, systems, rubrics] = await Promise.all([
    transferLines(),
    broughtPackages(),
    listSystems(),
    rubricsBehind(),
  ]);
  const all = [
    ...lines.flatMap(ofLine),
    ...packages.flatMap(ofPackage),
    ...systems.flatMap(ofSystem),
    ...rubrics.map(ofRubric),
  ];
  const order = new Map(WAITING_SORTS.map((sort, at) => [sort, at]));
  return all.sort((a, b) => order.get(a.sort)! - order.get(b.sort)! || (b.at ?? 0) - (a.at ?? 0));
}
