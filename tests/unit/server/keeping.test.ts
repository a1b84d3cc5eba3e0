import { execFile } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { promisify } from 'node:util';
import { createClient } from '@libsql/client';
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { dataPath } from '../../../src/lib/server/config.ts';
import { connect, disconnect } from '../../../src/lib/server/library/systems.ts';
import { bringIn } from '../../../src/lib/server/library/packages.ts';
import { clean, RETENTION } from '../../../src/lib/server/keeping/clean.ts';
import { db, write } from '../../../src/lib/server/store/database.ts';
import { storeBytes, storedPath } from '../../../src/lib/server/store/files.ts';
import { jobs, notices, packages, snapshots } from '../../../src/lib/server/store/schema.ts';
import { removeSomeItems } from '../../../src/lib/server/store/items.ts';
import { insertNotice } from '../../../src/lib/server/store/notices.ts';
import { insertSnapshot } from '../../../src/lib/server/store/snapshots.ts';
import { quayside } from '../../../standins/data.ts';
import { CourseSystem } from '../../../standins/system.ts';
import { mounted, unmount } from '../../support/mount.ts';
import { closeServer, openServer, settled } from '../../support/server.ts';

interface Said {
  readonly status: number;
  readonly json: Readonly<Record<string, unknown>>;
}

/** The command line, in a process of its own. */
async function alforja(...args: string[]): Promise<Said> {
  const ran = await promisify(execFile)(process.execPath, ['cli/bin/alforja.js', ...args, '--json']).then(
    ({ stdout }) => ({ status: 0, stdout }),
    ({ code, stdout }: { code: number; stdout: string }) => ({ status: code, stdout }),
  );
  return { status: ran.status, json: JSON.parse(ran.stdout) as Said['json'] };
}

/** Every row of every table of a database, by table. */
async function rowsOf(path: string): Promise<Record<string, string[]>> {
  const client = createClient({ url: `file:${path}` });
  try {
    const tables = await client.execute(
      `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' ORDER BY name`,
    );
    const out: Record<string, string[]> = {};
    for (const { name } of tables.rows) {
      const { rows } = await client.execute(`SELECT * FROM "${String(name)}"`);
      out[String(name)] = rows.map((row) => JSON.stringify(Object.values(row).map(String))).sort();
    }
    return out;
  } finally {
    client.close();
  }
}

const filesOf = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile())
    .map((e) => join(e.parentPath, e.name).slice(folder.length + 1))
    .sort();

let counter = 0;
const item = (): Uint8Array =>
  new TextEncoder().encode(
    `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="k${counter++}" title="Kept"><itemBody><p>Which light is ${counter}?</p></itemBody></assessmentItem>`,
  );
const bring = async (): Promise<string> => {
  const stored = await storeBytes(item());
  await bringIn(`kept-${counter}.xml`, stored);
  return stored.sha256;
};

