import { copyFileSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { createClient, type Client } from '@libsql/client';
import { expect } from 'chai';
import { drizzle } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import { itemFilesCodec } from '../../../src/lib/server/store/documents/packages.ts';

const migrations = resolve(import.meta.dirname, '../../../drizzle');

/** The migrations up to a number, as an older version shipped them. */
function olderMigrations(folder: string, upTo: number): string {
  const older = join(folder, 'drizzle');
  mkdirSync(join(older, 'meta'), { recursive: true });
  const journal = JSON.parse(readFileSync(join(migrations, 'meta/_journal.json'), 'utf8')) as {
    entries: { idx: number; tag: string }[];
  };
  const entries = journal.entries.filter((e) => e.idx <= upTo);
  writeFileSync(join(older, 'meta/_journal.json'), JSON.stringify({ ...journal, entries }));
  for (const { tag } of entries) copyFileSync(join(migrations, `${tag}.sql`), join(older, `${tag}.sql`));
  return older;
}

describe('a data folder of the version before', () => {
  let folder: string;
  let client: Client;
  const all = async (sql: string): Promise<Record<string, unknown>[]> =>
    (await client.execute(sql)).rows.map((r) => ({ ...r }));

  before(async () => {
    folder = mkdtempSync(join(tmpdir(), 'alforja-older-'));
    client = createClient({ url: `file:${join(folder, 'alforja.db')}` });
    await migrate(drizzle(client), { migrationsFolder: olderMigrations(folder, 5) });
    for (const sql of [
      `INSERT INTO packages (id, sha256, name, bytes, brought_at, state, tree, summary) VALUES ('p1', 'aa', 'week.imscc', 9, 1, 'ready', '{}', '{}'), ('p2', 'bb', 'new.zip', 9, 1, 'reading', NULL, NULL)`,
      `INSERT INTO items (package_id, seq, node_id, title, stem, kinds, points, fingerprint, category, json) VALUES ('p1', 0, 'i1', 'Isogonals', 'Name the line', 'essay', 2, 'f', NULL, '{}'), ('p1', 1, 'i2', 'Buoys', 'Which buoy?', 'choice', 1, 'g', NULL, '{}')`,
      `INSERT INTO transfers (id, title, package_id, target, created_at, run, forecast) VALUES ('t1', 'Into a file', 'p1', 'cc1.3', 1, NULL, '{}'), ('t2', 'Into a course', 'p1', 'qti2.1', 1, '{"id":"r"}', NULL)`,
      `UPDATE transfers SET dest_course = 's:c' WHERE id = 't2'`,
      `INSERT INTO snapshots (id, course_id, package_id, outline, taken_at, purpose) VALUES ('n1', 's:c', 'p1', '{}', 1, 'look')`,
      `INSERT INTO jobs (id, kind, subject, state, created_at) VALUES ('j1', 'forecast', 't1', 'queued', 1), ('j2', 'carry', 't2', 'running', 1), ('j3', 'fetch', 's:c', 'done', 1), ('j4', 'read', 'p2', 'queued', 1), ('j5', 'read', 'p2', 'queued', 2)`,
    ])
      await client.execute(sql);
    await migrate(drizzle(client), { migrationsFolder: olderMigrations(folder, 11) });
    await client.execute(
      `INSERT INTO table_layouts (id, header, roles, created_at) VALUES ('l1', '["was","gut"]', '["criterion","named"]', 7)`,
    );
    await migrate(drizzle(client), { migrationsFolder: olderMigrations(folder, 18) });
    await client.execute(
      `INSERT INTO items (reading_id, seq, node_id, title, stem, kinds, points, fingerprint, json) VALUES ('r9', 0, 'i9', 'Chart', '', 'choice', 1, 'h', '{"$v":2,"files":[{"path":"chart.png","present":true}]}'), ('r9', 1, 'i10', 'Plain', '', 'choice', 1, 'k', '{"$v":2,"files":[]}')`,
    );
    await migrate(drizzle(client), { migrationsFolder: migrations });
  });
  after(() => {
    client.close();
    rmSync(folder, { recursive: true, force: true });
  });

  it('keeps the files that items show beside them, as they are written now', async () => {
    const rows = await all(`SELECT files, short_key FROM items WHERE reading_id = 'r9' ORDER BY seq`);
    expect(rows).to.deep.equal([
      { files: '{"$v":1,"$list":[{"path":"chart.png","present":true}]}', short_key: null },
      { files: '', short_key: null },
    ]);
    expect(itemFilesCodec.read(String(rows[0]!['files']))).to.deep.equal([
      { path: 'chart.png', present: true },
    ]);
  });

  it('shows its packages by the rows they have, and has them read anew', async () => {
    expect(await all('SELECT id, reading_id, reading_basis FROM packages ORDER BY id')).to.deep.equal([
      { id: 'p1', reading_id: 'p1', reading_basis: null },
      { id: 'p2', reading_id: null, reading_basis: null },
    ]);
    expect(
      await all(`SELECT reading_id, seq, graded_by_hand FROM items WHERE reading_id = 'p1' ORDER BY seq`),
    ).to.deep.equal([
      { reading_id: 'p1', seq: 0, graded_by_hand: 1 },
      { reading_id: 'p1', seq: 1, graded_by_hand: 0 },
    ]);
  });

  it('still finds its items, and keeps the search in step', async () => {
    const found = (words: string) =>
      all(`SELECT rowid FROM items_search WHERE items_search MATCH '"${words}"*'`).then((r) => r.length);
    expect(await found('isogon')).to.equal(1);
    await client.execute(`DELETE FROM items WHERE node_id = 'i1'`);
    expect(await found('isogon')).to.equal(0);
  });

  it('keeps its transfers: a file has the format it had, a course its sending', async () => {
    expect(await all('SELECT id, target, target_chosen, sending FROM transfers ORDER BY id')).to.deep.equal([
      { id: 't1', target: 'cc1.3', target_chosen: 1, sending: null },
      { id: 't2', target: 'qti2.1', target_chosen: 0, sending: '{"id":"r"}' },
    ]);
    expect(await all('SELECT purpose FROM snapshots')).to.deep.equal([{ purpose: 'whole' }]);
  });

  it('still knows how tables of rubrics are read', async () => {
    expect(await all('SELECT * FROM known_layouts')).to.deep.equal([
      {
        id: 'l1',
        kind: 'rubrics',
        name: 'was, gut',
        looks: '["was","gut"]',
        layout: '["criterion","named"]',
        created_at: 7,
      },
    ]);
  });

  it('goes on with work under its name of today', async () => {
    expect(await all('SELECT id, kind, state FROM jobs ORDER BY id')).to.deep.equal([
      { id: 'j1', kind: 'plan', state: 'cancelled' },
      { id: 'j2', kind: 'send', state: 'running' },
      { id: 'j3', kind: 'snapshot', state: 'done' },
      { id: 'j4', kind: 'read', state: 'queued' },
      { id: 'j5', kind: 'read', state: 'cancelled' },
    ]);
  });

  it('puts its work in an order, in turns, and one of a kind for a subject', async () => {
    expect(await all('SELECT id, seq, turn, owner FROM jobs ORDER BY seq')).to.deep.equal([
      { id: 'j1', seq: 1, turn: null, owner: null },
      { id: 'j2', seq: 2, turn: 's:c', owner: null },
      { id: 'j3', seq: 3, turn: null, owner: null },
      { id: 'j4', seq: 4, turn: null, owner: null },
      { id: 'j5', seq: 5, turn: null, owner: null },
    ]);
    const again = `INSERT INTO jobs (id, kind, subject, state, created_at) VALUES ('j6', 'read', 'p2', 'queued', 3)`;
    expect(
      await all(again).then(
        () => 'taken',
        (e: Error) => e.message,
      ),
    ).to.contain('UNIQUE');
  });
});
