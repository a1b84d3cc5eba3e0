import { error } from '@sveltejs/kit';
import { isRubricTarget, rubricAt, rubricFile } from '$lib/server/services/rubrics';
import type { RequestHandler } from './$types';

const FILES = { 'case1.0': ['json', 'application/json'], csv: ['csv', 'text/csv; charset=utf-8'], xlsx: ['xlsx', 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'], html: ['html', 'text/html; charset=utf-8'] } as const; // prettier-ignore

/** One rubric as a file of the format asked for. */
export const GET: RequestHandler = async ({ params, url }) => {
  const target = url.searchParams.get('to') ?? '';
  if (!isRubricTarget(target)) error(400, 'Choose one of case1.0, csv, xlsx, html.');
  const held = await rubricAt(params.package, params.rubric);
  if (!held) error(404, 'There is no such rubric.');
  const { bytes } = await rubricFile(held.rubric, target);
  const [ending, type] = FILES[target];
  const name = (held.rubric.title || 'rubric').replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 60);
  return new Response(Buffer.from(bytes), {
    headers: {
      'Content-Type': type,
      'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.${ending}`)}`,
      'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'",
    },
  });
};
