import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { expect } from 'chai';
import fc from 'fast-check';
import { Refusal, speak } from '@alforja/core';
import { packageFileBytes } from '../../../src/lib/server/library/dataFiles.ts';
import { bringIn } from '../../../src/lib/server/library/packages.ts';
import { readAgain } from '../../../src/lib/server/library/reading.ts';
import { runner } from '../../../src/lib/server/jobs.ts';
import { write } from '../../../src/lib/server/store/database.ts';
import { readStored, storeBytes, storedPath, verifyStored } from '../../../src/lib/server/store/files.ts';
import { latestJobs, queueJob } from '../../../src/lib/server/store/jobs.ts';
import { packageById } from '../../../src/lib/server/store/packages.ts';
import { demoFiles } from '../../../demo/packages.ts';
import { brought, closeServer, openServer, settled } from '../../support/server.ts';

/** What is said where bytes are asked for; "sound" where they are as they came. */
const said = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'sound',
    (error: unknown) => {
      if (!(error instanceof Refusal)) throw error;
      return error.finding.code;
    },
  );

describe('stored bytes', () => {
  before(openServer);
  after(closeServer);

  it('with any bit of theirs turned are damaged, and healed when the same come in again', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.uint8Array({ minLength: 1, maxLength: 5000 }),
        fc.nat(),
        fc.integer({ min: 0, max: 7 }),
        async (bytes, at, bit) => {
          const { sha256 } = await storeBytes(bytes);
          expect(await said(verifyStored(sha256))).to.equal('sound');
          const turned = Uint8Array.from(bytes);
          turned[at % bytes.length]! ^= 1 << bit;
          writeFileSync(storedPath(sha256), turned);
          expect(await said(readStored(sha256))).to.equal('stored-damaged');
          writeFileSync(storedPath(sha256), bytes.subarray(1));
          expect(await said(verifyStored(sha256))).to.equal('stored-damaged');
          await storeBytes(bytes);
          expect(Buffer.from(await readStored(sha256)).equals(Buffer.from(bytes))).to.equal(true);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('that are gone are named, and come back with the same file', async () => {
    const { sha256 } = await storeBytes(new TextEncoder().encode('here, then gone'));
    rmSync(storedPath(sha256));
    expect(await said(readStored(sha256))).to.equal('stored-gone');
    await storeBytes(new TextEncoder().encode('here, then gone'));
    expect(await said(readStored(sha256))).to.equal('sound');
  });

  it('of a package that are damaged are said where its files are shown, and where it is read anew', async () => {
    const { name, bytes } = demoFiles().find((f) => f.name.endsWith('.imscc'))!;
    // A package of this test's own.
    const held = await brought(name, bytes);
    const path = held.tree!.files.find((f) => f.path.endsWith('.png'))!.path;
    const stored = storedPath(held.sha256);
    const whole = readFileSync(stored);
    const turned = Buffer.from(whole);
    turned[Math.floor(turned.length / 2)]! ^= 1;
    writeFileSync(stored, turned);
    const shown = await packageFileBytes(held.id, path).then(
      () => 'shown',
      (error: Error) => error.message,
    );
    expect(shown).to.match(/bytes that are stored of this file have changed on the disk/u);
    // What was read of it stands as it was.
    expect((await packageById(held.id))!.state).to.equal('ready');
    await bringIn(name, await storeBytes(bytes));
    expect((await packageFileBytes(held.id, path))!.length).to.be.above(0);
  });
});

describe('a reading that came to nothing', () => {
  before(openServer);
  after(closeServer);
  const xml = (id: string): string =>
    `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="${id}" title="${id}"><itemBody><p>${id}</p></itemBody></assessmentItem>`;

  it('since its bytes were damaged is made good by bringing the same file again', async () => {
    const bytes = new TextEncoder().encode(xml('healed'));
    const stored = await storeBytes(bytes);
    writeFileSync(storedPath(stored.sha256), 'something else');
    const { package: kept } = await bringIn('healed.xml', stored);
    await settled();
    const failed = (await packageById(kept.id))!;
    expect([failed.state, failed.failure?.code]).to.deep.equal(['failed', 'stored-damaged']);
    const again = await bringIn('healed.xml', await storeBytes(bytes));
    expect([again.known, again.package.state]).to.deep.equal([true, 'reading']);
    await settled();
    expect((await packageById(kept.id))!.summary?.items).to.equal(1);
  });

  it('since somebody stopped it says so, and is read again when somebody asks for it', async () => {
    const { package: kept } = await bringIn(
      'stopped.xml',
      await storeBytes(new TextEncoder().encode(xml('stopped'))),
    );
    await runner.cancel((await latestJobs(kept.id)).read!.id);
    await settled();
    const stopped = (await packageById(kept.id))!;
    if (stopped.state !== 'ready') {
      expect(speak(stopped.failure!).message).to.equal('The reading was stopped by hand.');
      await readAgain(kept.id);
      await settled();
    }
    expect((await packageById(kept.id))!.summary?.items).to.equal(1);
  });

  it('is done once where it was asked for several times', async () => {
    const held = await brought('once.xml', xml('once'));
    const before = held.readingId;
    await write((tx) => queueJob(tx, 'read', held.id));
    await settled();
    // It is shown as it would be read now: there is nothing to do.
    expect((await packageById(held.id))!.readingId).to.equal(before);
  });
});
