import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A data folder of the tests' own, named before anything of the server is loaded. */
const folder = mkdtempSync(join(tmpdir(), 'alforja-unit-'));
process.env['ALFORJA_DATA'] = folder;
// Course systems and libraries of tests are on this machine.
process.env['ALFORJA_INSIDE'] = '127.0.0.1';
process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
