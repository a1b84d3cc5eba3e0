import { fail } from '@sveltejs/kit';
import { z } from 'zod';
import { MEANINGS, ReadingRule } from '@alforja/core';
import { changeRule, confirmRule, removeRule } from '$lib/server/library/readingRules';
import { listRules } from '$lib/server/store/readingRules';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ rules: await listRules() });

const Change = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1, 'Give the rule a name.').max(200),
  means: z.enum(MEANINGS),
});
const One = z.object({ id: z.uuid() });

export const actions: Actions = {
  confirm: async ({ request }) => {
    const form = ReadingRule.safeParse(Object.fromEntries(await request.formData()));
    if (!form.success) return fail(400, { message: 'The reading is not complete.' });
    await confirmRule(form.data);
  },
  change: async ({ request }) => {
    const form = Change.safeParse(Object.fromEntries(await request.formData()));
    if (!form.success) return fail(400, { message: form.error.issues[0]!.message });
    if (!(await changeRule(form.data.id, form.data))) return fail(404, { message: 'There is no such rule.' });
  },
  remove: async ({ request }) => {
    const form = One.safeParse(Object.fromEntries(await request.formData()));
    if (!form.success || !(await removeRule(form.data.id)))
      return fail(404, { message: 'There is no such rule.' });
  },
};
