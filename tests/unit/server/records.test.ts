import { expect } from 'chai';
import { DEFAULT_OPTIONS } from '../../../src/lib/shared/transfers.ts';
import { requestSnapshot } from '../../../src/lib/server/library/courses.ts';
import { connect, disconnect } from '../../../src/lib/server/library/systems.ts';
import { batchView, startBatch } from '../../../src/lib/server/transfer/batches.ts';
import { beginSending, beginUndo } from '../../../src/lib/server/transfer/begin.ts';
import { decide } from '../../../src/lib/server/transfer/decisions.ts';
import { judgedDifferences } from '../../../src/lib/server/transfer/judged.ts';
import { mend } from '../../../src/lib/server/transfer/mend.ts';
import { receiptById } from '../../../src/lib/server/transfer/receipt.ts';
import { receiptCsv } from '../../../src/lib/server/transfer/receiptCsv.ts';
import { saysParts } from '../../../src/lib/server/transfer/says.ts';
import { startTransfer } from '../../../src/lib/server/transfer/start.ts';
import { stateOf } from '../../../src/lib/server/transfer/state.ts';
import { listNotices } from '../../../src/lib/server/store/notices.ts';
import { latestSnapshot } from '../../../src/lib/server/store/snapshots.ts';
import { listTransfers, transferById, type Transfer } from '../../../src/lib/server/store/transfers.ts';
import { stayingSays } from '../../../src/lib/ui/transfer/places.ts';
import { quayside } from '../../../standins/data.ts';
import type { Habit } from '../../../standins/habits.ts';
import { CourseSystem } from '../../../standins/system.ts';
import { closeServer, openServer, settled } from '../../support/server.ts';

