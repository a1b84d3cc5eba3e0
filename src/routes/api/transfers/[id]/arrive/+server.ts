import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { receive, type ReceiveRefusal } from '$lib/server/transfer/receive';
import type { RequestHandler } from './$types';

const Body = z.object({ packageId: z.uuid() });
const REFUSALS: Readonly<Record<ReceiveRefusal, readonly [status: number, words: string]>> = {
  unknown: [404, 'There is no such transfer or package.'],
  course: [409, 'What arrives in a course is read back from there; no file has to be dropped.'],
  'being-written': [409, 'The package is still being written. Drop the file again in a moment.'],
};

/** Takes a package as what arrived. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'Name the package that arrived.');
  const refusal = await receive(params.id, body.data.packageId);
  if (refusal !== null) error(...REFUSALS[refusal]);
  return json({ ok: true }, { status: 202 });
};
