import { expect } from 'chai';
import { contentsOf, LOOSE, type Tick } from '@alforja/core';
import { MOST_BEHIND, ITEMS_A_PAGE } from '$lib/shared/contents';
import { startTransfer } from '../../../src/lib/server/transfer/start.ts';
import {
  contentsFor,
  contentsItemsFor,
  contentsListFor,
  sourceOf,
  type TransferSource,
} from '../../../src/lib/server/transfer/source.ts';
import { itemsOf } from '../../../src/lib/server/store/items.ts';
import { ticksOf } from '../../../src/lib/server/store/ticks.ts';
import { LIGHTS_BANK } from '../../../demo/items.ts';
import { assessmentXml, bankXml, PLAIN } from '../../../demo/qti12.ts';
import { largeItems } from '../../../demo/large.ts';
import { zip } from '../../../demo/zip.ts';
import { brought, closeServer, openServer } from '../../support/server.ts';

const MANY = largeItems(260, 7);
const png =
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
const PACKAGE = {
  'quiz.xml': assessmentXml(
    {
      id: 'watch',
      title: 'Anchor watch',
      items: LIGHTS_BANK.slice(0, 3),
      draws: [{ title: 'Some', bank: 'many', pick: 5, pointsEach: 2 }],
    },
    PLAIN,
  ),
  'many.xml': bankXml('many', MANY, PLAIN, 'Many'),
  'spare.xml': bankXml('spare', LIGHTS_BANK.slice(3, 6), PLAIN, 'Réserve 予備'),
  'dot.png': Uint8Array.from(Buffer.from(png, 'base64')),
};
/** Three items that stand in no quiz and no bank. */
const LOOSE_XML = `<questestinterop>${['one', 'two', 'three']
  .map(
    (id) =>
      `<item ident="${id}" title="Single ${id}"><presentation><material><mattext>Which ${id}?</mattext></material><response_str ident="r"><render_fib/></response_str></presentation></item>`,
  )
  .join('')}</questestinterop>`;

describe('what a transfer takes of its source', () => {
  let source: TransferSource;
  let id: string;
  before(async () => {
    await openServer();
    const held = await brought('watch.zip', zip({ ...PACKAGE, 'single.xml': LOOSE_XML }));
    id = (await startTransfer({ packageId: held.id }, null))!;
    source = (await sourceOf({ packageId: held.id, sourceSnapshot: null }))!;
  });
  after(closeServer);
  const items = (of: Tick, filter = '', from = 0) => contentsItemsFor(source, { of, filter, from });

  it('is listed with what each thing holds, and its items a page at a time', async () => {
    const list = await contentsListFor(source, '');
    const things = list.groups.flatMap((g) => g.things);
    expect(things.map((t) => [t.tick.kind, t.title, t.items])).to.have.deep.members([
      ['quiz', 'Anchor watch', 263],
      ['bank', 'Many', 260],
      ['bank', 'Réserve 予備', 3],
    ]);
    expect(things.find((t) => t.tick.kind === 'quiz')).to.deep.include({
      draws: 1,
      set: { items: 8, points: 10 + LIGHTS_BANK.slice(0, 3).reduce((sum, i) => sum + i.points, 0) },
    });
    expect(list.loose).to.equal(3);
    const seen: number[] = [];
    for (let from = 0, total = 1; from < total; from += ITEMS_A_PAGE) {
      const page = await items({ kind: 'bank', nodeId: 'many' }, '', from);
      total = page.total;
      expect(page.rows.length).to.be.at.most(ITEMS_A_PAGE);
      seen.push(...page.rows.map((row) => row.seq));
    }
    expect([seen.length, new Set(seen).size]).to.deep.equal([260, 260]);
    const loose = await items(LOOSE);
    expect([loose.total, loose.rows.map((r) => r.id)]).to.deep.equal([3, ['one', 'two', 'three']]);
    expect(await items({ kind: 'bank', nodeId: 'never' })).to.deep.equal({ rows: [], total: 0 });
  });

  it('is filtered by titles, and by what items are called', async () => {
    const titles = async (filter: string): Promise<string[]> =>
      (await contentsListFor(source, filter)).groups.flatMap((g) => g.things.map((t) => t.title));
    expect(await titles(' 予備 ')).to.deep.equal(['Réserve 予備']);
    expect(
      (await items({ kind: 'bank', nodeId: 'spare' }, '予備')).total,
      'all of what is called so',
    ).to.equal(3);
    const word = '259. When';
    expect(await titles(word)).to.have.members(['Anchor watch', 'Many']);
    const found = await items({ kind: 'bank', nodeId: 'many' }, word);
    expect(found.rows.map((r) => r.id)).to.deep.equal(['large-259']);
    expect(await titles('no such words')).to.deep.equal([]);
    expect((await contentsListFor(source, 'which two')).loose).to.equal(1);
    expect((await items(LOOSE, 'which two')).rows.map((r) => r.id)).to.deep.equal(['two']);
  });

  it('comes to what the items themselves would say, for every choice', async () => {
    const all = { ...source.tree, items: await itemsOf(source.package.readingId!) };
    const choices: Tick[][] = [
      await ticksOf(id),
      [],
      [{ kind: 'quiz', nodeId: 'watch' }],
      [
        { kind: 'quiz', nodeId: 'watch' },
        { kind: 'without', nodeId: 'many' },
      ],
      [LOOSE, { kind: 'without-item', nodeId: 'two' }],
      [
        { kind: 'item', nodeId: 'large-7' },
        { kind: 'item', nodeId: 'one' },
      ],
    ];
    for (const ticks of choices) {
      const { behind, itemsBehind, ungraded: _, dependencies, ...rest } = contentsOf(all, ticks);
      const shown = await contentsFor(source, ticks);
      expect(shown, JSON.stringify(ticks)).to.deep.include(rest);
      expect(shown.left).to.equal(behind.length + itemsBehind.length);
      expect(shown.dependencies.map(({ by: __, ...d }) => d)).to.deep.equal(dependencies);
    }
    expect(choices[0]).to.deep.include(LOOSE);
  });

  it('says what stays behind under what holds it, and what single items stand in', async () => {
    const none = await contentsFor(source, []);
    expect(none.behind.map((p) => [p.title, p.word, p.items, p.names.length])).to.deep.equal([
      ['Anchor watch', 'quiz', 263, MOST_BEHIND],
      ['Many', 'bank', 0, 0],
      ['Réserve 予備', 'bank', 3, 3],
      ['Which one?', 'item', 0, 0],
      ['Which two?', 'item', 0, 0],
      ['Which three?', 'item', 0, 0],
    ]);
    const drawn = await contentsFor(source, [{ kind: 'quiz', nodeId: 'watch' }]);
    expect(drawn.dependencies).to.deep.equal([
      { kind: 'bank', id: 'many', neededBy: 'watch', reason: 'drawn-from', by: 'Anchor watch' },
    ]);
    const single = await contentsFor(source, [
      { kind: 'item', nodeId: 'large-7' },
      { kind: 'item', nodeId: 'one' },
    ]);
    expect(single.singles).to.deep.equal({ 'quiz watch': ['large-7'], 'bank many': ['large-7'] });
    expect(single.loose).to.deep.equal(['one']);
  });
});
