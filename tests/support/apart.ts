import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';

/** Longer than any of it takes, in ms. */
const PATIENCE_MS = 280_000;

/**
 * Runs a script of this folder on a data folder, in a process of its own.
 * @returns what it prints
 * @throws where it ends otherwise than well
 */
export async function runApart(script: string, data: string, ...args: string[]): Promise<string> {
  const path = join(import.meta.dirname, script);
  const { stdout } = await promisify(execFile)(process.execPath, ['--import', 'tsx', path, ...args], {
    env: { ...process.env, ALFORJA_DATA: data },
    timeout: PATIENCE_MS,
    killSignal: 'SIGKILL',
  });
  return stdout;
}
