import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { Edit, MAX_EDITS, MAX_TEXT } from '@alforja/core';
import { asItCame, historyOf, NotTaken, putRight, undoOrRedo } from '$lib/server/library/putRight';
import { packageFile } from '$lib/server/store/packages';
import { EDIT_WAYS } from '$lib/shared/edits';
import type { RequestHandler } from './$types';

const Step = z.object({ way: z.enum(EDIT_WAYS), edits: z.array(z.unknown()).min(1).max(MAX_EDITS) });
const Again = z.object({ do: z.enum(['undo', 'redo']) });
const Came = z.object({
  do: z.literal('as-it-came'),
  node: z.string().min(1).max(2000),
  part: z.string().max(4100).optional(),
});

/** What was put right in a package, step by step. */
export const GET: RequestHandler = async ({ params }) => {
  if (!(await packageFile(params.id))) error(404, 'There is no such package.');
  return json(await historyOf(params.id));
};

/** Adds edits as one step, undoes or redoes the last one, or takes back all changes of one thing. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body: unknown = await request.json().catch(() => null);
  if (!(await packageFile(params.id))) error(404, 'There is no such package.');
  const again = Again.safeParse(body);
  if (again.success) {
    if (!(await undoOrRedo(params.id, again.data.do))) error(409, `There is nothing to ${again.data.do}.`);
    return json({});
  }
  const came = Came.safeParse(body);
  if (came.success) {
    if (!(await asItCame(params.id, came.data.node, came.data.part))) error(409, 'It is as it came already.');
    return json({});
  }
  const step = Step.safeParse(body);
  if (!step.success) error(400, `Send 1 to ${MAX_EDITS} edits, and where they were made ("way").`);
  const edits = step.data.edits.map((given, at) => {
    const parsed = Edit.safeParse(given);
    if (!parsed.success) {
      const [issue] = parsed.error.issues;
      error(400, `Edit ${at + 1} is no edit: ${[...(issue?.path ?? []), issue?.message].join(': ')}`);
    }
    if (longest(parsed.data) > MAX_TEXT)
      error(400, `A text of edit ${at + 1} is longer than ${MAX_TEXT} characters. Nothing was changed.`);
    return parsed.data;
  });
  try {
    return json({ id: await putRight(params.id, { way: step.data.way, edits }) }, { status: 201 });
  } catch (problem) {
    if (problem instanceof NotTaken) error(400, problem.message);
    throw problem;
  }
};

/** The longest text that an edit wants to have; files are no texts. */
function longest(edit: Edit): number {
  const to: unknown = 'to' in edit && edit.op !== 'file-put' ? edit.to : '';
  const texts = (value: unknown): number =>
    typeof value === 'string'
      ? value.length
      : typeof value === 'object' && value !== null
        ? Math.max(0, ...Object.values(value).map(texts))
        : 0;
  return texts(to);
}
