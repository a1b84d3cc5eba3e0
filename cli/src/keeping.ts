import { resolve } from 'node:path';
import { finding, Refusal } from '@alforja/core';
import { EXIT, printJson, type Exit } from './output.ts';

/** Backs a data folder up, restores it, and removes from it what is over; the application may be at work meanwhile. */

interface Json {
  readonly json?: boolean;
}

/** The parts of the application that do it, on this data folder. */
async function on(data: string): Promise<typeof import('../../src/lib/server/keeping/index.ts')> {
  process.env['ALFORJA_DATA'] = resolve(data);
  // The data folder is read from the environment when they are loaded.
  return import('../../src/lib/server/keeping/index.ts');
}

/** Says trouble of the data folder or the backup in words; what is unforeseen stays what it is. */
function troubleIn(path: string, error: unknown): never {
  const { name, message } = error as Error;
  if (name === 'KeepingTrouble' || name === 'StoreTrouble')
    throw new Refusal(finding('keeping-refused', 'error', { path }, { detail: message }));
  throw error;
}

export async function backup(
  data: string,
  { output, force = false, json = false }: Json & { readonly output: string; readonly force?: boolean },
): Promise<Exit> {
  const { backUp, close } = await on(data);
  const made = await backUp(resolve(output), { force })
    .catch((error: unknown) => troubleIn(data, error))
    .finally(close);
  const bytes = made.files.reduce((sum, f) => sum + f.bytes, 0);
  if (json) printJson({ written: [output], files: made.files.length, bytes, missing: made.missing });
  else {
    process.stdout.write(`${output}: ${made.files.length} files, ${bytes} bytes\n`);
    for (const sha256 of made.missing)
      process.stderr.write(`error: a stored file is gone or damaged, and is not in the backup: ${sha256}\n`);
  }
  return made.missing.length > 0 ? EXIT.found : EXIT.done;
}

export async function restore(
  from: string,
  { output, json = false }: Json & { readonly output: string },
): Promise<Exit> {
  const { restore: restoreFrom } = await on(output);
  const made = await restoreFrom(resolve(from), resolve(output)).catch((error: unknown) =>
    troubleIn(from, error),
  );
  if (json)
    printJson({ written: [output], madeAt: made.madeAt, files: made.files.length, missing: made.missing });
  else process.stdout.write(`${output}: ${made.files.length} files, as of ${made.madeAt}\n`);
  return made.missing.length > 0 ? EXIT.found : EXIT.done;
}

export async function clean(
  data: string,
  { dryRun = false, json = false }: Json & { readonly dryRun?: boolean },
): Promise<Exit> {
  const { cleanUp, close, RETENTION } = await on(data);
  const removed = await cleanUp({ dryRun })
    .catch((error: unknown) => troubleIn(data, error))
    .finally(close);
  if (json) printJson({ dryRun, keptForDays: RETENTION, removed });
  else {
    const said = Object.entries(removed).map(([what, n]) => `${n} ${what}`);
    process.stdout.write(`${dryRun ? 'Would be removed' : 'Removed'}: ${said.join(', ')}\n`);
  }
  return EXIT.done;
}
