import { expect } from 'chai';
import { interactionsOf, optionSets, stemText, type Edit, type Item } from '@alforja/core';
import {
  asItCame,
  changedParts,
  historyOf,
  layerView,
  NotTaken,
  putRight,
  repairFindings,
  setTakenBack,
  undoOrRedo,
} from '../../../src/lib/server/library/putRight.ts';
import { wholeItem } from '../../../src/lib/server/library/packages.ts';
import { roomView } from '../../../src/lib/server/library/room.ts';
import { listPackages, packageById, type Package } from '../../../src/lib/server/store/packages.ts';
import { stepsOf } from '../../../src/lib/server/store/editSteps.ts';
import type { WholeItem } from '../../../src/lib/shared/edits.ts';
import { bankXml, PLAIN } from '../../../demo/qti12.ts';
import { LIGHTS_BANK } from '../../../demo/items.ts';
import {
  brought,
  closeServer,
  openServer,
  settled,
  packageItem,
  packageItems,
} from '../../support/server.ts';

let fresh = 0;
const bank = (): Promise<Package> =>
  brought(
    'lights.xml',
    `${bankXml('lights', LIGHTS_BANK.slice(0, 6), PLAIN, 'Lights')}<!-- put ${++fresh} -->`,
  );
const ids = LIGHTS_BANK.slice(0, 6).map((i) => i.id);
const points = (node: string, to: number): Edit => ({ op: 'points', node, to });
const shown = async (id: string): Promise<number[]> => (await packageItems(id)).map((i) => i.points);

async function put(id: string, ...edits: Edit[]): Promise<string> {
  const step = await putRight(id, { way: 'hand', edits });
  await settled();
  return step;
}

