import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { changeRule, confirmRule, removeRule } from '../../../src/lib/server/library/readingRules.ts';
import { basisOf } from '../../../src/lib/server/library/reading.ts';
import { gradableItems } from '../../../src/lib/server/library/packages.ts';
import { inThread } from '../../../src/lib/server/runner/threads.ts';
import { db, write } from '../../../src/lib/server/store/database.ts';
import { storeBytes } from '../../../src/lib/server/store/files.ts';
import { insertItems, itemLines } from '../../../src/lib/server/store/items.ts';
import { packageById } from '../../../src/lib/server/store/packages.ts';
import { listRules } from '../../../src/lib/server/store/readingRules.ts';
import {
  beginReading,
  finishReading,
  releaseReadings,
  sweepReadings,
} from '../../../src/lib/server/store/readings.ts';
import { jobs, readings } from '../../../src/lib/server/store/schema.ts';
import { assessmentXml, bankXml, PLAIN } from '../../../demo/qti12.ts';
import { LIGHTS_BANK, TIDAL_EXAM } from '../../../demo/items.ts';
import { bytesOf } from '../../support/read.ts';
import {
  brought,
  closeServer,
  openServer,
  settled,
  packageItem,
  packageItems,
} from '../../support/server.ts';

describe('the reading of a package', () => {
  before(openServer);
  after(closeServer);

  it('is one: screens and transfers take the same rows', async () => {
    const held = await brought('one.xml', bankXml('one', LIGHTS_BANK.slice(0, 5), PLAIN, 'Lights'));
    expect([held.state, held.summary!.items, held.tree!.banks.length]).to.deep.equal(['ready', 5, 1]);
    const lines = await itemLines(held.readingId!);
    const items = await packageItems(held.id);
    expect(lines.map((l) => l.id)).to.deep.equal(items.map((i) => i.id));
    expect((await packageItem(held.id, 3))!.id).to.equal(items[3]!.id);
    expect(await packageItem(held.id, 9)).to.equal(null);
  });

  it('is made again when a rule is confirmed, changed or taken back, and shown as it was until then', async () => {
    const field =
      '<qtimetadatafield><fieldlabel>x_worth</fieldlabel><fieldentry>7</fieldentry></qtimetadatafield>';
    const xml = bankXml('ruled', LIGHTS_BANK.slice(0, 3), PLAIN, 'Ruled').replaceAll(
      /<qtimetadatafield><fieldlabel>qmd_weighting.*?<\/qtimetadatafield>/gu,
      field,
    );
    const before = await brought('ruled.xml', xml);
    const points = async (): Promise<number> => (await packageById(before.id))!.summary!.points;
    const { origin } = before.summary!;
    const plain = await points();
    await confirmRule({ name: 'Worth', origin, label: 'x_worth', means: 'points' });
    expect((await packageById(before.id))!.tree, 'hidden while it is read anew').not.to.equal(null);
    await settled();
    expect(await points()).to.equal(21);
    expect((await itemLines(before.readingId!)).length, 'rows of the earlier reading').to.equal(0);
    const [rule] = (await listRules()).filter((r) => r.label === 'x_worth');
    const { readingId } = (await packageById(before.id))!;
    await changeRule(rule!.id, { name: 'Another name', means: 'points' });
    await settled();
    expect((await packageById(before.id))!.readingId, 'a name alone reads nothing anew').to.equal(readingId);
    expect(await removeRule(rule!.id)).to.equal(true);
    await settled();
    expect(await points()).to.equal(plain);
    expect(await removeRule(rule!.id)).to.equal(false);
  });

  it('rests on the rules that hold for its origin, and on tables only where it is one', () => {
    const format = { container: 'xml', standard: 'qti', version: '1.2' } as const;
    const rule = { name: 'n', origin: 'tool a', label: 'x', means: 'points' } as const;
    const layout = { header: ['a'], roles: [] };
    const basis = (origin: string, rules: readonly (typeof rule)[], container: 'xml' | 'csv' = 'xml') =>
      basisOf({ origin, format: { ...format, container } }, { rules, layouts: [layout], known: [] });
    expect(basis('tool b', [rule])).to.equal(basis('tool b', []));
    expect(basis('tool a', [rule])).not.to.equal(basis('tool a', []));
    expect(basis('tool b', [], 'csv')).not.to.equal(basis('tool b', []));
  });

  it('says of a file that cannot be read why, and keeps it', async () => {
    const held = await brought('broken.zip', new Uint8Array([0x50, 0x4b, 3, 4, 0, 0]));
    expect([held.state, held.tree]).to.deep.equal(['failed', null]);
    expect(held.failure!.code).to.equal('archive-truncated');
  });

  /** Some of a reading that is under way. */
  async function begun(id: string, jobId: string | null, items = 3): Promise<void> {
    const held = await brought('some.xml', bankXml('some', LIGHTS_BANK.slice(0, 5), PLAIN, 'Some'));
    const { tree, families, putRight } = held;
    const row = {
      ...{ title: '', stem: '', kinds: 'none', points: 0, fingerprint: '', category: null },
      ...{ gradedByHand: false, json: '{}', files: '' },
      ...{ keyText: '', shortKey: '', says: '', keyed: '' },
    };
    await write(async (tx) => {
      await beginReading(tx, { id, packageId: 'some', jobId });
      await finishReading(tx, id, { tree: tree!, families, putRight });
      const rows = Array.from({ length: items }, (_, seq) => ({ row: { ...row, nodeId: `x${seq}` }, seq }));
      for (let at = 0; at < items; at += 100) await insertItems(tx, id, rows.slice(at, at + 100));
    });
  }

  it('that was broken off leaves nothing behind, however many items it had', async () => {
    const shown = await brought('shown.xml', bankXml('shown', LIGHTS_BANK.slice(0, 4), PLAIN, 'Shown'));
    await begun('stray', null, 450);
    await begun('of a job that is gone', 'gone');
    expect((await itemLines('stray')).length).to.equal(450);
    await sweepReadings();
    for (const id of ['stray', 'of a job that is gone']) {
      expect(await itemLines(id)).to.deep.equal([]);
      expect(await db.select().from(readings).where(eq(readings.id, id))).to.deep.equal([]);
    }
    expect((await itemLines(shown.readingId!)).length).to.equal(4);
  });

  it('that a job is making is let alone until that lets go of it', async () => {
    const [job] = await db.select().from(jobs).limit(1);
    await begun('being made', job!.id);
    await write((tx) => tx.update(jobs).set({ state: 'running' }).where(eq(jobs.id, job!.id)));
    await sweepReadings();
    expect((await itemLines('being made')).length).to.equal(3);
    await write(async (tx) => {
      await releaseReadings(tx, { packageId: 'some', jobId: job!.id });
      await tx.update(jobs).set({ state: 'done' }).where(eq(jobs.id, job!.id));
    });
    await sweepReadings();
    expect(await itemLines('being made')).to.deep.equal([]);
  });

  it('writes nothing for a job that was stopped or is another’s', async () => {
    const stored = await storeBytes(bytesOf(bankXml('fenced', LIGHTS_BANK.slice(0, 5), PLAIN, 'Fenced')));
    const asked = {
      ...{
        sha256: stored.sha256,
        name: 'fenced.xml',
        rules: [],
        layouts: [],
        known: [],
        layer: [],
        steps: [],
      },
      reading: { id: 'fenced', packageId: 'fenced', jobId: 'nobody’s' },
    };
    const by = { job: 'nobody’s', owner: 'nobody' };
    const failed = await inThread(
      { kind: 'read', asked, by },
      () => undefined,
      new AbortController().signal,
    ).then(
      () => null,
      (error: unknown) => error,
    );
    expect(failed).to.be.instanceOf(Error);
    expect(await itemLines('fenced')).to.deep.equal([]);
    expect(await db.select().from(readings).where(eq(readings.id, 'fenced'))).to.deep.equal([]);
  });

  it('tells items that a person has to grade by their scoring, not by their kind', async () => {
    const essay = TIDAL_EXAM.filter((i) => i.kind === 'essay');
    const held = await brought(
      'essays.xml',
      assessmentXml({ id: 'e', title: 'E', items: TIDAL_EXAM }, PLAIN),
    );
    const byHand = await gradableItems(held.id);
    expect(byHand.length).to.equal(essay.length);
    expect(byHand.every((g) => g.kind === 'item' && g.name !== '')).to.equal(true);
  });
});
