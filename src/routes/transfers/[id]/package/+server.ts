import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { Refusal, speak } from '@alforja/core';
import { storedPath, verifyStored } from '$lib/server/store/files';
import { transferById } from '$lib/server/store/transfers';
import type { RequestHandler } from './$types';

const Part = z.coerce.number().int().min(1).max(1000).catch(1);

/** The package that was written, as a download; `part` is the place in a series, from 1. */
export const GET: RequestHandler = async ({ params, url }) => {
  const transfer = await transferById(params.id);
  const sent = transfer?.sent;
  if (!sent) error(404, 'Nothing has been written for this transfer yet.');
  const part = [...sent.parts, ...sent.again.flatMap((a) => a.parts)][
    Part.parse(url.searchParams.get('part') ?? 1) - 1
  ];
  if (!part) error(404, 'The series has no such part.');
  await verifyStored(part.sha256).catch((problem: unknown) => {
    if (problem instanceof Refusal) error(500, speak(problem.finding).message);
    throw problem;
  });
  return new Response(Readable.toWeb(createReadStream(storedPath(part.sha256))) as ReadableStream, {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Length': String(part.bytes),
      'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(part.name)}`,
    },
  });
};