describe('what was put right in a package', () => {
  before(openServer);
  after(closeServer);

  it('is what lists, totals and items show; the file stays as it came', async () => {
    const { id, sha256 } = await bank();
    await put(id, points(ids[0]!, 7), { op: 'title', node: ids[1]!, to: 'Señal ñ 灯' });
    const now = (await packageById(id))!;
    expect((await packageItem(id, 0))!.points).to.equal(7);
    expect((await packageItem(id, 1))!.title).to.equal('Señal ñ 灯');
    expect(now.sha256).to.equal(sha256);
    expect(now.putRight.edited.map((n) => n.id)).to.deep.equal([ids[0], ids[1]]);
    const room = (await roomView(now.id))!;
    expect([room.edited, room.layer.changes]).to.deep.equal([[[0, 2]], 2]);
  });

  it('is in an item that is changed on, whether it has been read anew by then or not, and once', async () => {
    const { id } = await bank();
    const node = ids[0]!;
    const choicesOf = (item: Item): number =>
      interactionsOf(item).flatMap((i) => optionSets(i).flat()).length;
    const said: [title: string, choices: number][] = [];
    const look = async (): Promise<void> => {
      const { item, changed } = JSON.parse((await wholeItem(id, 0))!) as WholeItem;
      said.push([item.title, choicesOf(item)]);
      expect(changed).to.include('title');
    };
    const choices = choicesOf((await packageItem(id, 0))!);
    // The thread that is asked is there by then: it answers before the package has been read anew.
    await wholeItem(id, 0);
    await putRight(id, {
      way: 'hand',
      edits: [
        { op: 'title', node, kind: 'item', to: 'Otra vez 灯' },
        { op: 'choice-add', node, choice: 'new', to: 'None of these', after: null },
      ],
    });
    let read = false;
    const reading = settled().then(() => (read = true));
    while (!read) await look();
    await reading;
    await look();
    expect(said.filter(([title, n]) => title !== 'Otra vez 灯' || n !== choices + 1)).to.deep.equal([]);
    expect(said.length).to.be.greaterThan(1);
  });

  it('goes back to as it came for one part of a thing, or for all of it', async () => {
    const { id } = await bank();
    const [one, other] = [ids[0]!, ids[1]!];
    const came = (await packageItem(id, 0))!;
    await put(
      id,
      { op: 'title', node: one, kind: 'item', to: 'Another name' },
      { op: 'stem', node: one, to: 'Another question?' },
      points(one, 7),
      points(other, 5),
    );
    await put(id, {
      op: 'content',
      node: one,
      at: 'body',
      to: '<p>A third one?</p><div data-slot="0"></div>',
    });
    expect(await changedParts(id, one)).to.deep.equal(['title', 'body', 'points']);

    // Both ways in which the text was changed are one part.
    expect(await asItCame(id, one, 'body')).to.equal(true);
    await settled();
    const text = (await packageItem(id, 0))!;
    expect([stemText(text), text.title, text.points]).to.deep.equal([stemText(came), 'Another name', 7]);
    expect(await changedParts(id, one)).to.deep.equal(['title', 'points']);
    expect(await asItCame(id, one, 'body'), 'again').to.equal(false);

    expect(await asItCame(id, one)).to.equal(true);
    await settled();
    expect(await packageItem(id, 0)).to.deep.equal(came);
    expect((await packageItem(id, 1))!.points, 'the other one').to.equal(5);
    // It is a step like others: undone, all stands again.
    await undoOrRedo(id, 'undo');
    await settled();
    expect((await packageItem(id, 0))!.points).to.equal(7);
  });

  it('is counted in the list of packages', async () => {
    const { id } = await bank();
    const changed = async (): Promise<number> => (await listPackages()).find((p) => p.id === id)!.changed;
    expect(await changed()).to.equal(0);
    await put(id, points(ids[0]!, 7), points(ids[1]!, 7), {
      op: 'title',
      node: 'lights',
      kind: 'bank',
      to: 'New',
    });
    expect(await changed()).to.equal(3);
    expect((await packageById(id))!.changed).to.equal(3);
    await undoOrRedo(id, 'undo');
    await settled();
    expect(await changed()).to.equal(0);
  });

  it('can be undone and redone, step by step, and each step taken back by itself', async () => {
    const { id } = await bank();
    const [first] = await shown(id);
    const a = await put(id, points(ids[0]!, 2));
    await put(id, points(ids[0]!, 3));
    await put(id, points(ids[1]!, 9));
    await undoOrRedo(id, 'undo');
    await undoOrRedo(id, 'undo');
    await settled();
    expect((await shown(id)).slice(0, 2)).to.deep.equal([2, first]);
    await undoOrRedo(id, 'redo');
    await settled();
    expect((await shown(id)).slice(0, 2)).to.deep.equal([3, first]);
    await undoOrRedo(id, 'redo');
    expect(await undoOrRedo(id, 'redo'), 'nothing is left to redo').to.equal(false);
    // The first step goes: what the second saw was its doing, and it still stands.
    expect(await setTakenBack(id, a, true)).to.equal(true);
    await settled();
    expect((await shown(id)).slice(0, 2)).to.deep.equal([3, 9]);
    expect((await layerView(id)).refused).to.equal(0);
    expect(await setTakenBack(id, 'no-such-step', true)).to.equal(false);
    await setTakenBack(id, a, false);
    await settled();
    expect((await shown(id)).slice(0, 2)).to.deep.equal([3, 9]);
  });

  it('keeps what each edit saw, so that one that finds another thing is shown and not done', async () => {
    const { id } = await bank();
    const [before] = await shown(id);
    const first = await put(id, points(ids[0]!, 8));
    expect((await stepsOf(id))[0]!.edits[0]!.was).to.equal(before);
    await setTakenBack(id, first, true);
    await settled();
    await put(id, points(ids[0]!, 5));
    await setTakenBack(id, first, false);
    await settled();
    // The later one saw what came, and now finds what the first makes of it.
    expect((await shown(id))[0]).to.equal(8);
    expect((await layerView(id)).refused).to.equal(1);
    const [latest] = await historyOf(id);
    expect([latest!.refused, latest!.edits[0]!.refused]).to.deep.equal([
      1,
      `Something else stands there now: 8, where this edit saw ${before}. Look at it again.`,
    ]);
  });

  it('leaves out what is weeded, names it, and brings it back', async () => {
    const { id } = await bank();
    const out = ids.slice(2).map((node): Edit => ({ op: 'leave-out', node, kind: 'item' }));
    await put(id, ...out);
    const held = (await packageById(id))!;
    expect([held.summary!.items, held.putRight.leftOut.length]).to.deep.equal([2, 4]);
    expect((await historyOf(id))[0]!.edits[0]!.name).not.to.equal(ids[2]);
    await put(id, { op: 'bring-back', node: ids[2]!, kind: 'item' });
    expect((await packageById(id))!.putRight.leftOut.map((n) => n.id)).to.deep.equal(ids.slice(3));
  });

  it('refuses nothing in silence: unknown nodes stand in the history with the reason', async () => {
    const { id } = await bank();
    await put(id, points('nobody', 2), points(ids[0]!, 4));
    expect((await shown(id))[0]).to.equal(4);
    const [step] = await historyOf(id);
    expect(step!.edits[0]).to.deep.include({ refused: 'Nothing here goes by “nobody”.' });
    const failed = await putRight(id, { way: 'hand', edits: [] }).catch((e: unknown) => e);
    expect(failed).to.be.instanceOf(NotTaken);
  });

  it('loses no change that comes while another is being read', async () => {
    const { id } = await bank();
    await Promise.all(ids.map((node, n) => putRight(id, { way: 'hand', edits: [points(node, n + 10)] })));
    await settled();
    expect(await shown(id)).to.deep.equal([10, 11, 12, 13, 14, 15]);
    expect((await stepsOf(id)).map((s) => s.at)).to.deep.equal([0, 1, 2, 3, 4, 5]);
  });

  it('repairs findings by their places, one or all like it; of the reading that was looked at', async () => {
    const broken = LIGHTS_BANK.slice(0, 4).map((i) => ({ ...i, points: 0 }));
    const held = await brought('zero.xml', bankXml('zero', broken, PLAIN, 'Zero'));
    const zero = held.tree!.findings.flatMap((f, at) => (f.code === 'points-not-positive' ? [at] : []));
    expect(zero.length).to.equal(4);
    const room = (await roomView(held.id))!;
    expect(room.findings.find((f) => f.at === zero[0])!.repair).to.deep.equal(['worth 1 point']);
    await repairFindings(held.id, held.readingId!, [zero[0]!]);
    await settled();
    const now = (await packageById(held.id))!;
    const left = now.tree!.findings.flatMap((f, at) => (f.code === 'points-not-positive' ? [at] : []));
    expect(left.length).to.equal(3);
    const stale = await repairFindings(held.id, held.readingId!, left).catch((e: unknown) => e);
    expect(stale).to.be.instanceOf(NotTaken);
    await repairFindings(held.id, now.readingId!, left);
    await settled();
    expect(await shown(held.id)).to.deep.equal([1, 1, 1, 1]);
    expect(
      (await packageById(held.id))!.tree!.findings.filter((f) => f.code === 'points-not-positive'),
    ).to.deep.equal([]);
  });
});
