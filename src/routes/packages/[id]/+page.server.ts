import { error } from '@sveltejs/kit';
import { speak } from '@alforja/core';
import { broughtPackages, itemRows } from '$lib/server/library/packages';
import { packageById } from '$lib/server/store/packages';
import { transfersOf } from '$lib/server/store/transfers';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const held = await packageById(params.id);
  if (!held) error(404, 'There is no such package.');
  const { tree, ...listing } = held;
  return {
    held: listing,
    tree,
    rows: await itemRows(held),
    spoken: tree ? tree.findings.map(speak) : [],
    transfers: await transfersOf(params.id),
    others: (await broughtPackages(50)).filter((p) => p.id !== params.id && p.state === 'ready'),
  };
};
