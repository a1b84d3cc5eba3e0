import { error } from '@sveltejs/kit';
import { fileStem } from '@alforja/core';
import { NotTaken } from '$lib/server/library/putRight';
import { sheetFile } from '$lib/server/library/sheet';
import { packageFile } from '$lib/server/store/packages';
import type { RequestHandler } from './$types';

const TYPES = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
} as const;

/** The sheet as a workbook or CSV. */
export const GET: RequestHandler = async ({ params }) => {
  const form = params.form === 'csv' || params.form === 'xlsx' ? params.form : null;
  const held = await packageFile(params.id);
  if (!held || form === null) error(404, 'There is no such sheet.');
  const bytes = await sheetFile(params.id, form).catch((problem: unknown) => {
    if (problem instanceof NotTaken) error(404, problem.message);
    throw problem;
  });
  const name = encodeURIComponent(`${fileStem(held.name)}-items.${form}`);
  return new Response(new Uint8Array(bytes), {
    headers: { 'Content-Type': TYPES[form], 'Content-Disposition': `attachment; filename*=UTF-8''${name}` },
  });
};
