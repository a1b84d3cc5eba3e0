import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { MAX_VERSIONS, TARGETS } from '@alforja/core';
import { ofQuiz, QuizTrouble } from '$lib/server/library/quizzes';
import type { RequestHandler } from './$types';

const yes = z.literal('yes').optional();
const Asked = z.object({
  seed: z.string().max(200).default('1'),
  count: z.coerce.number().int().min(1).max(MAX_VERSIONS).default(1),
  form: z.enum([...TARGETS, 'docx', 'html']),
  version: z.string().max(10).optional(),
  sheet: z.enum(['paper', 'key']).default('paper'),
  size: z.enum(['A4', 'Letter']).default('A4'),
  large: yes,
  plain: yes,
  answers: yes,
  course: z.string().max(300).default(''),
  date: z.string().max(100).default(''),
});

const TYPES: Readonly<Record<string, string>> = {
  html: 'text/html; charset=utf-8',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
};

/** A version on paper or its key; without `version` all of them, with their keys, as an archive. */
export const GET: RequestHandler = async ({ params, url }) => {
  const asked = Asked.safeParse(Object.fromEntries(url.searchParams));
  if (!asked.success) error(400, 'That is not in the form expected.');
  const { seed, count, form, version, sheet, size, large, plain, answers, course, date } = asked.data;
  const made = await ofQuiz('quizPaper', {
    packageId: params.id,
    quizId: params.quiz,
    seed,
    count,
    form,
    only: version === undefined ? null : { version, sheet },
    style: { size, large: large === 'yes', plain: plain === 'yes', sheet: answers === 'yes' },
    head: { course, date },
  }).catch((problem: unknown) => {
    if (problem instanceof QuizTrouble) error(404, problem.message);
    throw problem;
  });
  const shown = version !== undefined && form === 'html';
  return new Response(new Uint8Array(made.bytes), {
    headers: {
      'Content-Type': (version === undefined ? undefined : TYPES[form]) ?? 'application/zip',
      // A page of a package is shown by itself, and can do nothing.
      'Content-Security-Policy':
        "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox allow-modals",
      'Cache-Control': 'no-store',
      ...(shown
        ? {}
        : { 'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(made.name)}` }),
    },
  });
};
