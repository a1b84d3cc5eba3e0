import { expect } from 'chai';
import fc from 'fast-check';
import { eq } from 'drizzle-orm';
import { deserialize } from 'node:v8';
import {
  applyEdits,
  compareHoldings,
  familiesOf,
  fingerprint,
  forecastAll,
  pouchRows,
  readHolding,
  TARGETS,
  writeHolding,
  type Holding,
  type Item,
  type ReadingRule,
} from '@alforja/core';
import { itemHolder } from '@alforja/core/itemHolder';
import { nodePlatform } from '@alforja/core/node';
import { kindsPackage } from '../../../demo/kinds.ts';
import { largePackage } from '../../../demo/large.ts';
import { replicaPackage } from '../../../demo/replicas.ts';
import { client, db } from '../../../src/lib/server/store/database.ts';
import { heldItemsOf } from '../../../src/lib/server/store/heldItems.ts';
import { itemsOf } from '../../../src/lib/server/store/items.ts';
import { packageById } from '../../../src/lib/server/store/packages.ts';
import { items } from '../../../src/lib/server/store/schema.ts';
import { ASKED } from '../../support/asked.ts';
import { zip } from '../../support/read.ts';
import { brought, closeServer, openServer } from '../../support/server.ts';

/** A package as trees, and as its items lie packed. */
async function both(name: string, content: string | Uint8Array): Promise<Record<'trees' | 'held', Holding>> {
  const { id } = await brought(name, content);
  const { tree, readingId } = (await packageById(id))!;
  return {
    trees: { ...tree!, items: await itemsOf(readingId!) },
    held: { ...tree!, items: await heldItemsOf(readingId!) },
  };
}

/** Everything that an item says, field by field. */
const said = (item: Item): string =>
  JSON.stringify(Object.entries(item).sort(([a], [b]) => (a < b ? -1 : 1)));

/** Makes items of a package with this field others than they were read at first. */
const CONFIRMED: ReadingRule = { name: 'Weights', origin: '*', label: 'qmd_weighting', means: 'points' };

