import { expect } from 'chai';
import { unzipSync } from 'fflate';
import type { TransferState } from '../../../src/lib/shared/transfers.ts';
import { read } from '../../support/read.ts';
import { beginSending, beginUndo } from '../../../src/lib/server/transfer/begin.ts';
import { decide } from '../../../src/lib/server/transfer/decisions.ts';
import { judgedDifferences } from '../../../src/lib/server/transfer/judged.ts';
import { mend } from '../../../src/lib/server/transfer/mend.ts';
import { transferPage } from '../../../src/lib/server/transfer/page.ts';
import {
  chooseTicks,
  rename,
  setOptions,
  setOverride,
  setTarget,
} from '../../../src/lib/server/transfer/plan.ts';
import { receive } from '../../../src/lib/server/transfer/receive.ts';
import { receiptById } from '../../../src/lib/server/transfer/receipt.ts';
import { receiptCsv } from '../../../src/lib/server/transfer/receiptCsv.ts';
import { startTransfer } from '../../../src/lib/server/transfer/start.ts';
import { stateOf } from '../../../src/lib/server/transfer/state.ts';
import { bringIn } from '../../../src/lib/server/library/packages.ts';
import { readStored, storeBytes } from '../../../src/lib/server/store/files.ts';
import { ticksOf } from '../../../src/lib/server/store/ticks.ts';
import { transferById, type Transfer } from '../../../src/lib/server/store/transfers.ts';
import { assessmentXml, PLAIN } from '../../../demo/qti12.ts';
import { TIDAL_EXAM } from '../../../demo/items.ts';
import { brought, closeServer, openServer, settled } from '../../support/server.ts';

const exam = (over: (i: (typeof TIDAL_EXAM)[number]) => object = () => ({}), count = 6): string =>
  assessmentXml(
    {
      id: 'evening',
      title: 'Evening quiz',
      items: TIDAL_EXAM.slice(0, count).map((i) => ({ ...i, ...over(i) })),
    },
    PLAIN,
  );

let fresh = 0;
/** A transfer of the whole exam into a file; each from a file of its own. */
async function started(): Promise<string> {
  const held = await brought('evening.xml', `${exam()}<!-- ${++fresh} -->`);
  return (await startTransfer({ packageId: held.id }, null))!;
}
const transfer = async (id: string): Promise<Transfer> => (await transferById(id))!;
const state = async (id: string): Promise<TransferState> => stateOf(await transfer(id));
async function sent(id: string): Promise<Transfer> {
  await beginSending(await transfer(id));
  await settled();
  return transfer(id);
}
/** What came back of a transfer, compared. */
async function returned(id: string, content: string | Uint8Array): Promise<Transfer> {
  const { package: kept } = await bringIn(
    'back.xml',
    await storeBytes(typeof content === 'string' ? new TextEncoder().encode(content) : content),
  );
  expect(await receive(id, kept.id)).to.equal(null);
  await settled();
  return transfer(id);
}

