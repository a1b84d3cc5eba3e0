import { error, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { listTransfers } from '$lib/server/store/transfers';
import { startTransfer } from '$lib/server/transfer/start';
import type { Actions, PageServerLoad } from './$types';

const day = z.iso.date().optional().catch(undefined);
const Filter = z.object({ q: z.string().max(200).catch(''), from: day, to: day });

export const load: PageServerLoad = async ({ url }) => {
  const { q, from, to } = Filter.parse({
    q: url.searchParams.get('q') ?? '',
    from: url.searchParams.get('from') ?? undefined,
    to: url.searchParams.get('to') ?? undefined,
  });
  return {
    query: q,
    from: from ?? '',
    to: to ?? '',
    transfers: await listTransfers(200, { query: q, ...(from ? { from } : {}), ...(to ? { to } : {}) }),
  };
};

const Start = z.object({ package: z.uuid() });

export const actions: Actions = {
  start: async ({ request }) => {
    const form = Start.safeParse(Object.fromEntries(await request.formData()));
    const id = form.success ? await startTransfer({ packageId: form.data.package }, null) : null;
    if (!id) error(400, 'The package is not read yet, or is gone.');
    redirect(303, `/transfers/${id}/contents`);
  },
};
