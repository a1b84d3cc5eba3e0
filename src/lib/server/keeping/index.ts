import { existsSync } from 'node:fs';
import { databasePath, dataPath } from '../config.ts';
import { closeDatabase } from '../store/database.ts';
import { openStore } from '../store/open.ts';
import { clean, type Cleaned } from './clean.ts';
import { KeepingTrouble } from './folder.ts';

/** What the command line asks of a data folder. */
export { backUp } from './backup.ts';
export { RETENTION } from './clean.ts';
export { restore } from './restore.ts';
export { closeDatabase as close };

/** Cleans a data folder that is there; none is made. @throws KeepingTrouble, StoreTrouble */
export async function cleanUp(over: { readonly dryRun?: boolean }): Promise<Cleaned> {
  if (databasePath === null || !existsSync(databasePath))
    throw new KeepingTrouble('data-none', `There is no database in ${dataPath}: nothing to clean.`);
  await openStore();
  return clean(over);
}
