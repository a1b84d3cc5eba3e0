import { randomBytes } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { sql } from 'drizzle-orm';
import { db } from '../../src/lib/server/store/database.ts';
import { storeBytes, storedPath, verifyStored } from '../../src/lib/server/store/files.ts';
import { openStore, StoreTrouble, troubleOf } from '../../src/lib/server/store/open.ts';

/**
 * Opens the data folder that ALFORJA_DATA names and says what came of it, in a process of its own. With the argument
 * `fill`: and brings files in until there is no room, makes room, and brings one more.
 */

const lines: string[] = [];
const said = async (work: () => Promise<unknown>): Promise<void> => {
  try {
    await work();
    lines.push('done');
  } catch (error) {
    const trouble = troubleOf(error);
    lines.push(trouble instanceof StoreTrouble ? trouble.message : `unforeseen: ${trouble.stack}`);
  }
};

const MEGABYTE = 1024 * 1024;

async function fill(): Promise<void> {
  // Most only open a folder, and this takes half of the time that it takes.
  const { bringIn } = await import('../../src/lib/server/library/packages.ts');
  const bring = async (bytes: number): Promise<string> => {
    const stored = await storeBytes(randomBytes(bytes));
    await bringIn(`${stored.sha256}.bin`, stored);
    return stored.sha256;
  };
  const kept = await bring(MEGABYTE / 2);
  await said(() => bring(8 * MEGABYTE));
  await said(async () => {
    for (;;) await bring(4096);
  });
  await verifyStored(kept);
  const [row] = await db.all<{ n: number; files: number }>(
    sql`SELECT count(*) AS n, count(DISTINCT sha256) AS files FROM packages`,
  );
  const rows = await db.all<{ sha256: string }>(sql`SELECT sha256 FROM packages`);
  // Whatever the database speaks of is there, whole.
  for (const { sha256 } of rows) await verifyStored(sha256);
  lines.push(row!.n === row!.files && row!.n > 1 ? 'all there' : 'some lost');
  await rm(storedPath(kept));
  await said(() => bring(4096));
}

await said(openStore);
if (process.argv[2] === 'fill') await fill();
process.stdout.write(JSON.stringify(lines));
process.exit(0);
