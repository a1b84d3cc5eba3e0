import { fail, redirect } from '@sveltejs/kit';
import Papa from 'papaparse';
import { THING_KINDS } from '@alforja/core';
import { z } from 'zod';
import { courseNamed } from '$lib/server/library/courses';
import { refreshSystems } from '$lib/server/library/systems';
import { allCourses } from '$lib/server/store/courses';
import { proposePairs, startBatch } from '$lib/server/transfer/batches';
import { DEFAULT_OPTIONS } from '$lib/shared/transfers';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url }) => {
  await refreshSystems();
  const courses = await allCourses();
  const terms = [...new Map(courses.map((c) => [c.term, c.termStart])).entries()]
    .sort((a, b) => b[1].localeCompare(a[1]))
    .map(([t]) => t);
  const to = url.searchParams.get('to') ?? terms[0] ?? '';
  const from = url.searchParams.get('from') ?? terms.find((t) => t !== to) ?? '';
  const pairs = await proposePairs(from, to);
  return {
    terms,
    from,
    to,
    pairs: pairs.map((p) => ({ source: p.source, dest: p.dest?.id ?? '' })),
    destinations: courses.filter((c) => c.term === to && c.mayChange),
  };
};

const Kinds = z.array(z.enum(THING_KINDS));
const Start = z.object({
  title: z.string().trim().min(1, 'Give the batch a name.').max(200),
  kinds: Kinds.min(1, 'Choose at least one kind of thing to bring.'),
  onVersion: z.enum(['replace', 'keep', 'skip']),
  byPosition: z.boolean(),
  pairs: z
    .array(z.object({ source: z.string(), dest: z.string().min(1), kinds: Kinds.nullable() }))
    .min(1, 'No pair of courses is left.')
    .max(2000),
});
const MAX_CSV = 2_000_000;

export const actions: Actions = {
  /** Pairs from a table: two columns, each naming a course by its identifier or by code, section and term. */
  csv: async ({ request }) => {
    const file = (await request.formData()).get('file');
    if (!(file instanceof File) || file.size === 0) return fail(400, { message: 'Choose a CSV file.' });
    if (file.size > MAX_CSV)
      return fail(400, { message: `${file.name} is over 2 MB: that is no list of pairs.` });
    const { data } = Papa.parse<string[]>((await file.text()).replace(/^\uFEFF/u, ''), {
      skipEmptyLines: true,
    });
    const all = await allCourses();
    const pairs: { source: string; dest: string }[] = [];
    const wrong: string[] = [];
    for (const [at, cells] of data.entries()) {
      const [a = '', b = ''] = cells;
      if (at === 0 && /^(?:from|old|source)$/iu.test(a.trim())) continue;
      const [source, dest] = [courseNamed(all, a), courseNamed(all, b)];
      if (source && dest) pairs.push({ source: source.id, dest: dest.id });
      else
        wrong.push(
          `${file.name}, line ${at + 1}: ${[source ? '' : `“${a}”`, dest ? '' : `“${b}”`].filter(Boolean).join(' and ')} is no course in sight. Write “code section term”, as in “NAV 205 01 Spring 2026”.`,
        );
    }
    return { csv: pairs, wrong };
  },
  start: async ({ request }) => {
    const said = (await request.formData()).get('batch');
    let given: unknown;
    try {
      given = JSON.parse(String(said));
    } catch {
      return fail(400, { message: 'The batch is not in the form expected.' });
    }
    const body = Start.safeParse(given);
    if (!body.success) return fail(400, { message: body.error.issues[0]!.message });
    const { title, kinds, onVersion, byPosition, pairs } = body.data;
    const id = await startBatch(
      title,
      { kinds, options: { ...DEFAULT_OPTIONS, onVersion, byPosition } },
      pairs.map((p) => ({ ...p, exception: p.kinds === null ? null : { kinds: p.kinds } })),
    );
    redirect(303, `/batches/${id}`);
  },
};
