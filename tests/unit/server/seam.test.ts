import { expect } from 'chai';
import { seamRows, withoutIntact, type SeamRow } from '@alforja/core';
import { isLeftOut } from '$lib/shared/receipt';
import { shownBy, stateBy, letterOf, SHOWN, ROWS_A_PAGE } from '$lib/shared/seam';
import { beginSending } from '../../../src/lib/server/transfer/begin.ts';
import { decide } from '../../../src/lib/server/transfer/decisions.ts';
import { differencesShown, idsMeant, judgedDifferences } from '../../../src/lib/server/transfer/judged.ts';
import { receive } from '../../../src/lib/server/transfer/receive.ts';
import { receiptOf } from '../../../src/lib/server/transfer/receipt.ts';
import { shortReceipt } from '../../../src/lib/server/transfer/receiptShort.ts';
import { seamRowsAt, seamView } from '../../../src/lib/server/transfer/seam.ts';
import { startTransfer } from '../../../src/lib/server/transfer/start.ts';
import { bringIn } from '../../../src/lib/server/library/packages.ts';
import { arrivalRowsAt, arrivalStates, arrivedPairs } from '../../../src/lib/server/store/arrivalRows.ts';
import { db } from '../../../src/lib/server/store/database.ts';
import { storeBytes } from '../../../src/lib/server/store/files.ts';
import { arrivalRows } from '../../../src/lib/server/store/schema.ts';
import { transferById, type Transfer } from '../../../src/lib/server/store/transfers.ts';
import { largeRound } from '../../../demo/large.ts';
import { brought, closeServer, openServer, settled } from '../../support/server.ts';

const COUNT = 1200;

