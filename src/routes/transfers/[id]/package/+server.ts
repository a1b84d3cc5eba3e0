import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import { error } from '@sveltejs/kit';
import { storedPath } from '$lib/server/files';
import { parsedSent, transferById } from '$lib/server/services/transfers';
import type { RequestHandler } from './$types';

/** The package that was written, as a download. */
export const GET: RequestHandler = async ({ params }) => {
  const transfer = await transferById(params.id);
  const sent = transfer && parsedSent(transfer);
  if (!sent) error(404, 'Nothing has been written for this transfer yet.');
  return new Response(Readable.toWeb(createReadStream(storedPath(sent.sha256))) as ReadableStream, {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Length': String(sent.bytes),
      'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(sent.name)}`,
    },
  });
};
