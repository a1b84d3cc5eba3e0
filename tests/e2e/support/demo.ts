import type { ChildProcess } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fill, fillCourses } from '../../../demo/fill.ts';
import { startServer } from '../../../scripts/server.mjs';
import { startStandins, type StandinAddresses } from '../../../scripts/standins.mjs';
import { stopped } from './process.ts';

/** Where each of the test workers has its own application and its own course systems (these take five ports). */
const PORTS = [
  { application: 4188, standins: 4280 },
  { application: 4191, standins: 4300 },
] as const;

/** Outside a worker, where files are only looked through for tests, there is nothing to reach. */
const ports = PORTS[Number(process.env['TEST_PARALLEL_INDEX'] ?? 0)]!;

/** The application of this worker. */
export const base = `http://127.0.0.1:${ports.application}`;

/** Pairs of courses that can go as a batch, and questions in each. */
const SOME_PAIRS = 3;
const SOME_ITEMS = 60;

/** What the demo has put into the application. */
export interface Demo {
  readonly standins: StandinAddresses;
  /** A course that things can be brought into. */
  readonly course: string;
  /** A transfer whose export came back altered. */
  readonly transfer: string;
  /** A transfer between two courses. */
  readonly courseTransfer: string;
}

let opened: Demo | null = null;

/** The demo that this worker's tests work on. */
export function demo(): Demo {
  if (!opened) throw new Error('Tests take `test` from support/test.ts: it starts the application.');
  return opened;
}

/** Starts the built application on a fresh data folder with the demo in it; gives the way to stop it. */
export async function openDemo(): Promise<() => Promise<void>> {
  const data = await mkdtemp(join(tmpdir(), 'alforja-e2e-'));
  const started: ChildProcess[] = [];
  const close = async (): Promise<void> => {
    opened = null;
    await Promise.all(started.map((child) => stopped(child)));
    await rm(data, { recursive: true, force: true });
  };
  try {
    const standins = await startStandins({
      port: ports.standins,
      folder: join(data, 'standins'),
      pairs: Number(process.env['ALFORJA_PAIRS'] ?? SOME_PAIRS),
      items: Number(process.env['ALFORJA_ITEMS'] ?? SOME_ITEMS),
      quiet: true,
    });
    started.push(standins.child);
    const application = await startServer({
      port: ports.application,
      data,
      quiet: true,
      smtp: standins.addresses.smtp,
      // Systems that tests start for themselves have ports of their own; the rest of the network stays closed.
      inside: '127.0.0.1',
    });
    started.push(application.child);
    opened = await filled(standins.addresses);
  } catch (error) {
    await close();
    throw error;
  }
  return close;
}

async function filled(standins: StandinAddresses): Promise<Demo> {
  const { transfer } = await fill(base);
  if (transfer === null) throw new Error('The demo was there already: its data folder was not a fresh one.');
  const courseTransfer = await fillCourses(base, standins);
  const [course] = (await (await fetch(`${base}/api/courses?q=pilotage`)).json()) as { id: string }[];
  return { standins, course: course!.id, transfer, courseTransfer };
}
