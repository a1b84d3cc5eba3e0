import { randomUUID } from 'node:crypto';
import {
  chmodSync,
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readSync,
  readFileSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { isMainThread } from 'node:worker_threads';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { z } from 'zod';
import { databasePath, dataPath, filesPath, migrationsPath, temporaryPath } from '../config.ts';
import { causesOf, client, closeDatabase, db, isBusy, patiently } from './database.ts';

/** The data folder cannot be used, and why, in words for whoever runs this application. */
export class StoreTrouble extends Error {
  override name = 'StoreTrouble';
}

let ready: Promise<void> | null = null;

/** Opens the data folder once: its folders, then the database with the migrations that ship with the project. */
export const openStore = (): Promise<void> => (ready ??= open());

async function open(): Promise<void> {
  prepareFolder();
  lookAtDatabase();
  try {
    await patiently(prepareDatabase, isRaced, closeDatabase);
  } catch (error) {
    throw troubleOf(error);
  }
  protect();
}

/** Whether a path is in a file system that the kernel makes up. Making a folder there never comes to an end in Node. */
export const isKernels = (path: string): boolean => /^\/(?:proc|sys)(?:\/|$)/u.test(resolve(path));

const notWritable = (): string =>
  `The data folder ${dataPath} cannot be written by this user. Give it the right to, or name another folder in ALFORJA_DATA.`;

const MODE = { folder: 0o700, file: 0o600 } as const;

/** What people bring is theirs: nobody else on this machine reads it. */
function prepareFolder(): void {
  // A thread has no say in it, and makes nothing that its process does not.
  if (isMainThread) process.umask(0o077);
  if (isKernels(dataPath)) throw new StoreTrouble(notWritable());
  const probe = join(temporaryPath, `probe-${randomUUID()}`);
  try {
    for (const folder of [filesPath, temporaryPath]) mkdirSync(folder, { recursive: true });
    chmodSync(dataPath, MODE.folder);
    // Some folders may be listed and not written, and some disks have no room: both are found out by writing.
    const file = openSync(probe, 'wx');
    try {
      writeSync(file, new Uint8Array(4096));
      fsyncSync(file);
    } finally {
      closeSync(file);
      rmSync(probe, { force: true });
    }
  } catch (error) {
    throw troubleOf(error);
  }
}

function protect(): void {
  for (const name of readdirSync(dataPath))
    if (name.startsWith('alforja.db') || name === 'key') chmodSync(join(dataPath, name), MODE.file);
}

const SQLITE_HEADER = 'SQLite format 3\0';

/** Finds out what SQLite would not tell, or would tell too late: it takes an empty file for a new database. */
function lookAtDatabase(): void {
  if (databasePath === null) return;
  const bytes = existsSync(databasePath) ? statSync(databasePath).size : 0;
  if (bytes === 0) {
    const files = readdirSync(filesPath, { recursive: true, withFileTypes: true }).filter((e) => e.isFile());
    // An empty database over files in use would have them all removed as nobody's.
    if (files.length > 0)
      throw new StoreTrouble(
        `The data folder ${dataPath} holds ${files.length} stored files, but its database (${databasePath}) is missing or empty. ` +
          'Restore a backup, or name another folder in ALFORJA_DATA to begin anew. Nothing was changed.',
      );
    return;
  }
  const head = Buffer.alloc(SQLITE_HEADER.length);
  const file = openSync(databasePath, 'r');
  try {
    readSync(file, head, 0, head.length, 0);
  } finally {
    closeSync(file);
  }
  if (head.toString('latin1') !== SQLITE_HEADER) throw new StoreTrouble(noDatabase());
}

const noDatabase = (): string =>
  `The file ${databasePath ?? ''} is damaged, or no database of this application. Restore a backup; the stored files beside it are untouched.`;

const Journal = z.object({ entries: z.array(z.object({ when: z.number() })) });

/** A database that a newer version has changed is left alone. */
async function refuseNewer(): Promise<void> {
  const { rows } = await client().execute(
    `SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = '__drizzle_migrations'`,
  );
  if (rows.length === 0) return;
  const { rows: applied } = await client().execute(
    'SELECT max(created_at) AS latest FROM __drizzle_migrations',
  );
  const journal: unknown = JSON.parse(readFileSync(join(migrationsPath, 'meta', '_journal.json'), 'utf8'));
  const known = Math.max(...Journal.parse(journal).entries.map((e) => e.when));
  if (Number(applied[0]?.['latest'] ?? 0) > known)
    throw new StoreTrouble(
      `The data folder ${dataPath} was used by a newer version of this application. Start that version, or restore a backup that was made before. Nothing was changed.`,
    );
}

/** Whether another process on the same folder was in the way, so that the same may go well another time. */
const isRaced = (error: unknown): boolean =>
  isBusy(error) || /already exists|duplicate column|no such index/iu.test(saidBy(error));

/** Prepares the database; where another process does so at the same moment, this one finds it done. */
async function prepareDatabase(): Promise<void> {
  await client().execute('PRAGMA journal_mode = WAL');
  await refuseNewer();
  await migrate(db, { migrationsFolder: migrationsPath });
}

/** What an error says, with what it was caused by. */
const saidBy = (error: unknown): string =>
  causesOf(error)
    .map((e) => e.message)
    .join(' ');

const codeOf = (error: unknown): string => causesOf(error).find((e) => e.code)?.code ?? '';

/** Whether there was no room for what was to be written. */
export const isFull = (error: unknown): boolean =>
  ['ENOSPC', 'EDQUOT'].includes(codeOf(error)) || /SQLITE_FULL|disk is full/iu.test(saidBy(error));

/** Whether something was to be written that this user may not write. */
export function isDenied(error: unknown): boolean {
  const code = codeOf(error);
  // Node says that there is no such folder where one cannot be made.
  const cannotMake = code === 'ENOENT' && (error as NodeJS.ErrnoException).syscall === 'mkdir';
  return (
    cannotMake ||
    ['EACCES', 'EPERM', 'EROFS'].includes(code) ||
    /SQLITE_READONLY|readonly database/iu.test(saidBy(error))
  );
}

/** Why the store cannot be used or written, in words; errors of other kinds stay what they are. */
export function troubleOf(error: unknown): Error {
  if (error instanceof StoreTrouble || !(error instanceof Error)) return error as Error;
  const said = saidBy(error);
  const code = codeOf(error);
  if (isFull(error))
    return new StoreTrouble(
      `The disk of the data folder ${dataPath} is full. Make room; nothing that was stored is lost.`,
    );
  if (isDenied(error)) return new StoreTrouble(notWritable());
  if (code === 'ENOTDIR' || code === 'EEXIST')
    return new StoreTrouble(`The data folder ${dataPath} is no folder. Name another one in ALFORJA_DATA.`);
  if (/SQLITE_NOTADB|SQLITE_CORRUPT|not a database|malformed/iu.test(said))
    return new StoreTrouble(noDatabase());
  if (/SQLITE_CANTOPEN|Unable to open/iu.test(said))
    return new StoreTrouble(
      `The database ${databasePath ?? ''} cannot be opened: it, or the folder ${dirname(databasePath ?? '')}, cannot be read or written by this user.`,
    );
  return error;
}
