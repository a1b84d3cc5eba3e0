import { error } from '@sveltejs/kit';
import { packageFileBytes } from '$lib/server/library/dataFiles';
import type { RequestHandler } from './$types';

/** What may be shown in a page, by the bytes it starts with; everything else is offered as a download. */
const SIGNATURES: readonly [string, readonly number[]][] = [
  ['image/png', [0x89, 0x50, 0x4e, 0x47]],
  ['image/jpeg', [0xff, 0xd8, 0xff]],
  ['image/gif', [0x47, 0x49, 0x46, 0x38]],
  ['image/webp', [0x52, 0x49, 0x46, 0x46]],
  ['audio/mpeg', [0x49, 0x44, 0x33]],
];

export const GET: RequestHandler = async ({ params, url }) => {
  const path = url.searchParams.get('path') ?? '';
  const bytes = await packageFileBytes(params.id, path);
  if (!bytes) error(404, 'The package has no such file.');
  const type = SIGNATURES.find(([, start]) => start.every((byte, at) => bytes[at] === byte))?.[0];
  return new Response(new Uint8Array(bytes), {
    headers: {
      'Content-Type': type ?? 'application/octet-stream',
      'Content-Security-Policy': "default-src 'none'; sandbox",
      'Cache-Control': 'private, max-age=3600',
      ...(type ? {} : { 'Content-Disposition': 'attachment' }),
    },
  });
};
