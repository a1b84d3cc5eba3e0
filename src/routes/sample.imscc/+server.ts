import { demoFiles } from '../../../demo/packages';
import type { RequestHandler } from './$types';

/** The demo's course week, for someone who has no package at hand. */
export const GET: RequestHandler = () => {
  const sample = demoFiles().find((f) => f.name === 'pilotage-week5.imscc')!;
  return new Response(new Uint8Array(sample.bytes), {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': 'attachment; filename="sample.imscc"',
    },
  });
};