describe('both sides of an arrival', () => {
  let id: string;
  const {
    there,
    back,
    truth: { counts: truth },
  } = largeRound(COUNT);
  const transfer = async (): Promise<Transfer> => (await transferById(id))!;
  async function compare(bytes: Uint8Array): Promise<void> {
    const { package: kept } = await bringIn('back.zip', await storeBytes(bytes));
    expect(await receive(id, kept.id)).to.equal(null);
    await settled();
  }
  before(async () => {
    await openServer();
    const held = await brought('there.zip', there);
    id = (await startTransfer({ packageId: held.id }, null))!;
    await beginSending(await transfer());
    await settled();
    await compare(back);
  });
  after(closeServer);

  it('are kept row by row, and the record keeps only what differs', async () => {
    const now = await transfer();
    const arrival = now.arrival!;
    expect(arrival.comparison.counts).to.deep.include(truth);
    expect(arrival.comparison.pairs.length).to.equal(truth.altered);
    expect(arrival.left.length).to.equal(truth.altered + truth.missing);
    expect(arrival.right.length).to.equal(truth.altered + truth.extra);
    const { rows, differing } = await arrivalStates(now.seamId!);
    expect([rows, differing.length]).to.deep.equal([COUNT, truth.altered + truth.missing]);
    expect((await arrivedPairs(now.seamId!)).length).to.equal(COUNT - truth.missing);
  });

  it('come in order, each with both names and how it differs', async () => {
    const now = await transfer();
    const view = await seamView(now, now.arrival!);
    expect(view.states.length).to.equal(COUNT);
    expect(view.first.length).to.equal(ROWS_A_PAGE);
    const altered = view.states.indexOf('a');
    const missing = view.states.indexOf('m');
    const got = await seamRowsAt(now, now.arrival!, [altered, missing, 0, COUNT + 5]);
    expect(got.map(([at]) => at)).to.deep.equal([0, altered, missing].sort((a, b) => a - b));
    const by = new Map<number, SeamRow>(got);
    expect(by.get(altered)!.differences.map((d) => d.facet)).to.include('points');
    expect(by.get(altered)!.right!.points).to.equal(by.get(altered)!.left!.points + 1);
    expect(by.get(missing)!.right).to.equal(null);
    expect(by.get(0)!.left!.key, 'the key that was found when it was read').to.equal(by.get(0)!.right!.key);
    expect(by.get(0)!.left!.key).to.not.equal('');
  });

  it('bring a page a few of many differences, and all of them can be meant at once', async () => {
    const now = await transfer();
    const all = await judgedDifferences(now);
    const shown = await differencesShown(now);
    expect([shown.open, shown.accepted]).to.deep.equal([all.length, 0]);
    const counted = shown.groups.reduce((sum, g) => sum + g.count, shown.singles);
    expect(counted).to.equal(all.length);
    const [group] = shown.groups;
    expect(group!.first.every((d) => all.some((a) => a.id === d.id && a.found === d.found))).to.equal(true);
    const ids = await idsMeant(now, { sort: group!.id });
    expect([ids.length, new Set(ids).size]).to.deep.equal([group!.count, group!.count]);
    expect(await idsMeant(now, { all: 'sendable' })).to.have.members(
      all.filter((d) => d.mend === 'write').map((d) => d.id),
    );
    await decide(now, ids, 'Worth more this year.');
    const after = await transfer();
    const view = await seamView(after, after.arrival!);
    expect([...view.states].filter((l) => shownBy(l) === 'accepted').length).to.equal(group!.count);
    expect((await differencesShown(after)).accepted).to.equal(group!.count);
    await decide(after, ids, '');
  });

  it('of an older record are made of what it holds', async () => {
    const now = await transfer();
    const rows = (
      await arrivalRowsAt(
        now.seamId!,
        Array.from({ length: COUNT }, (_, at) => at),
      )
    ).map(([, row]) => row);
    const whole = {
      ...now.arrival!,
      comparison: {
        ...now.arrival!.comparison,
        pairs: rows.flatMap((r) =>
          r.left && r.right
            ? [
                now.arrival!.comparison.pairs.find((p) => p.source === r.left!.id) ?? {
                  source: r.left.id,
                  arrived: r.right.id,
                  state: 'intact' as const,
                  by: 'identifier' as const,
                  differences: [],
                },
              ]
            : [],
        ),
      },
      left: rows.flatMap((r) => r.left ?? []),
      right: rows.flatMap((r) => r.right ?? []),
    };
    expect(seamRows(whole)).to.deep.equal(rows);
    const { comparison, left, right } = withoutIntact(whole, []);
    expect([comparison.pairs, left, right]).to.deep.equal([
      now.arrival!.comparison.pairs,
      now.arrival!.left,
      now.arrival!.right,
    ]);
    const old = { seamId: null, comparedAt: now.comparedAt, decisions: [] } as unknown as Transfer;
    expect((await seamView(old, whole)).states).to.equal((await seamView(now, now.arrival!)).states);
    expect(await seamRowsAt(old, whole, [5, 9])).to.deep.equal(await seamRowsAt(now, now.arrival!, [5, 9]));
  });

  it('compared once more leave nothing of the rows before', async () => {
    const before = (await transfer()).seamId!;
    await compare(there);
    const now = await transfer();
    expect(now.seamId).to.not.equal(before);
    expect((await arrivalStates(now.seamId!)).differing).to.deep.equal([]);
    const kept = await db.selectDistinct({ seam: arrivalRows.seamId }).from(arrivalRows);
    expect(kept.map((k) => k.seam)).to.not.include(before);
  });

  it('on a receipt’s page are the first of many, and how many more', async () => {
    await compare(back);
    const receipt = (await receiptOf(await transfer()))!;
    const long = { ...receipt, altered: Array.from({ length: 400 }, () => receipt.altered[0]!) };
    const short = shortReceipt(long);
    expect(short.altered.length + short.more!.altered!).to.equal(400);
    expect([short.counts, short.open]).to.deep.equal([receipt.counts, receipt.open]);
    expect(shortReceipt({ ...receipt, altered: [] }).more!.altered).to.equal(undefined);
    const change = { name: 'x', node: 'x', what: 'points', before: '1', after: '2' };
    const out = { ...change, what: 'leave-out' };
    const purpose = [...Array<typeof out>(700).fill(out), ...Array<typeof change>(300).fill(change)];
    const { onPurpose, more } = shortReceipt({ ...receipt, onPurpose: purpose });
    const outs = onPurpose.filter(isLeftOut).length;
    expect([outs + more!.leftOut!, onPurpose.length - outs + more!.onPurpose!]).to.deep.equal([700, 300]);
  });
});

describe('a letter of a row', () => {
  it('says how it is shown and how it stands', () => {
    for (const shown of SHOWN)
      if (shown !== 'accepted' && shown !== 'on purpose') {
        expect([shownBy(letterOf(shown, shown)), stateBy(letterOf(shown, shown))]).to.deep.equal([
          shown,
          shown,
        ]);
      }
    for (const state of ['altered', 'missing'] as const)
      expect([shownBy(letterOf('accepted', state)), stateBy(letterOf('accepted', state))]).to.deep.equal([
        'accepted',
        state,
      ]);
    expect([shownBy('p'), stateBy('p')]).to.deep.equal(['on purpose', 'intact']);
  });
});
