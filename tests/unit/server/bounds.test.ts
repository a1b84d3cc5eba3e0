import { spawnSync } from 'node:child_process';
import { rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { speak } from '@alforja/core';
import { itemScore, itemView } from '../../../src/lib/server/library/packages.ts';
import { listBanks } from '../../../src/lib/server/library/banks.ts';
import { listRubrics, rubricAt } from '../../../src/lib/server/library/heldRubrics.ts';
import { packageSeen } from '../../../src/lib/server/library/room.ts';
import { packageFileBytes, peepAt } from '../../../src/lib/server/library/dataFiles.ts';
import { JobFailure } from '../../../src/lib/server/runner/handler.ts';
import { inThread } from '../../../src/lib/server/runner/threads.ts';
import { storeBytes } from '../../../src/lib/server/store/files.ts';
import { packageById } from '../../../src/lib/server/store/packages.ts';
import { HOSTILE } from '../../hostile/all.ts';
import { largePackage } from '../../../demo/large.ts';
import { putRight } from '../../../src/lib/server/library/putRight.ts';
import { itemLines } from '../../../src/lib/server/store/items.ts';
import { longestHeld, watchMainThread } from '../../support/held.ts';
import { brought, closeServer, openServer, settled } from '../../support/server.ts';

/**
 * The main thread is held no longer than this, in ms: what is measured takes a few of them, and once took minutes. It
 * leaves room for the collector.
 */
const HELD_MS = 400;

describe('what untrusted files ask for', () => {
  before(() => openServer());
  after(() => closeServer());
  const hostile = (words: string) => HOSTILE.find((h) => h.name.includes(words))!;

  it('is measured without what was waited for, and without pauses of the collector', () => {
    const stretches = [
      { from: 0, to: 500, waited: 50 },
      { from: 500, to: 720, waited: 0 },
    ];
    expect(longestHeld(stretches, [])).to.equal(450);
    expect(longestHeld(stretches, [{ startTime: 400, duration: 150 }])).to.equal(350);
    expect(longestHeld(stretches, [{ startTime: -100, duration: 400 }])).to.equal(220);
    expect(longestHeld(stretches, [{ startTime: 900, duration: 400 }])).to.equal(450);
  });

  it('never holds up the main thread, whatever is opened', async () => {
    const given = hostile('operators over a million');
    const { id } = await brought(given.file, given.make());
    const held = (await packageById(id))!;
    expect(held.tree!.findings.map((f) => f.code)).to.include('scoring-too-long');
    const unwatched = watchMainThread();
    const views = await Promise.all([0, 1].map((seq) => itemView(id, seq)));
    expect(views.map((v) => (JSON.parse(v!) as { kind: string }).kind)).to.include('program');
    expect(await itemScore(id, 0, { R: [1] })).to.include({ score: '0' });
    expect(await packageFileBytes(id, 'nothing.png')).to.equal(null);
    expect(await peepAt(id, '../../alforja.db')).to.equal(null);
    const longest = await unwatched();
    expect(longest).to.be.below(HELD_MS);
  });

  it('never holds up the main thread while thousands of items are read, shown, read anew and swept away', async () => {
    const bytes = largePackage(3000);
    const unwatched = watchMainThread();
    const held = await brought('large.zip', bytes);
    const before = held.readingId!;
    const [first] = await itemLines(before);
    await putRight(held.id, { way: 'hand', edits: [{ op: 'title', node: first!.id, to: 'Another' }] });
    await settled();
    const longest = await unwatched();
    const now = (await packageById(held.id))!;
    expect([now.summary!.items, (await itemLines(now.readingId!)).length]).to.deep.equal([3000, 3000]);
    expect(now.readingId).not.to.equal(before);
    expect(await itemLines(before)).to.deep.equal([]);
    expect(longest).to.be.below(HELD_MS);
  });

  it('never holds up the main thread while pages of very much are worked out', async () => {
    const rubric = hostile('a hundred thousand criteria');
    const many = hostile('twenty thousand files that are not there');
    const ids = [await brought(rubric.file, rubric.make()), await brought(many.file, many.make())].map(
      (h) => h.id,
    );
    const unwatched = watchMainThread();
    const [rubrics, files] = await Promise.all(ids.map((id) => packageSeen(id)));
    const listed = await listRubrics();
    expect(await listBanks(true)).to.have.length.above(0);
    expect(await rubricAt(ids[0]!, 'r')).to.include({ criteria: 100_000 });
    const longest = await unwatched();
    expect(rubrics!.rubrics!.rubrics.map((r) => r.criteria)).to.deep.equal([100_000]);
    expect(listed.find((r) => r.place === ids[0])!.criteria).to.equal(100_000);
    expect(files!.room!.short!.decide).to.be.above(1000);
    expect(files!.room!.findings).to.have.length(200);
    expect(longest).to.be.below(HELD_MS);
  });

  it('ends at its deadline in words, and the next is done as ever', async () => {
    const { sha256 } = await storeBytes(hostile('two thousand questions').make());
    const asked = {
      ...{ sha256, name: 'costly.zip', rules: [], layouts: [], known: [], layer: [], steps: [] },
      reading: { id: 'costly', packageId: 'costly', jobId: null },
    };
    const quiet = new AbortController().signal;
    const failure = await inThread({ kind: 'read', asked }, () => undefined, quiet, { deadline: 700 }).then(
      () => null,
      (error: unknown) => error,
    );
    if (!(failure instanceof JobFailure)) throw failure;
    expect(speak(failure.finding).message).to.match(/more than 1 seconds|more than 0 seconds/u);
    expect(failure.finding.code).to.equal('work-too-long');
    expect(
      await inThread({ kind: 'file', asked: { packageId: 'x', path: 'y' } }, () => undefined, quiet),
    ).to.equal(null);
  });

  const bounded: readonly [what: string, setting: Record<string, string>, code: string][] = [
    ['the ceiling of its memory', { ALFORJA_THREAD_MB: '60' }, 'work-too-large'],
    ['its deadline', { ALFORJA_SECONDS: '0.3' }, 'work-too-long'],
  ];
  for (const [what, setting, code] of bounded)
    it(`ends at ${what} in words, on the command line too`, () => {
      const path = join(tmpdir(), `alforja-bounds-${process.pid}.xml`);
      writeFileSync(path, hostile('a million empty elements').make());
      const { status, stdout } = spawnSync(
        process.execPath,
        ['cli/bin/alforja.js', 'inspect', path, '--json'],
        { encoding: 'utf8', env: { ...process.env, ...setting } },
      );
      rmSync(path);
      expect(status).to.equal(2);
      expect((JSON.parse(stdout) as { error: { code: string } }).error.code).to.equal(code);
    });
});
