import { demoFiles } from '../../../demo/packages';
import type { RequestHandler } from './$types';

/** The demo's rubric as a spreadsheet has it, for someone who has none at hand. */
export const GET: RequestHandler = () => {
  const sample = demoFiles().find((f) => f.name === 'passage-plan.csv')!;
  return new Response(new Uint8Array(sample.bytes), {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': 'attachment; filename="sample-rubric.csv"',
    },
  });
};
