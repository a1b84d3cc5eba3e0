import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fill, fillCourses } from '../../../demo/fill.ts';
import { startServer } from '../../../scripts/server.mjs';
import { startStandins } from '../../../scripts/standins.mjs';
import { stopped } from './process.ts';

/** Pairs of courses that can go as a batch, and questions in each. */
const SOME_PAIRS = 3;
const SOME_ITEMS = 60;

/** Starts the built application on a fresh data folder with the demo in it; gives the way to stop it. */
export default async function setup(): Promise<() => Promise<void>> {
  const data = await mkdtemp(join(tmpdir(), 'alforja-e2e-'));
  const standins = await startStandins({
    port: 4280,
    folder: join(data, 'standins'),
    pairs: Number(process.env['ALFORJA_PAIRS'] ?? SOME_PAIRS),
    items: Number(process.env['ALFORJA_ITEMS'] ?? SOME_ITEMS),
    quiet: true,
  });
  const { child, base } = await startServer({
    port: 4188,
    data,
    quiet: true,
    smtp: standins.addresses.smtp,
    // Systems that tests start for themselves have ports of their own; the rest of the network stays closed.
    inside: '127.0.0.1',
  });
  const { transfer } = await fill(base);
  process.env['ALFORJA_COURSE_TRANSFER'] = await fillCourses(base, standins.addresses);
  const courses = (await (await fetch(`${base}/api/courses?q=pilotage`)).json()) as { id: string }[];
  process.env['ALFORJA_COURSE'] = courses[0]!.id;
  process.env['ALFORJA_STANDINS'] = JSON.stringify(standins.addresses);
  process.env['ALFORJA_BASE'] = base;
  process.env['ALFORJA_TRANSFER'] = transfer ?? '';
  return async () => {
    await Promise.all([stopped(child), stopped(standins.child)]);
    await rm(data, { recursive: true, force: true });
  };
}
