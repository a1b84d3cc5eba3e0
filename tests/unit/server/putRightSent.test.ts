import { expect } from 'chai';
import { beginSending } from '../../../src/lib/server/transfer/begin.ts';
import { avoidLosses } from '../../../src/lib/server/transfer/avoid.ts';
import { forecastOf } from '../../../src/lib/server/transfer/forecast.ts';
import { transferPage } from '../../../src/lib/server/transfer/page.ts';
import { setTarget } from '../../../src/lib/server/transfer/plan.ts';
import { receive } from '../../../src/lib/server/transfer/receive.ts';
import { receiptById } from '../../../src/lib/server/transfer/receipt.ts';
import { receiptCsv } from '../../../src/lib/server/transfer/receiptCsv.ts';
import { startTransfer } from '../../../src/lib/server/transfer/start.ts';
import { stateOf } from '../../../src/lib/server/transfer/state.ts';
import { bringIn } from '../../../src/lib/server/library/packages.ts';
import { putRight } from '../../../src/lib/server/library/putRight.ts';
import { readStored, storeBytes } from '../../../src/lib/server/store/files.ts';
import { transferById, type Transfer } from '../../../src/lib/server/store/transfers.ts';
import type { Plan } from '../../../src/lib/shared/transfers.ts';
import { zip } from '../../../demo/zip.ts';
import { THREE_LOSSES, THREE_QUIZ } from '../../support/threeLosses.ts';
import { brought, closeServer, openServer, settled } from '../../support/server.ts';

let fresh = 0;
const source = (): Uint8Array => zip({ ...THREE_LOSSES, 'quiz.xml': THREE_QUIZ, 'note.txt': `${++fresh}` });
const transfer = async (id: string): Promise<Transfer> => (await transferById(id))!;
async function plan(id: string): Promise<Plan> {
  await stateOf(await transfer(id));
  await settled();
  return (await transfer(id)).plan!;
}
const bad = ({ findings }: Plan): string[] =>
  findings.filter((f) => f.code === 'loss-kind' || f.code === 'loss-scoring').map((f) => f.where.node!);

/** Three losses for a cartridge, each avoided. */
async function avoided(): Promise<string> {
  const held = await brought('three.zip', source());
  const id = (await startTransfer({ packageId: held.id }, null))!;
  await setTarget(id, 'cc1.3');
  for (let presses = 0; presses < 3; presses++) {
    const now = await plan(id);
    expect(new Set(bad(now)).size, `${presses} presses`).to.equal(3 - presses);
    const [first] = now.repairs.filter((r) => bad(now).includes(now.findings[r.at]!.where.node!));
    expect(await avoidLosses(await transfer(id), { at: [first!.at], basis: now.basis })).to.equal(true);
    await settled();
  }
  expect(bad(await plan(id))).to.deep.equal([]);
  return id;
}

describe('a transfer of what was put right', () => {
  before(openServer);
  after(closeServer);

  it('says of each loss what avoids it, and whose scores change by that', async () => {
    const held = await brought('three.zip', source());
    const id = (await startTransfer({ packageId: held.id }, null))!;
    await setTarget(id, 'cc1.3');
    const now = await plan(id);
    const said = new Map(forecastOf(now).map((f) => [f.where.node, f.avoid]));
    expect(said.get('match')).to.deep.include({
      says: 'one item for each row or blank; together they are worth the same',
      scores: null,
    });
    expect(said.get('parts')!.scores).to.match(/^“.+” scores .+ now and .+ afterwards$/u);
    expect(await avoidLosses(await transfer(id), { at: [0], basis: 'another' })).to.equal(false);
  });

  it('takes what came in the place of what was ticked, and arrives intact but for what was on purpose', async () => {
    const id = await avoided();
    await beginSending(await transfer(id));
    await settled();
    const { sent } = await transfer(id);
    expect([sent!.items, sent!.layer.map((e) => e.op).sort()]).to.deep.equal([
      4,
      ['scoring', 'scoring', 'separate'],
    ]);
    const before = (await receiptById(id))!;
    expect([before.verdict, before.onPurpose.length]).to.deep.equal([null, 3]);
    // What is put right afterwards is not what was sent: the record stays true.
    await putRight((await transfer(id)).packageId, {
      way: 'hand',
      edits: [{ op: 'points', node: 'parts', to: 50 }],
    });
    await settled();
    expect((await transferPage(id, 'send'))!.stale).to.equal(true);
    const back = await storeBytes(await readStored(sent!.parts[0]!.sha256));
    const { package: kept } = await bringIn('back.imscc', back);
    expect(await receive(id, kept.id)).to.equal(null);
    await settled();
    const { arrival } = await transfer(id);
    expect(arrival!.comparison.counts).to.deep.equal({ intact: 4, altered: 0, missing: 0, extra: 0 });
    expect(new Set(arrival!.onPurpose.map((p) => p.node))).to.include.all.keys('match', 'number', 'parts');
    const receipt = (await receiptById(id))!;
    expect(receipt.verdict).to.equal('intact');
    expect(receipt.onPurpose.find((c) => c.node === 'match')).to.deep.include({ after: 'left out' });
    expect(receipt.onPurpose.some((c) => c.after.includes('50'))).to.equal(false);
    expect(receiptCsv(receipt)).to.contain('on purpose');
  });

  it('compares what came back as it came, whatever is put right in that afterwards', async () => {
    const id = await avoided();
    await beginSending(await transfer(id));
    await settled();
    const { sent } = await transfer(id);
    const { package: kept } = await bringIn(
      'back.imscc',
      await storeBytes(await readStored(sent!.parts[0]!.sha256)),
    );
    await settled();
    await putRight(kept.id, {
      way: 'hand',
      edits: [{ op: 'points', node: 'number', to: 40 }],
    });
    await settled();
    expect(await receive(id, kept.id)).to.equal(null);
    await settled();
    expect((await transfer(id)).arrival!.comparison.verdict).to.equal('intact');
  });
});
