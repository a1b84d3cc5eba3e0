import { error } from '@sveltejs/kit';
import { speak } from '@alforja/core';
import { itemRows, listPackages, packageById } from '$lib/server/services/packages';
import { transfersOf } from '$lib/server/services/transfers';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const held = await packageById(params.id);
  if (!held) error(404, 'There is no such package.');
  const { tree, ...listing } = held;
  return {
    held: listing,
    tree,
    rows: tree ? await itemRows(params.id, tree) : [],
    spoken: tree ? tree.findings.map(speak) : [],
    transfers: await transfersOf(params.id),
    others: (await listPackages(50)).filter((p) => p.id !== params.id && p.state === 'ready'),
  };
};
