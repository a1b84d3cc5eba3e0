import { rulesFile } from '$lib/server/library/readingRules';
import type { RequestHandler } from './$types';

/** The rules as a file, for the command line's --rules and for other installations. */
export const GET: RequestHandler = async () =>
  new Response(`${JSON.stringify(await rulesFile(), null, 2)}\n`, {
    headers: {
      'Content-Type': 'application/json',
      'Content-Disposition': 'attachment; filename="reading-rules.json"',
    },
  });
