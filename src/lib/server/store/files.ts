import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { filesPath, temporaryPath } from '../config.ts';

export class TooLarge extends Error {}

/** Where bytes of this sha256 stand in the content-addressed store. */
export const storedPath = (sha256: string): string => join(filesPath, sha256.slice(0, 2), sha256);

/**
 * Streams bytes into the store: a temporary name, fsync, then rename, so that a file is whole or not there.
 * @throws TooLarge once more than `limit` bytes have come; nothing is kept then
 */
export async function storeStream(
  chunks: AsyncIterable<Uint8Array>,
  limit: number,
): Promise<{ sha256: string; bytes: number }> {
  const temporary = join(temporaryPath, randomUUID());
  const hash = createHash('sha256');
  let bytes = 0;
  const file = await open(temporary, 'wx');
  try {
    for await (const chunk of chunks) {
      bytes += chunk.length;
      if (bytes > limit) throw new TooLarge();
      hash.update(chunk);
      await file.writeFile(chunk);
    }
    await file.sync();
  } catch (error) {
    await file.close();
    await rm(temporary, { force: true });
    throw error;
  }
  await file.close();
  const sha256 = hash.digest('hex');
  const path = storedPath(sha256);
  await mkdir(dirname(path), { recursive: true });
  // The same bytes take the place of those that were there, and are young again.
  await rename(temporary, path);
  return { sha256, bytes };
}

export async function storeBytes(content: Uint8Array): Promise<{ sha256: string; bytes: number }> {
  return storeStream(
    (async function* () {
      yield content;
    })(),
    Number.POSITIVE_INFINITY,
  );
}

export const readStored = (sha256: string): Promise<Uint8Array> => readFile(storedPath(sha256));

/** Removes what a killed process left half written. */
export async function cleanTemporary(): Promise<void> {
  for (const name of await readdir(temporaryPath))
    await rm(join(temporaryPath, name), { force: true, recursive: true });
}

/** Bytes that came within this time may have their row still to come, in ms. */
const YOUNG_MS = 3_600_000;

/**
 * Removes files that nothing refers to, but for those that came within the last hour.
 * @param kept sha256 of everything that is referred to
 * @returns how many were removed
 */
export async function removeStrayFiles(kept: ReadonlySet<string>): Promise<number> {
  const young = async (path: string): Promise<boolean> => Date.now() - (await stat(path)).mtimeMs < YOUNG_MS;
  let removed = 0;
  for (const folder of await readdir(filesPath))
    for (const sha256 of await readdir(join(filesPath, folder))) {
      const path = storedPath(sha256);
      if (kept.has(sha256) || (await young(path))) continue;
      // Moved aside and looked at once more: the same bytes may have come in this very moment.
      const aside = join(temporaryPath, randomUUID());
      await rename(path, aside);
      if (await young(aside)) await rename(aside, path);
      else {
        await rm(aside);
        removed += 1;
      }
    }
  return removed;
}
