import { error } from '@sveltejs/kit';
import { speak } from '@alforja/core';
import { nobodyReads } from '$lib/server/library/reading';
import { roomView } from '$lib/server/library/room';
import { packageById } from '$lib/server/store/packages';
import { transfersOf } from '$lib/server/store/transfers';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const held = await packageById(params.id);
  if (!held) error(404, 'There is no such package.');
  const { tree, readingId, ...listing } = held;
  const rubricsOnly = tree !== null && (tree.rubrics.length > 0 || isTable(tree.format.container));
  const alone = rubricsOnly && (held.summary?.items ?? 0) === 0;
  return {
    held: listing,
    /** Nothing reads it that would have it read: that was broken off. */
    idle: held.state === 'reading' && (await nobodyReads()),
    reading: readingId,
    room: alone ? null : await roomView(held),
    rubrics: alone ? { rubrics: tree.rubrics, tabular: isTable(tree.format.container) } : null,
    spoken: alone ? tree.findings.map(speak) : [],
    transfers: await transfersOf(params.id),
  };
};

const isTable = (container: string): boolean => container === 'csv' || container === 'xlsx';
