import { writeFile } from 'node:fs/promises';
import { join, relative } from 'node:path';
import { dataPath, keyPath } from '../config.ts';
import { copyDatabase, sumsOfCopy } from '../store/copy.ts';
import { storedPath } from '../store/files.ts';
import {
  copyFile,
  isFree,
  KeepingTrouble,
  MANIFEST,
  needDatabase,
  sumUp,
  wholly,
  type BackedUp,
  type Manifest,
} from './folder.ts';

/** @throws KeepingTrouble where the copy is not of this version's database, so that what it speaks of cannot be known */
const sumsOf = (copy: string): Promise<string[]> =>
  sumsOfCopy(copy).catch(() => {
    throw new KeepingTrouble(
      `The database in ${dataPath} is empty, damaged, or of another version of this application. Start this version on it once, then back it up.`,
    );
  });

/**
 * Backs the data folder up while the application works: the database as it stands at one moment, every file that it
 * speaks of, and the key; each with its sum.
 * @param to a folder that is not there, or is empty
 * @param force what stands at `to` is replaced, once the backup is whole
 * @throws KeepingTrouble
 */
export async function backUp(to: string, { force = false } = {}): Promise<Manifest> {
  await needDatabase('back up');
  if (!force && !(await isFree(to)))
    throw new KeepingTrouble(`${to} is there already. Name another folder, or add --force.`);
  return wholly(to, async (partial) => {
    const files: BackedUp[] = [];
    const missing: string[] = [];
    // The database first: whatever it speaks of at that moment has been stored before.
    const copy = join(partial, 'alforja.db');
    await copyDatabase(copy);
    files.push({ path: 'alforja.db', ...(await sumUp(copy)) });
    for (const sha256 of await sumsOf(copy)) {
      const path = relative(dataPath, storedPath(sha256));
      const copied = await copyFile(storedPath(sha256), join(partial, path));
      // What is gone or damaged already is named, and is no part of the backup.
      if (copied?.sha256 === sha256) files.push({ path, ...copied });
      else missing.push(sha256);
    }
    const key = await copyFile(keyPath, join(partial, 'key'));
    if (key) files.push({ path: 'key', ...key });
    const manifest: Manifest = {
      kind: 'alforja-backup',
      version: 1,
      madeAt: new Date().toISOString(),
      files,
      missing,
    };
    await writeFile(join(partial, MANIFEST), `${JSON.stringify(manifest, null, 1)}\n`, {
      mode: 0o600,
      flush: true,
    });
    return manifest;
  });
}
