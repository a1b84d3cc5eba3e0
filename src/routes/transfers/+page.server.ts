import { error, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { listTransfers, startTransfer } from '$lib/server/services/transfers';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ transfers: await listTransfers() });

const Start = z.object({ package: z.uuid() });

export const actions: Actions = {
  start: async ({ request }) => {
    const form = Start.safeParse(Object.fromEntries(await request.formData()));
    const id = form.success ? await startTransfer(form.data.package) : null;
    if (!id) error(400, 'The package is not read yet, or is gone.');
    redirect(303, `/transfers/${id}/contents`);
  },
};
