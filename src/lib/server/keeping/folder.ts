import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { dirname } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { z } from 'zod';
import { databasePath, dataPath } from '../config.ts';
import { syncFolder } from '../store/files.ts';
import { isDenied, isFull, isKernels } from '../store/open.ts';

/** What a backup holds, and how folders come to be there whole or not at all. */

/** One file of a backup. */
export interface BackedUp {
  /** Its place within the backup. */
  readonly path: string;
  readonly bytes: number;
  readonly sha256: string;
}

export const MANIFEST = 'backup.json';
export const Manifest = z.object({
  kind: z.literal('alforja-backup'),
  version: z.literal(1),
  /** ISO 8601, in UTC. */
  madeAt: z.string(),
  files: z.array(
    z.object({
      path: z.string().regex(/^(?:alforja\.db|key|files\/[0-9a-f]{2}\/[0-9a-f]{64})$/u),
      bytes: z.number().int().nonnegative(),
      sha256: z.string().regex(/^[0-9a-f]{64}$/u),
    }),
  ),
  /** Sums of files that the database speaks of, and that were gone or damaged already. */
  missing: z.array(z.string()),
});
export type Manifest = z.infer<typeof Manifest>;

/** Why a folder cannot be backed up, restored or cleaned, in words for whoever runs this application. */
export class KeepingTrouble extends Error {
  override name = 'KeepingTrouble';
}

/** @param todo what nobody can do without a database @throws KeepingTrouble where the data folder has none */
export async function needDatabase(todo: string): Promise<void> {
  if (databasePath === null || !(await exists(databasePath)))
    throw new KeepingTrouble(`There is no database in ${dataPath}: nothing to ${todo}.`);
}

/** Sums up a file. @throws where it cannot be read */
export async function sumUp(path: string): Promise<{ bytes: number; sha256: string }> {
  const hash = createHash('sha256');
  let bytes = 0;
  for await (const chunk of createReadStream(path)) {
    hash.update(chunk as Buffer);
    bytes += (chunk as Buffer).length;
  }
  return { bytes, sha256: hash.digest('hex') };
}

/** Why a file cannot be copied though there is room for it: it is gone, or the disk it is on cannot read it. */
const isLost = ({ code, syscall }: NodeJS.ErrnoException): boolean =>
  code === 'ENOENT' || (code === 'EIO' && syscall === 'read');

/**
 * Copies a file, and sums it up on the way. The copy is on the disk when this is done.
 * @returns null where there is nothing that can be read
 * @throws where it cannot be written
 */
export async function copyFile(from: string, to: string): Promise<{ bytes: number; sha256: string } | null> {
  await mkdir(dirname(to), { recursive: true, mode: 0o700 });
  const hash = createHash('sha256');
  let bytes = 0;
  const copying = pipeline(
    createReadStream(from),
    async function* (chunks: AsyncIterable<Buffer>) {
      for await (const chunk of chunks) {
        hash.update(chunk);
        bytes += chunk.length;
        yield chunk;
      }
    },
    createWriteStream(to, { mode: 0o600, flush: true }),
  );
  return copying.then(
    () => ({ bytes, sha256: hash.digest('hex') }),
    async (error: NodeJS.ErrnoException) => {
      if (!isLost(error)) throw error;
      await rm(to, { force: true });
      return null;
    },
  );
}

export const exists = (path: string): Promise<boolean> =>
  stat(path).then(
    () => true,
    () => false,
  );

/** Whether there is nothing at a path, or a folder with nothing in it. */
export const isFree = (path: string): Promise<boolean> =>
  readdir(path).then(
    (names) => names.length === 0,
    async () => !(await exists(path)),
  );

const notWritable = (path: string): string =>
  `${path} cannot be written by this user. Name another folder, or give it the right to.`;

/**
 * Makes a folder under another name beside it, and gives it its own once it is whole; what stood there goes then.
 * @param fill writes what it is to hold
 * @throws KeepingTrouble where it cannot be written; nothing is left of it then
 */
export async function wholly<T>(path: string, fill: (partial: string) => Promise<T>): Promise<T> {
  if (isKernels(path)) throw new KeepingTrouble(notWritable(path));
  const partial = `${path}.partial-${randomUUID().slice(0, 8)}`;
  try {
    await mkdir(partial, { recursive: true, mode: 0o700 });
    const done = await fill(partial);
    const aside = `${partial}-before`;
    const stood = await exists(path);
    if (stood) await rename(path, aside);
    await rename(partial, path);
    await syncFolder(dirname(path));
    if (stood) await rm(aside, { recursive: true, force: true });
    return done;
  } catch (error) {
    await rm(partial, { recursive: true, force: true });
    if (isFull(error))
      throw new KeepingTrouble(
        `The disk that ${path} is to be on is full. Make room, or name a folder on another one.`,
      );
    if (isDenied(error)) throw new KeepingTrouble(notWritable(path));
    throw error;
  }
}
