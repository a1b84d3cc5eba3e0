import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fill } from '../../../demo/fill.ts';
import { startServer } from '../../../scripts/server.mjs';

/** Starts the built application on a fresh data folder with the demo in it; gives the way to stop it. */
export default async function setup(): Promise<() => Promise<void>> {
  const data = await mkdtemp(join(tmpdir(), 'alforja-e2e-'));
  const { child, base } = await startServer({ port: 4188, data, quiet: true });
  const { transfer } = await fill(base);
  process.env['ALFORJA_BASE'] = base;
  process.env['ALFORJA_TRANSFER'] = transfer ?? '';
  return async () => {
    child.kill();
    await rm(data, { recursive: true, force: true });
  };
}
