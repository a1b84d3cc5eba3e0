import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A data folder of the tests' own, named before anything of the server is loaded. */
const folder = mkdtempSync(join(tmpdir(), 'alforja-unit-'));
process.env['ALFORJA_DATA'] = folder;
// Course systems and libraries of tests are on this machine.
process.env['ALFORJA_INSIDE'] = '127.0.0.1';
// What the bundles do not hold is found from beside what is installed.
const workers = join(import.meta.dirname, '../../node_modules/.cache', `threads-${process.pid}`);
process.env['ALFORJA_WORKERS'] = workers;
process.on('exit', () => {
  for (const made of [folder, workers]) rmSync(made, { recursive: true, force: true });
});
