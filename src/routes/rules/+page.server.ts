import { fail } from '@sveltejs/kit';
import { z } from 'zod';
import { MEANINGS, ReadingRule, RulesFile } from '@alforja/core';
import {
  changeRule,
  confirmRule,
  removeLayout,
  removeRule,
  renameLayout,
  takeRules,
} from '$lib/server/library/readingRules';
import { listKnownLayouts } from '$lib/server/store/knownLayouts';
import { listRules } from '$lib/server/store/readingRules';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({
  rules: await listRules(),
  layouts: await listKnownLayouts(),
});

const Change = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1, 'Give the rule a name.').max(200),
  means: z.enum(MEANINGS),
});
const One = z.object({ id: z.uuid() });
const Name = One.extend({ name: z.string().trim().min(1, 'Give the layout a name.').max(200) });
/** A file of rules is short; a longer one is none. */
const MAX_FILE = 4_000_000;

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
  rename: async ({ request }) => {
    const form = Name.safeParse(Object.fromEntries(await request.formData()));
    if (!form.success) return fail(400, { message: form.error.issues[0]!.message });
    if (!(await renameLayout(form.data.id, form.data.name)))
      return fail(404, { message: 'There is no such layout.' });
  },
  forget: async ({ request }) => {
    const form = One.safeParse(Object.fromEntries(await request.formData()));
    if (!form.success || !(await removeLayout(form.data.id)))
      return fail(404, { message: 'There is no such layout.' });
  },
  take: async ({ request }) => {
    const file = (await request.formData()).get('file');
    if (!(file instanceof File) || file.size === 0) return fail(400, { message: 'Choose a file of rules.' });
    if (file.size > MAX_FILE)
      return fail(400, { message: `${file.name} is no file of rules; it is too large.` });
    const said = parsed(await file.text());
    if (typeof said === 'string')
      return fail(400, { message: `${file.name} cannot be used: ${said}. Nothing was changed.` });
    return { taken: await takeRules(said) };
  },
};

/** A file of rules, or why it is none. */
function parsed(text: string): RulesFile | string {
  let body: unknown;
  try {
    body = JSON.parse(text.replace(/^\uFEFF/u, ''));
  } catch (error) {
    return `it is no JSON (${(error as Error).message})`;
  }
  const file = RulesFile.safeParse(body);
  if (file.success) return file.data;
  const [issue] = file.error.issues;
  return [issue?.path.join('.') ?? '', issue?.message ?? ''].filter((t) => t !== '').join(': ');
}
