import { listRules } from '$lib/server/store/readingRules';
import type { RequestHandler } from './$types';

/** The rules as a file, for the command line's --rules and for other installations. */
export const GET: RequestHandler = async () => {
  const rules = (await listRules()).map(({ name, origin, label, means }) => ({ name, origin, label, means }));
  return new Response(`${JSON.stringify({ rules }, null, 2)}\n`, {
    headers: {
      'Content-Type': 'application/json',
      'Content-Disposition': 'attachment; filename="reading-rules.json"',
    },
  });
};