describe('items that lie packed', () => {
  before(() => openServer());
  after(() => closeServer());

  it('are what they are as trees, however often others were looked into meanwhile', async () => {
    const { trees, held } = await both('large.zip', largePackage(2500));
    expect(held.items).to.have.length(2500);
    for (const _ of [1, 2]) expect(held.items.map(said)).to.deep.equal(trees.items.map(said));
    // There and back: the first ones were let go by the time they are asked again.
    const places = [0, 2499, 1, 2498, 1200, 0];
    expect(places.map((at) => held.items[at]!.body)).to.deep.equal(places.map((at) => trees.items[at]!.body));
    expect(JSON.stringify(held.items[7])).to.equal(JSON.stringify({ ...held.items[7] }));
  });

  for (const [name, files] of [
    ['of every kind', kindsPackage()],
    ['that nothing says the answer of', ASKED],
  ] as const)
    it(`${name} give the same forecasts, packages, rows, edits and comparisons`, async () => {
      const { trees, held } = await both('some.zip', zip(files));
      const told = (of: Holding) => {
        const edited = applyEdits(of, [
          { op: 'title', node: of.items[0]!.id, to: 'Otra vez' },
          { op: 'points', node: of.items[1]!.id, to: 7 },
        ]);
        return {
          forecasts: forecastAll(of, TARGETS),
          packages: TARGETS.map((t) => writeHolding(of, t, () => new Uint8Array([1]), nodePlatform)),
          rows: pouchRows(of.items),
          refused: edited.refused,
          compared: compareHoldings(edited.holding, of),
          itself: compareHoldings(of, trees).verdict,
        };
      };
      expect(told(held)).to.deep.equal(told(trees));
    });

  it('are read where an older version kept them as plain text, and knew less of them', async () => {
    const { id } = await brought('kinds.zip', zip(kindsPackage()));
    const { readingId } = (await packageById(id))!;
    const before = await itemsOf(readingId!);
    const rows = pouchRows(before);
    await db.update(items).set({ shortKey: null }).where(eq(items.readingId, readingId!));
    await client().execute({
      sql: 'UPDATE items SET json = ? WHERE reading_id = ? AND seq = 0',
      args: [JSON.stringify({ $v: 2, ...before[0] }), readingId!],
    });
    const held = await heldItemsOf(readingId!);
    expect(held.map((item) => ({ ...item }))).to.deep.equal(before);
    expect(pouchRows(held)).to.deep.equal(rows);
  });

  for (const [name, bytes] of [
    ['large.zip', largePackage(1100)],
    ['kinds.zip', zip(kindsPackage())],
    ['replicas.zip', replicaPackage()],
  ] as const)
    for (const [small, rules] of [
      [0, []],
      [40, [CONFIRMED]],
    ] as const)
      it(`change nothing of a reading of ${name} in which all but ${small} lie so`, async () => {
        const limits = { rules };
        const plain = await readHolding(name, bytes, nodePlatform, limits);
        const told: string[] = [];
        const held = await readHolding(name, bytes, nodePlatform, {
          ...limits,
          holder: itemHolder(small),
          onItem(item, { asked }) {
            told.push(`${said(item)} ${asked(item).print}`);
            return undefined;
          },
        });
        expect(held.items.map(said)).to.deep.equal(plain.items.map(said));
        expect(told).to.deep.equal(plain.items.map((item) => `${said(item)} ${fingerprint(item)}`));
        const rest = ({ items: _, ...tree }: Holding) => tree;
        expect(rest(held)).to.deep.equal(rest(plain));
        const families = (of: Holding) => familiesOf(of).map(({ id, items }) => [id, items.map((i) => i.id)]);
        expect(families(held)).to.deep.equal(families(plain));
      });

  it('are looked into in any order, of several readings in turn', async () => {
    const packages = [largePackage(200), largePackage(300)];
    const plain = await Promise.all(packages.map((bytes) => readHolding('a.zip', bytes, nodePlatform)));
    const held = await Promise.all(
      packages.map((bytes) => readHolding('a.zip', bytes, nodePlatform, { holder: itemHolder(0) })),
    );
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat({ max: 1 }), fc.nat({ max: 199 })), { maxLength: 60 }),
        (looks) => {
          for (const [side, at] of looks)
            expect(held[side]!.items[at]!.body).to.deep.equal(plain[side]!.items[at]!.body);
        },
      ),
    );
  });

  const CSV = `Question,A,B,Answer\n${Array.from({ length: 90 }, (_, n) => `What is ${n} + 1?,${n + 1},${n},A`).join('\n')}`;
  for (const [name, bytes, rules, sent] of [
    ['large.zip', largePackage(300), [], 256],
    ['confirmed.zip', largePackage(300), [CONFIRMED], 256],
    ['some.csv', new TextEncoder().encode(CSV), [], 0],
  ] as const)
    it(`go on while ${name} is read, each once and to its place`, async () => {
      const places: [seq: number, id: string, print: string][] = [];
      const holder = itemHolder(40, {
        send: (from, items, prints) =>
          (deserialize(items) as Item[]).forEach((item, n) => places.push([from + n, item.id, prints[n]!])),
        room: () => undefined,
      });
      const altered: boolean[] = [];
      const { items } = await readHolding(name, bytes, nodePlatform, {
        rules,
        holder,
        onItem: (_, told) => void altered.push(told.altered),
      });
      const all = items.map((item, at) => [at, item.id, fingerprint(item)]);
      expect(places).to.deep.equal(all.slice(40, 40 + sent));
      expect(altered).to.have.length(items.length);
      expect(altered.includes(true), 'some are otherwise in the end').to.equal(name !== 'large.zip');
    });

  it('of nothing are none', async () => {
    expect(await heldItemsOf('nobody')).to.deep.equal([]);
  });
});
