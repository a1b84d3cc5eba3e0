import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import {
  changeRubric,
  makeIndependent,
  removeRubric,
  RubricContent,
  RubricTrouble,
  takeChange,
} from '$lib/server/library/ownRubrics';
import { isRubricTarget, OWN, rubricFile } from '$lib/server/library/heldRubrics';
import type { RequestHandler } from './$types';

const FILES = {
  'case1.0': ['json', 'application/json'],
  csv: ['csv', 'text/csv; charset=utf-8'],
  xlsx: ['xlsx', 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'],
  html: ['html', 'text/html; charset=utf-8'],
} as const;

/** One rubric as a file of the format asked for. */
export const GET: RequestHandler = async ({ params, url }) => {
  const target = url.searchParams.get('to') ?? '';
  if (!isRubricTarget(target)) error(400, 'Choose one of case1.0, csv, xlsx, html.');
  const file = await rubricFile([{ place: params.place, rubric: params.rubric }], target);
  if (!file) error(404, 'There is no such rubric.');
  const [ending, type] = FILES[target];
  const name = (file.title || 'rubric').replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 60);
  return new Response(Buffer.from(file.bytes), {
    headers: {
      'Content-Type': type,
      'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.${ending}`)}`,
      'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'",
    },
  });
};

/** Sources are never altered: what is changed is a copy. */
const mine = (place: string): void => {
  if (place !== OWN) error(409, 'That is kept as it came. Make a copy, and change that.');
};

/** Keeps what was changed of a rubric of one's own. */
export const PUT: RequestHandler = async ({ params, request }) => {
  mine(params.place);
  const body = RubricContent.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, body.error.issues[0]!.message);
  const refused = await changeRubric(params.rubric, body.data);
  if (refused !== null) error(409, refused);
  return json({});
};

const Command = z.object({ do: z.enum(['take', 'independent']) });

/** Takes over a change of the original, or makes a follower independent. */
export const POST: RequestHandler = async ({ params, request }) => {
  mine(params.place);
  const body = Command.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'That cannot be asked of a rubric.');
  const done = await (body.data.do === 'take' ? takeChange : makeIndependent)(params.rubric).catch(
    (problem: unknown) => {
      if (problem instanceof RubricTrouble) error(409, problem.message);
      throw problem;
    },
  );
  if (!done) error(409, 'It does not follow another rubric that is still there.');
  return json({});
};

export const DELETE: RequestHandler = async ({ params }) => {
  mine(params.place);
  if (!(await removeRubric(params.rubric))) error(404, 'There is no such rubric.');
  return json({});
};
