import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { finding, shownName, speak } from '@alforja/core';
import { MAX_UPLOAD } from '$lib/server/config';
import { storeStream, TooLarge } from '$lib/server/store/files';
import { bringIn, broughtPackages } from '$lib/server/library/packages';
import type { RequestHandler } from './$types';

const Query = z.object({ name: z.string().trim().min(1).max(255) });

export const GET: RequestHandler = async () => json(await broughtPackages());

/** Takes one file as the raw body, streamed to disk; `name` is the file's name. */
export const POST: RequestHandler = async ({ request, url }) => {
  const query = Query.safeParse(Object.fromEntries(url.searchParams));
  if (!query.success) error(400, 'Give the file’s name as ?name=');
  if (!request.body) error(400, 'The request has no body.');
  try {
    const stored = await storeStream(request.body as unknown as AsyncIterable<Uint8Array>, MAX_UPLOAD);
    if (stored.bytes === 0) error(400, speak(finding('file-empty', 'error', {})).message);
    return json(await bringIn(shownName(query.data.name.replace(/^.*[\\/]/su, '')), stored), { status: 201 });
  } catch (problem) {
    if (!(problem instanceof TooLarge)) throw problem;
    error(413, speak(finding('upload-too-large', 'error', {}, { limit: MAX_UPLOAD / 1024 / 1024 })).message);
  }
};
