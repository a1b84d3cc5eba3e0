import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { DocumentTrouble, rememberDocument } from '$lib/server/library/documents';
import { packageFile } from '$lib/server/store/packages';
import type { RequestHandler } from './$types';

const Command = z.object({
  do: z.literal('remember'),
  path: z.string().min(1).max(2000),
  name: z.string().trim().min(1, 'Give the layout a name.').max(200),
});

/** Remembers how a document of questions is laid out. */
export const POST: RequestHandler = async ({ params, request }) => {
  if (!(await packageFile(params.id))) error(404, 'There is no such package.');
  const command = Command.safeParse(await request.json().catch(() => null));
  if (!command.success) error(400, command.error.issues[0]!.message);
  try {
    const { path, name } = command.data;
    if (!(await rememberDocument(params.id, path, name))) error(404, 'That document is not in the file.');
  } catch (problem) {
    if (problem instanceof DocumentTrouble) error(400, problem.message);
    throw problem;
  }
  return json({});
};
