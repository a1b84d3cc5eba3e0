import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { finding, Refusal } from '@alforja/core';
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
  // The same bytes take the place of those that were there, and are young again; damaged ones are healed by it.
  await rename(temporary, path);
  await syncFolder(dirname(path));
  return { sha256, bytes };
}

/** Has the disk know the names in a folder, too: a name that a power cut takes away is a file that is lost. */
export async function syncFolder(path: string): Promise<void> {
  const folder = await open(path, 'r').catch(() => null);
  // Not every file system lets folders be synchronised.
  await folder?.sync().catch(() => undefined);
  await folder?.close();
}

export async function storeBytes(content: Uint8Array): Promise<{ sha256: string; bytes: number }> {
  return storeStream(
    (async function* () {
      yield content;
    })(),
    Number.POSITIVE_INFINITY,
  );
}

/** Stored files that had the right sum a moment ago, by their sums: what they looked like, and when. */
const sound = new Map<string, { readonly looks: string; readonly at: number }>();
const SOUND_FOR_MS = 60_000;

/** What changes with a file: it is summed up again when one of these is otherwise. */
async function looksOf(path: string): Promise<string> {
  const { ino, size, mtimeMs, ctimeMs } = await stat(path);
  return [ino, size, mtimeMs, ctimeMs].join(' ');
}

/**
 * Sums up a stored file, unless that was done a moment ago.
 * @param take what to do with its bytes on the way
 * @throws Refusal `stored-damaged` or `stored-gone`
 */
async function goThrough(sha256: string, take?: (chunk: Buffer) => void): Promise<void> {
  const path = storedPath(sha256);
  try {
    const looks = await looksOf(path);
    const known = sound.get(sha256);
    const isSound = known?.looks === looks && performance.now() - known.at < SOUND_FOR_MS;
    if (isSound && !take) return;
    const hash = createHash('sha256');
    for await (const chunk of createReadStream(path, { highWaterMark: CHUNK })) {
      if (!isSound) hash.update(chunk as Buffer);
      take?.(chunk as Buffer);
    }
    if (isSound) return;
    if (hash.digest('hex') !== sha256) throw new Refusal(finding('stored-damaged', 'error', {}, { sha256 }));
    sound.set(sha256, { looks, at: performance.now() });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    throw new Refusal(finding('stored-gone', 'error', {}, { sha256 }));
  }
}

const CHUNK = 1024 * 1024;

/** Bytes of the store, as they came in. @throws Refusal where they are no longer there, or others */
export async function readStored(sha256: string): Promise<Uint8Array> {
  const chunks: Buffer[] = [];
  await goThrough(sha256, (chunk) => chunks.push(chunk));
  return Buffer.concat(chunks);
}

/** Makes sure that bytes of the store are as they came in. @throws Refusal where they are not */
export const verifyStored = (sha256: string): Promise<void> => goThrough(sha256);

/** Bytes that came within this time may still be on their way in, or have their row still to come, in ms. */
const YOUNG_MS = 3_600_000;

/** Whether a file was written within the last hour; one that is gone was not. */
const isYoung = (path: string): Promise<boolean> =>
  stat(path).then(
    ({ mtimeMs }) => Date.now() - mtimeMs < YOUNG_MS,
    () => false,
  );

/** Removes what killed processes left half written; what another process writes now is younger. */
export async function cleanTemporary(): Promise<void> {
  for (const name of await readdir(temporaryPath)) {
    const path = join(temporaryPath, name);
    if (!(await isYoung(path))) await rm(path, { force: true, recursive: true });
  }
}

/** Files that nothing refers to, but for those that came within the last hour. @param kept sums of all that is referred to */
export async function strayFiles(kept: ReadonlySet<string>): Promise<StrayFile[]> {
  const stray: StrayFile[] = [];
  for (const folder of await readdir(filesPath))
    for (const sha256 of await readdir(join(filesPath, folder))) {
      const path = storedPath(sha256);
      if (kept.has(sha256) || (await isYoung(path))) continue;
      const bytes = await stat(path).then(
        (s) => s.size,
        () => null,
      );
      if (bytes !== null) stray.push({ sha256, bytes });
    }
  return stray;
}

interface StrayFile {
  readonly sha256: string;
  readonly bytes: number;
}

/** Removes files that nothing refers to, but for those that came within the last hour. @returns those that went */
export async function removeStrayFiles(kept: ReadonlySet<string>): Promise<StrayFile[]> {
  const removed: StrayFile[] = [];
  for (const stray of await strayFiles(kept)) {
    const path = storedPath(stray.sha256);
    // Moved aside and looked at once more: the same bytes may have come in this very moment.
    const aside = join(temporaryPath, randomUUID());
    await rename(path, aside);
    if (await isYoung(aside)) await rename(aside, path);
    else {
      await rm(aside);
      removed.push(stray);
    }
  }
  return removed;
}