describe('a transfer into a file', () => {
  before(openServer);
  after(closeServer);

  it('begins with everything, in the format that was always there, and plans when it is asked', async () => {
    const id = await started();
    expect(await ticksOf(id)).to.deep.equal([{ kind: 'quiz', nodeId: 'evening' }]);
    expect((await state(id)).plan).to.equal(null);
    await settled();
    const { plan, to, targetChosen } = await state(id);
    expect([to.kind, targetChosen, plan!.target]).to.deep.equal(['file', true, 'qti2.1']);
    expect(plan!.landings.map((l) => [l.name, l.action, l.sectionBy])).to.deep.equal([
      ['Evening quiz', 'add', 'outside'],
    ]);
    expect(plan!.troubles).to.deep.equal([]);
  });

  it('plans anew when ticks, names, settings or format change, and not otherwise', async () => {
    const id = await started();
    await state(id);
    await settled();
    const first = (await state(id)).plan!;
    expect((await state(id)).plan!.basis).to.equal(first.basis);
    await setOverride(id, 'quiz evening', { name: 'Mock exam' });
    await settled();
    expect((await state(id)).plan!.landings[0]!.name).to.equal('Mock exam');
    expect((await state(id)).byHand).to.deep.equal(['quiz evening']);
    await setOverride(id, 'quiz evening', null);
    await setTarget(id, 'cc1.3');
    await settled();
    expect((await state(id)).plan).to.deep.include({ target: 'cc1.3' });
    expect((await state(id)).plan!.landings[0]!.name).to.equal('Evening quiz');
    await setTarget(id, null);
    await settled();
    expect((await state(id)).targetChosen).to.equal(false);
    await chooseTicks(id, [{ kind: 'item', nodeId: TIDAL_EXAM[0]!.id }]);
    expect((await state(id)).plan, 'ticks changed').to.equal(null);
    await settled();
    expect((await state(id)).plan!.landings).to.deep.equal([]);
  });

  it('keeps both of two quick changes', async () => {
    const id = await started();
    await Promise.all([
      setOverride(id, 'quiz evening', { name: 'Mock exam' }),
      setOverride(id, 'bank other', { name: 'Lights' }),
      setOverride(id, 'quiz evening', { opens: '2026-11-30T09:00:00+01:00' }),
      rename(id, 'Renamed'),
    ]);
    await settled();
    const { overrides, title } = await transfer(id);
    expect(title).to.equal('Renamed');
    expect(overrides).to.deep.equal({
      'quiz evening': { name: 'Mock exam', opens: '2026-11-30T09:00:00+01:00' },
      'bank other': { name: 'Lights' },
    });
  });

  it('is written with the names it was given, and what was written is kept', async () => {
    const id = await started();
    await setOverride(id, 'quiz evening', { name: 'Mock exam' });
    const done = await sent(id);
    expect(done.sending!.steps.map((s) => [s.name, s.state])).to.deep.equal([
      ['read', 'done'],
      ['convert', 'done'],
    ]);
    expect(done.sent!.parts.map((p) => p.name)).to.deep.equal(['evening-quiz.zip']);
    const back = await read(await readStored(done.sent!.parts[0]!.sha256), 'x.zip');
    expect([back.quizzes[0]!.title, back.items.length]).to.deep.equal(['Mock exam', 6]);
  });

  it('that comes back whole is intact, and its receipt says so', async () => {
    const id = await started();
    const done = await sent(id);
    const after = await returned(id, await readStored(done.sent!.parts[0]!.sha256));
    expect(after.arrival!.comparison.verdict).to.equal('intact');
    expect(after.tally).to.deep.include({ verdict: 'intact', open: 0 });
    expect(after.sending!.steps.map((s) => s.name)).to.deep.equal(['read', 'convert', 'back', 'compare']);
    const receipt = (await receiptById(id))!;
    expect([receipt.verdict, receipt.open, receipt.way.to, receipt.way.planned[0]!.action]).to.deep.equal([
      'intact',
      0,
      null,
      'in the file',
    ]);
    expect(receipt.sent!.sha256).to.equal(done.sent!.parts[0]!.sha256);
  });

  it('that comes back altered names what differs; it is accepted with a reason, and opened again', async () => {
    const id = await started();
    await sent(id);
    const altered = exam((i) => (i.id === 'tide-05' ? { points: 9 } : {}), 5);
    const after = await returned(id, altered);
    expect(after.arrival!.comparison.counts).to.deep.include({ altered: 1, missing: 1 });
    const differences = await judgedDifferences(await transfer(id));
    const item = differences.find((d) => d.itemState === 'altered')!;
    expect([item.items, item.mend, item.decision]).to.deep.equal([['tide-05'], 'write', null]);
    const open = after.tally!.open;
    await decide(after, [item.id], 'Worth more this year.');
    expect((await transfer(id)).tally!.open).to.equal(open - 1);
    const receipt = (await receiptById(id))!;
    expect([receipt.accepted, receipt.open]).to.deep.equal([1, open - 1]);
    expect(receipt.differences.find((d) => d.accepted)!.accepted!.reason).to.equal('Worth more this year.');
    expect(receiptCsv(receipt)).to.contain('accepted: Worth more this year.');
    await decide(await transfer(id), [item.id], '');
    expect((await transfer(id)).tally!.open).to.equal(open);
  });

  it('writes a package of only what is missing or altered, beside the whole', async () => {
    const id = await started();
    const whole = await sent(id);
    await returned(
      id,
      exam((i) => (i.id === 'tide-05' ? { points: 9 } : {}), 5),
    );
    const differences = await judgedDifferences(await transfer(id));
    const items = differences.filter((d) => d.items.length > 0);
    await mend(
      await transfer(id),
      (await transfer(id)).arrival!,
      items.map((d) => d.id),
    );
    await settled();
    const { sent: after, sending } = await transfer(id);
    expect(sending!.only).to.have.property('ticks');
    expect(after!.parts, 'the whole stays as it was sent').to.deep.equal(whole.sent!.parts);
    expect(after!.again.length).to.equal(1);
    const part = await read(await readStored(after!.again[0]!.parts[0]!.sha256), 'x.zip');
    expect(part.items.map((i) => i.id).sort()).to.deep.equal(items.flatMap((d) => d.items).sort());
    expect((await receiptById(id))!.sent!.more.length).to.equal(1);
  });

  it('takes the file dropped last for what came back', async () => {
    const id = await started();
    const done = await sent(id);
    const first = await brought('one.xml', `${exam(undefined, 2)}<!-- first ${fresh} -->`);
    const good = await bringIn('good.zip', await storeBytes(await readStored(done.sent!.parts[0]!.sha256)));
    expect(await receive(id, first.id)).to.equal(null);
    expect(await receive(id, good.package.id)).to.equal(null);
    await settled();
    const { arrival, arrivedPackageId } = await transfer(id);
    expect(arrivedPackageId).to.equal(good.package.id);
    expect(arrival!.comparison.verdict).to.equal('intact');
  });

  it('refuses what cannot be received', async () => {
    const id = await started();
    expect(await receive(id, 'no-such-package')).to.equal('unknown');
    expect(await receive('no-such-transfer', 'x')).to.equal('unknown');
  });

  it('says why a file that came back cannot be compared, and keeps it', async () => {
    const id = await started();
    await sent(id);
    const { package: kept } = await bringIn(
      'torn.zip',
      await storeBytes(new Uint8Array([0x50, 0x4b, 3, 4, fresh])),
    );
    await receive(id, kept.id);
    await settled();
    const { sending, arrival } = await transfer(id);
    expect(arrival).to.equal(null);
    expect(sending!.failure!.detail).to.match(/zip is incomplete/u);
    expect(sending!.steps.find((s) => s.name === 'back')!.state).to.equal('failed');
  });

  it('leaves settings to where it is brought in, if that is asked, and does not miss them', async () => {
    const id = await started();
    const { options } = await transfer(id);
    await setOptions(id, {
      ...options,
      settings: { ...options.settings, attempts: false, timeLimit: false },
    });
    await settled();
    const done = await sent(id);
    const back = await read(await readStored(done.sent!.parts[0]!.sha256), 'x.zip');
    expect(back.quizzes[0]!.settings).to.deep.include({ attempts: null, timeLimitMinutes: null });
    expect(
      (await returned(id, exam())).arrival!.comparison.containers.flatMap((c) =>
        c.differences.map((d) => d.facet),
      ),
    ).not.to.include('attempts');
  });

  it('brings each stage of its page its own lists, and no other’s', async () => {
    const id = await started();
    const contents = (await transferPage(id, undefined))!;
    expect([contents.stage, contents.picking!.list.groups.length, contents.arrival]).to.deep.equal([
      'contents',
      1,
      null,
    ]);
    await sent(id);
    expect((await transferPage(id, undefined))!.stage).to.equal('send');
    const done = await returned(id, exam(undefined, 5));
    const page = (await transferPage(id, undefined))!;
    expect([page.stage, page.picking, page.arrival!.seam.states]).to.deep.equal(['arrival', null, 'iiiiim']);
    expect(page.arrival!.seam.first.map((row) => row.state)).to.deep.equal([
      ...Array<string>(5).fill('intact'),
      'missing',
    ]);
    expect([page.arrival!.differences.open, page.state.open]).to.deep.equal([
      done.tally!.open,
      done.tally!.open,
    ]);
    expect(page.stale).to.equal(false);
    await chooseTicks(id, []);
    expect((await transferPage(id, 'send'))!.stale).to.equal(true);
    expect((await transferPage(id, 'receipt'))!.receipt!.verdict).to.equal('incomplete');
    expect(await transferPage('no-such-transfer', undefined)).to.equal(null);
  });

  it('writes a cartridge series where one file is not enough, each a sound zip', async () => {
    const held = await brought(
      'two-banks.xml',
      `<questestinterop>${['a', 'b'].map((b) => `<objectbank ident="${b}"><qtimetadata/><item ident="${b}1"><presentation><material><mattext>${b}?</mattext></material><response_lid ident="r"><render_choice><response_label ident="x"><material><mattext>x</mattext></material></response_label></render_choice></response_lid></presentation></item></objectbank>`).join('')}</questestinterop>`,
    );
    const id = (await startTransfer({ packageId: held.id }, null))!;
    await setTarget(id, 'cc1.3');
    const { sent: written } = await sent(id);
    expect(written!.parts.map((p) => p.name.replace(/^.*-(?=\d)/u, ''))).to.deep.equal([
      '1.imscc',
      '2.imscc',
    ]);
    for (const { sha256 } of written!.parts)
      expect(Object.keys(unzipSync(await readStored(sha256)))).to.include('imsmanifest.xml');
  });

  it('can be taken back nowhere, and says so', async () => {
    const id = await started();
    await sent(id);
    expect(await beginUndo(id)).to.equal(true);
    await settled();
    expect((await transfer(id)).sending!.undone).to.equal(null);
  });
});