describe('records that stay true', () => {
  let system: CourseSystem;
  let systemId: string;
  const course = (classId: string): string => `${systemId}:${classId}`;
  const transfer = async (id: string): Promise<Transfer> => (await transferById(id))!;
  const habits = (...on: readonly Habit[]): void => {
    for (const habit of Object.keys(system.habits) as Habit[]) system.setHabit(habit, on.includes(habit));
  };

  /** A transfer of the final exam, sent and looked at. */
  async function arrived(): Promise<string> {
    for (const id of ['k-tides-s26', 'k-tides-a26']) await requestSnapshot(course(id));
    await settled();
    const { outline } = (await latestSnapshot(course('k-tides-s26')))!;
    const ticks = outline.things
      .filter((t) => t.title.startsWith('Final exam'))
      .map((t) => ({ kind: t.kind, nodeId: t.id }));
    const id = (await startTransfer({ courseId: course('k-tides-s26') }, course('k-tides-a26'), { ticks }))!;
    expect(await beginSending(await transfer(id))).to.equal(true);
    await settled();
    return id;
  }
  async function checked(id: string): Promise<Transfer> {
    expect(await beginSending(await transfer(id), { checkOnly: true })).to.equal(true);
    await settled();
    return transfer(id);
  }
  async function takenBack(id: string): Promise<Transfer> {
    habits();
    expect(await beginUndo(id)).to.equal(true);
    await settled();
    return transfer(id);
  }
  const acts = async (id: string): Promise<string[]> => (await transfer(id)).record.map((e) => e.act);

  before(async () => {
    await openServer();
    system = await new CourseSystem(
      await quayside({ port: 0, folder: null, programme: { pairs: 2, items: 5 } }),
    ).start();
    systemId = await connect(system.address, 'demo-coordinator');
    await settled();
  });
  beforeEach(() => habits());
  after(async () => {
    await disconnect(systemId);
    await system.stop();
    await closeServer();
  });

  it('a receipt says what was taken back, when and by whom; so do list, CSV, page and JSON', async () => {
    const id = await arrived();
    const before = (await receiptById(id))!;
    expect([before.verdict, before.takenBack]).to.deep.equal(['intact', null]);
    const from = Date.now();
    await takenBack(id);
    const receipt = (await receiptById(id))!;
    expect([receipt.verdict, receipt.foundBefore]).to.deep.equal(['taken-back', 'intact']);
    expect(receipt.takenBack!.by).to.equal('Nerea Sal');
    expect(Date.parse(receipt.takenBack!.at)).to.be.within(from, Date.now());
    expect(receipt.takenBack!.removed.join()).to.contain('Final exam, tides and lights');
    expect(receipt.takenBack!.refused).to.deep.equal([]);
    expect(receiptCsv(receipt)).to.match(/undone,"?removed: .*Final exam.*all of it,Nerea Sal,/u);
    const [listed] = await listTransfers(1);
    expect([listed!.id, listed!.takenBack!.by]).to.deep.equal([id, 'Nerea Sal']);
    expect((await stateOf(await transfer(id))).takenBack!.removed).to.deep.equal(receipt.takenBack!.removed);
  });

  it('being taken back stays said after looking again, and ends when it is sent again', async () => {
    const id = await arrived();
    await takenBack(id);
    const after = await checked(id);
    expect(after.tally!.verdict).to.equal('incomplete');
    const receipt = (await receiptById(id))!;
    expect([receipt.verdict, receipt.foundBefore]).to.deep.equal(['taken-back', 'intact']);
    expect(await beginSending(await transfer(id))).to.equal(true);
    await settled();
    const again = (await receiptById(id))!;
    expect([again.verdict, again.takenBack]).to.deep.equal(['intact', null]);
    expect(again.way.record.map((a) => a.act)).to.deep.equal([
      'checked',
      'undone',
      'checked',
      'sent',
      'checked',
    ]);
    expect(again.way.record[1]!.says).to.contain('Final exam');
    await takenBack(id);
  });

  it('looking again adds to the record and leaves the steps of sending as they were', async () => {
    const id = await arrived();
    const steps = (t: Transfer) =>
      t.sending!.steps.filter((s) => ['export', 'read', 'convert', 'upload', 'wait'].includes(s.name));
    const first = await transfer(id);
    const second = await checked(id);
    expect(steps(second)).to.deep.equal(steps(first));
    expect(second.sending!.steps.map((s) => s.state)).to.deep.equal(second.sending!.steps.map(() => 'done'));
    expect(second.sending!.startedAt).to.equal(first.sending!.startedAt);
    expect(await acts(id)).to.deep.equal(['checked', 'checked']);
    await takenBack(id);
  });

  it('sending again says what it undoes of what was mended there', async () => {
    habits('roundsPoints', 'stripsFeedback');
    const id = await arrived();
    const open = await judgedDifferences(await transfer(id));
    const settable = open.filter((d) => d.mend === 'set');
    expect(settable.length, 'points can be set there').to.be.above(0);
    expect(open.every((d) => d.undoes.length === 0)).to.equal(true);
    await mend(
      await transfer(id),
      (await transfer(id)).arrival!,
      settable.map((d) => d.id),
    );
    await settled();
    const left = (await judgedDifferences(await transfer(id))).filter((d) => d.mend === 'resend');
    expect(left.length, 'feedback has to be sent again').to.be.above(0);
    const undoes = [...new Set(left.flatMap((d) => d.undoes))];
    expect(undoes).to.have.members([...new Set(settable.map((d) => d.what))]);
    await mend(
      await transfer(id),
      (await transfer(id)).arrival!,
      left.map((d) => d.id),
    );
    await settled();
    const said = (await transfer(id)).record.filter((e) => e.act === 'mended');
    expect(said.map((e) => e.undoes.length > 0)).to.deep.equal([false, true]);
    expect((await receiptById(id))!.way.record.map((a) => a.act)).to.include.members(['fixed', 'sent']);
    await takenBack(id);
  });

  it('a look at the things of one transfer never stands for the whole course', async () => {
    const id = await arrived();
    const { arrivedPackageId } = await transfer(id);
    const whole = (await latestSnapshot(course('k-tides-a26')))!;
    expect(whole.packageId).to.not.equal(arrivedPackageId);
    await takenBack(id);
    expect((await latestSnapshot(course('k-tides-a26')))!.id, 'nor after taking back').to.equal(whole.id);
  });

  it('the verdict counts what was accepted apart from what is open', async () => {
    habits('stripsFeedback');
    const id = await arrived();
    const [first, ...rest] = await judgedDifferences(await transfer(id));
    await decide(await transfer(id), [first!.id], 'Feedback is given in class.');
    const [listed] = await listTransfers(1);
    expect([listed!.accepted, listed!.open]).to.deep.equal([1, rest.length]);
    const receipt = (await receiptById(id))!;
    expect([receipt.accepted, receipt.open]).to.deep.equal([1, rest.length]);
    await takenBack(id);
  });

  it('a batch tells its differences, once, and in their colour', async () => {
    habits('stripsFeedback');
    const pair = (n: number) => ({ source: course(`p${n}-old`), dest: course(`p${n}-new`), exception: null });
    const told = async () => (await listNotices(50)).filter((n) => n.text.startsWith('“Terms”'));
    const id = await startBatch('Terms', { kinds: ['quiz', 'bank'], options: DEFAULT_OPTIONS }, [
      { source: course('k-tides-s26'), dest: course('k-tides-a26'), exception: null },
      pair(1),
    ]);
    await settled();
    const rows = (await batchView(id))!.rows;
    const open = rows.reduce((sum, r) => sum + r.open, 0);
    expect(open).to.be.above(0);
    const [notice, ...more] = await told();
    expect(more).to.deep.equal([]);
    expect(notice!.tone).to.equal('look');
    expect(notice!.text).to.match(new RegExp(`with differences \\(${open} to decide\\)`, 'u'));
    const one = rows.find((r) => r.open > 0)!;
    await checked(one.transferId!);
    expect((await told()).length, 'looking again tells nothing of the batch').to.equal(1);
    await takenBack(one.transferId!);
    const after = (await batchView(id))!.rows.find((r) => r.transferId === one.transferId)!;
    expect(after.takenBack!.by).to.equal('Nerea Sal');
  });

  it('says that all of it is there only where that is so', () => {
    const nothing = { items: 0, packages: [], rubrics: null };
    const [same, version] = [{ existing: 'same' } as const, { existing: 'version' } as const];
    expect(saysParts(nothing, 'QTI 2.1', [same, same])).to.contain('everything is already there');
    expect(saysParts(nothing, 'QTI 2.1', [same, version])).to.contain('left out');
    expect(saysParts(nothing, 'QTI 2.1', [])).to.contain('left out');
    expect(stayingSays([same])).to.equal('nothing: everything is already there');
    expect(stayingSays([same, version])).to.equal(
      'nothing: 1 thing there already, 1 thing left out at the landing',
    );
    expect(stayingSays([version])).to.equal('nothing: 1 thing left out at the landing');
  });
});
