import { closeDatabase } from '../store/database.ts';
import { openStore } from '../store/open.ts';
import { clean, type Cleaned } from './clean.ts';
import { needDatabase } from './folder.ts';

/** What the command line asks of a data folder. */
export { backUp } from './backup.ts';
export { RETENTION } from './clean.ts';
export { restore } from './restore.ts';
export { closeDatabase as close };

/** Cleans a data folder that is there; none is made. @throws KeepingTrouble, StoreTrouble */
export async function cleanUp(over: { readonly dryRun?: boolean }): Promise<Cleaned> {
  await needDatabase('clean');
  await openStore();
  return clean(over);
}
