import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, open, readdir, readFile, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { randomUUID } from 'node:crypto';
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
  if (existsSync(path)) await rm(temporary);
  else {
    await mkdir(dirname(path), { recursive: true });
    await rename(temporary, path);
  }
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