describe('a backup', () => {
  let root: string;
  let system: CourseSystem;
  let systemId: string;
  before(async () => {
    root = mkdtempSync(join(tmpdir(), 'alforja-keeping-'));
    await openServer();
    system = await new CourseSystem(await quayside({ port: 0, folder: null })).start();
    // A sealed token: it can be opened again only where the key went along.
    systemId = await connect(system.address, 'demo-coordinator');
    const gone = await bring();
    await bring();
    await settled();
    await write(async (tx) => {
      const [held] = await tx.select().from(packages).where(eq(packages.sha256, gone));
      await removeSomeItems(tx, held!.readingId!);
    });
  });
  after(async () => {
    await disconnect(systemId);
    await system.stop();
    await closeServer();
    rmSync(root, { recursive: true, force: true });
  });
  const at = (name: string): string => join(root, name);

  it('restored into an empty folder is what was there: rows, files, and the key', async () => {
    // What other tests have damaged or thrown about is not this one's: all of its files are sound.
    const made = await alforja('backup', dataPath, '-o', at('one'));
    expect(made.json['written']).to.deep.equal([at('one')]);
    mkdirSync(at('back'));
    const back = await alforja('restore', at('one'), '-o', at('back'));
    expect(back.json['files']).to.equal(made.json['files']);
    expect(await rowsOf(join(at('back'), 'alforja.db'))).to.deep.equal(
      await rowsOf(join(dataPath, 'alforja.db')),
    );
    const { files } = JSON.parse(readFileSync(join(at('one'), 'backup.json'), 'utf8')) as {
      files: { path: string }[];
    };
    expect(filesOf(at('back'))).to.deep.equal(files.map((f) => f.path).sort());
    expect(files.map((f) => f.path)).to.include.members(['alforja.db', 'key']);
    for (const { path } of files.filter((f) => f.path !== 'alforja.db'))
      expect(readFileSync(join(at('back'), path)).equals(readFileSync(join(dataPath, path))), path).to.equal(
        true,
      );
    expect(statSync(at('back')).mode & 0o777).to.equal(0o700);
  });

  it('restored still finds its items by their words', async () => {
    // Rows that are gone leave gaps in the numbers by which the index knows the others.
    const client = createClient({ url: `file:${join(at('back'), 'alforja.db')}` });
    try {
      for (const index of ['items_search', 'search_grams'])
        // Compares the index with the rows it is of (SQLite FTS5, "The 'integrity-check' Command").
        await client.execute(`INSERT INTO ${index}(${index}, rank) VALUES ('integrity-check', 1)`);
      const { rows } = await client.execute(
        `SELECT count(*) AS n FROM items_search JOIN items ON items.rowid = items_search.rowid WHERE items_search MATCH 'light' AND items.says LIKE '%light%'`,
      );
      expect(Number(rows[0]!['n'])).to.be.above(0);
    } finally {
      client.close();
    }
  });

  it('taken while files come in holds every file that its database speaks of', async () => {
    let on = true;
    const coming = (async () => {
      for (; on; await wait(100)) await bring();
    })();
    await alforja('backup', dataPath, '-o', at('busy'));
    on = false;
    await coming;
    await settled();
    await alforja('restore', at('busy'), '-o', at('busy-back'));
    const { packages = [] } = await rowsOf(join(at('busy-back'), 'alforja.db'));
    const sums = packages.map((row) => /"([0-9a-f]{64})"/u.exec(row)?.[1]).filter((sum) => sum !== undefined);
    const lacking = (
      JSON.parse(readFileSync(join(at('busy'), 'backup.json'), 'utf8')) as { missing: string[] }
    ).missing;
    for (const sum of sums.filter((s) => !lacking.includes(s)))
      expect(existsSync(join(at('busy-back'), 'files', sum.slice(0, 2), sum)), sum).to.equal(true);
    expect(sums.length).to.be.above(2);
  });

  it('is refused where something is in its way, and leaves that as it was', async () => {
    mkdirSync(at('taken'));
    mkdirSync(at('empty'));
    writeFileSync(join(at('empty'), 'alforja.db'), '');
    writeFileSync(join(at('taken'), 'mine.txt'), 'mine');
    const calls = [
      ['backup', dataPath, '-o', at('taken')],
      ['restore', at('one'), '-o', at('taken')],
      ['restore', at('taken'), '-o', at('other')],
      ['backup', at('nowhere'), '-o', at('other')],
      ['clean', at('nowhere')],
      ['backup', at('empty'), '-o', at('other')],
    ];
    const said = await Promise.all(calls.map((args) => alforja(...args)));
    for (const [n, { status, json }] of said.entries())
      expect([status, (json['error'] as { code: string }).code], calls[n]!.join(' ')).to.deep.equal([
        2,
        'keeping-refused',
      ]);
    expect(filesOf(at('taken'))).to.deep.equal(['mine.txt']);
    expect(['other', 'nowhere'].filter((n) => existsSync(at(n)))).to.deep.equal([]);
    expect(readdirSync(root).filter((n) => n.includes('partial'))).to.deep.equal([]);
  });

  it('for which a disk has no room says just that, and leaves nothing there', async function () {
    const small = at('small');
    mkdirSync(small);
    if (!mounted(small, 'size=200k')) this.skip();
    try {
      for (const args of [
        ['backup', dataPath, '-o', join(small, 'one')],
        ['restore', at('one'), '-o', join(small, 'back')],
      ]) {
        const { status, json } = await alforja(...args);
        expect(status, args[0]).to.equal(2);
        expect((json['error'] as { message: string }).message).to.match(
          /The disk that \S+ is to be on is full/u,
        );
        expect(readdirSync(small)).to.deep.equal([]);
      }
    } finally {
      unmount(small);
    }
    const { json } = await alforja('backup', dataPath, '-o', '/proc/alforja');
    expect((json['error'] as { message: string }).message).to.contain('/proc/alforja cannot be written');
  });

  it('of which a single bit has turned is not restored, and says which file', async () => {
    const one = filesOf(at('one')).find((f) => f.startsWith('files'))!;
    const bytes = readFileSync(join(at('one'), one));
    bytes[0]! ^= 1;
    writeFileSync(join(at('one'), one), bytes);
    const { status, json } = await alforja('restore', at('one'), '-o', at('bad'));
    expect(status).to.equal(2);
    expect((json['error'] as { message: string }).message).to.contain(one);
    expect(existsSync(at('bad'))).to.equal(false);
  });
});

describe('cleaning', () => {
  before(openServer);
  after(closeServer);
  const DAY = 86_400_000;

  it('says first what it would remove, removes just that, and then nothing more', async () => {
    const long = Date.now() - 400 * DAY;
    await settled();
    const stray = (await storeBytes(item())).sha256;
    utimesSync(storedPath(stray), new Date(long), new Date(long));
    const packageId = (await bringIn('looked.xml', await storeBytes(item()))).package.id;
    await settled();
    await write(async (tx) => {
      await insertNotice(tx, { text: 'long ago', href: '/', tone: 'good' });
      await tx.update(notices).set({ at: long });
      await tx.update(jobs).set({ endedAt: long });
      const look = {
        courseId: 's:kept',
        packageId,
        outline: { sections: [], things: [] },
        purpose: 'whole' as const,
      };
      for (const takenAt of [long, long + DAY]) await insertSnapshot(tx, { ...look, takenAt });
    });
    const would = await clean({ dryRun: true });
    expect(would.files).to.be.at.least(1);
    expect(would.notices).to.be.at.least(1);
    expect(would.jobs).to.be.at.least(1);
    // The latest look into a course stays, however old.
    expect(would.looks).to.equal(1);
    expect(existsSync(storedPath(stray))).to.equal(true);
    const did = await clean();
    expect(did).to.deep.equal(would);
    expect(existsSync(storedPath(stray))).to.equal(false);
    expect((await db.select().from(snapshots)).filter((s) => s.courseId === 's:kept').length).to.equal(1);
    const after = await clean({ dryRun: true });
    expect([after.files, after.notices, after.jobs, after.looks]).to.deep.equal([0, 0, 0, 0]);
  });

  it('keeps what is younger than its rules say', async () => {
    await write((tx) => insertNotice(tx, { text: 'today', href: '/', tone: 'good' }));
    const came = await clean({ dryRun: true, now: Date.now() + (RETENTION.notices - 1) * DAY });
    expect(came.notices).to.equal(0);
    expect(
      (await clean({ dryRun: true, now: Date.now() + (RETENTION.notices + 1) * DAY })).notices,
    ).to.be.above(0);
  });
});
