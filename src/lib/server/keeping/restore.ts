import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { copyFile, isFree, KeepingTrouble, MANIFEST, Manifest, wholly } from './folder.ts';

/** Reads what a backup says it holds. @throws KeepingTrouble where it is none */
async function manifestOf(from: string): Promise<Manifest> {
  let said: unknown;
  try {
    said = JSON.parse(await readFile(join(from, MANIFEST), 'utf8'));
  } catch {
    throw new KeepingTrouble(`${from} is no backup: it has no ${MANIFEST} that can be read.`);
  }
  const read = Manifest.safeParse(said);
  if (!read.success) throw new KeepingTrouble(`${join(from, MANIFEST)} does not say what a backup holds.`);
  return read.data;
}

/**
 * Makes a data folder of a backup, every file of it summed up on the way: whole, or not at all.
 * @param to a folder that is not there, or is empty
 * @throws KeepingTrouble
 */
export async function restore(from: string, to: string): Promise<Manifest> {
  const manifest = await manifestOf(from);
  if (!(await isFree(to)))
    throw new KeepingTrouble(
      `${to} is not empty. A backup is restored into a folder of its own; move that one away first.`,
    );
  return wholly(to, async (partial) => {
    const wrong: string[] = [];
    for (const { path, bytes, sha256 } of manifest.files) {
      const copied = await copyFile(join(from, path), join(partial, path));
      if (copied?.sha256 !== sha256 || copied.bytes !== bytes) wrong.push(path);
    }
    if (wrong.length > 0) {
      const more = wrong.length > MOST_NAMED ? ` and ${wrong.length - MOST_NAMED} more` : '';
      const named = `${wrong.slice(0, MOST_NAMED).join(', ')}${more}`;
      throw new KeepingTrouble(
        `Files of the backup are damaged or gone: ${named}. Nothing was restored; take another backup.`,
      );
    }
    return manifest;
  });
}

const MOST_NAMED = 5;
