import { chmodSync, existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { createClient } from '@libsql/client';
import { expect } from 'chai';
import { runApart } from '../../support/apart.ts';
import { mounted, unmount } from '../../support/mount.ts';

/** Opens a data folder in a process of its own. @returns what it says, one after the other */
const opened = async (folder: string, ...args: string[]): Promise<string[]> =>
  JSON.parse(await runApart('opening.ts', folder, ...args)) as string[];

describe('a data folder', () => {
  let root: string;
  before(() => (root = mkdtempSync(join(tmpdir(), 'alforja-opening-'))));
  after(() => rmSync(root, { recursive: true, force: true }));
  const folder = (name: string): string => {
    const path = join(root, name);
    mkdirSync(path, { recursive: true });
    return path;
  };

  it('that is new is opened, by several processes at the same moment too', async () => {
    const data = folder('new');
    expect(await Promise.all([1, 2, 3].map(() => opened(data)))).to.deep.equal([
      ['done'],
      ['done'],
      ['done'],
    ]);
  });

  it('that another process is writing is opened as soon as it has done', async () => {
    const data = folder('held');
    const client = createClient({ url: `file:${join(data, 'alforja.db')}` });
    await client.execute('PRAGMA journal_mode = WAL');
    const held = await client.transaction('write');
    const said = opened(data);
    // The folder of temporary files is made just before the database is opened.
    while (!existsSync(join(data, 'tmp'))) await wait(50);
    await wait(3000);
    await held.rollback();
    expect(await said).to.deep.equal(['done']);
    client.close();
  });

  const cases: readonly [string, (data: string) => Promise<void> | void, RegExp][] = [
    [
      'whose database is garbage',
      (data) => writeFileSync(join(data, 'alforja.db'), 'These are no rows. '.repeat(99)),
      /alforja\.db is damaged, or no database of this application\. Restore a backup; the stored files beside it are untouched/u,
    ],
    [
      'whose database is cut off in its first page',
      (data) => writeFileSync(join(data, 'alforja.db'), `SQLite format 3\0${'x'.repeat(200)}`),
      /alforja\.db is damaged/u,
    ],
    [
      'whose database is gone while files are there',
      (data) => {
        mkdirSync(join(data, 'files', 'ab'), { recursive: true });
        writeFileSync(join(data, 'files', 'ab', 'abcd'), 'x');
      },
      /holds 1 stored files, but its database \(.*\) is missing or empty\. Restore a backup/u,
    ],
    [
      'that a newer version has used',
      async (data) => {
        await opened(data);
        const client = createClient({ url: `file:${join(data, 'alforja.db')}` });
        await client.execute(
          `INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('x', 99999999999999)`,
        );
        client.close();
      },
      /was used by a newer version of this application\. Start that version/u,
    ],
    [
      'that is a file',
      (data) => {
        rmSync(data, { recursive: true });
        writeFileSync(data, 'x');
      },
      /is no folder\. Name another one in ALFORJA_DATA/u,
    ],
  ];
  for (const [name, make, says] of cases)
    it(`${name} is named at the start`, async () => {
      const data = folder(name.replace(/\W+/gu, '-'));
      await make(data);
      const [first] = await opened(data);
      expect(first).to.match(says);
    });

  it('that cannot be written is named at the start', async function () {
    const data = folder('read-only');
    // Whoever may mount may also write where the rights say no: for them the file system has to say it.
    const isMounted = mounted(data, 'size=1m,ro');
    if (!isMounted && process.getuid?.() === 0) this.skip();
    if (!isMounted) chmodSync(data, 0o500);
    try {
      expect((await opened(data))[0]).to.match(/cannot be written by this user\. Give it the right to/u);
    } finally {
      if (isMounted) unmount(data);
    }
  });

  it('in a file system of the kernel is refused, and not waited for', async () => {
    expect((await opened('/proc/alforja'))[0]).to.match(/cannot be written by this user/u);
  });

  it('whose disk is full says so, keeps what it has, takes nothing in half, and goes on when there is room', async function () {
    const data = folder('full');
    if (!mounted(data, 'size=3m')) this.skip();
    try {
      const full = /The disk of the data folder .* is full\. Make room; nothing that was stored is lost/u;
      const [start, large, many, all, after] = await opened(data, 'fill');
      expect([start, all, after]).to.deep.equal(['done', 'all there', 'done']);
      expect(large).to.match(full);
      expect(many).to.match(full);
    } finally {
      unmount(data);
    }
  });
});
