import { error, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { LINE_STATES } from '$lib/shared/transfers';
import { transferLines } from '$lib/server/transfer/lines';
import { startTransfer } from '$lib/server/transfer/start';
import type { Actions, PageServerLoad } from './$types';

const day = z.iso.date().optional().catch(undefined);
const Filter = z.object({
  q: z.string().max(200).catch(''),
  from: day,
  to: day,
  state: z.enum(LINE_STATES).nullable().catch(null),
  sort: z.enum(['begun', '-begun', 'title', '-title', 'state', '-state', 'from', '-from']).catch('-begun'),
});

export const load: PageServerLoad = async ({ url }) => {
  const { q, from, to, state, sort } = Filter.parse({
    q: '',
    state: null,
    sort: '-begun',
    ...Object.fromEntries(url.searchParams),
  });
  const lines = await transferLines({ query: q, ...(from ? { from } : {}), ...(to ? { to } : {}) });
  return { query: q, from: from ?? '', to: to ?? '', state, sort, lines };
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
