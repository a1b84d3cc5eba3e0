import { expect } from 'chai';
import fc from 'fast-check';
import { contentsOf, NODE_KINDS, selectFrom, type Chosen, type Holding, type Tick } from '@alforja/core';

const ITEMS = ['a', 'b', 'c', 'd', 'e', 'f'];
/** One that a container names, but that the holding does not have. */
const named = fc.constantFrom(...ITEMS, 'gone');
const BANKS = ['b1', 'b2', 'b3'];
const file = fc.record({ path: fc.constantFrom('p.png', 'q.png'), present: fc.boolean() });

const section = fc.record({
  items: fc.array(fc.record({ item: named, weight: fc.constant(1) }), { maxLength: 3 }),
  draw: fc.option(
    fc.record({
      bank: fc.option(fc.constantFrom(...BANKS)),
      pool: fc.array(named, { maxLength: 3 }),
      pick: fc.constant(1),
      pointsEach: fc.constant(1),
    }),
  ),
});
const holdings = fc
  .record({
    items: fc.tuple(
      ...ITEMS.map((id) => fc.record({ id: fc.constant(id), files: fc.array(file, { maxLength: 2 }) })),
    ),
    quizzes: fc.tuple(
      ...['q1', 'q2'].map((id) =>
        fc.record({
          id: fc.constant(id),
          title: fc.constant(id),
          sections: fc.array(section, { maxLength: 2 }),
        }),
      ),
    ),
    banks: fc.tuple(
      ...BANKS.map((id) =>
        fc.record({ id: fc.constant(id), title: fc.constant(id), items: fc.uniqueArray(named) }),
      ),
    ),
    rubrics: fc.tuple(
      fc.record({
        id: fc.constant('r'),
        title: fc.constant('r'),
        attachedTo: fc.array(fc.constantFrom(...ITEMS, 'q1')),
      }),
    ),
  })
  .map((h) => {
    const items = h.items.map((item) => ({ ...item, points: 2 }));
    return { ...h, items, links: [], files: [], outline: [], findings: [] } as unknown as Holding;
  });

const some = <T extends string>(of: readonly T[]): fc.Arbitrary<Set<T>> =>
  fc.subarray([...of]).map((list) => new Set(list));
const choices: fc.Arbitrary<Chosen> = fc.record({
  quizzes: some(['q1', 'q2']),
  banks: some(BANKS),
  items: some([...ITEMS, 'never']),
  links: some([]),
  loose: fc.boolean(),
  withoutItems: some(ITEMS),
});

/** What goes of a holding, one rule after the other as they are said. */
function goes({ quizzes, banks, items }: Holding, chosen: Chosen): Set<string> {
  const sections = quizzes.filter((q) => chosen.quizzes.has(q.id)).flatMap((q) => q.sections);
  const wholeBanks = new Set([...chosen.banks, ...sections.flatMap((s) => s.draw?.bank ?? [])]);
  const inQuiz = (of: typeof sections): string[] =>
    of.flatMap((s) => [...s.items.map((r) => r.item), ...(s.draw?.pool ?? [])]);
  const held = new Set([...inQuiz(quizzes.flatMap((q) => q.sections)), ...banks.flatMap((b) => b.items)]);
  return new Set([
    ...chosen.items,
    ...items.map((i) => i.id).filter((id) => chosen.loose && !held.has(id) && !chosen.withoutItems!.has(id)),
    ...inQuiz(sections),
    ...banks.filter((b) => wholeBanks.has(b.id)).flatMap((b) => b.items),
  ]);
}

describe('what is chosen of a holding', () => {
  it('is it, and what it needs, in the order of the holding (property)', () => {
    fc.assert(
      fc.property(holdings, choices, (holding, chosen) => {
        const { holding: taken, dependencies } = selectFrom(holding, chosen);
        const all = goes(holding, chosen);
        expect(taken.items).to.deep.equal(holding.items.filter((i) => all.has(i.id)));
        for (const bank of taken.banks) {
          const before = holding.banks.find((b) => b.id === bank.id)!.items;
          expect(bank.items).to.deep.equal(before.filter((id) => all.has(id)));
        }
        const told = dependencies.filter((d) => d.kind === 'item').map((d) => d.id);
        expect(new Set(told).size, 'each told once').to.equal(told.length);
        const needed = told.filter((id) => id !== 'gone');
        expect(needed.every((id) => all.has(id) && !chosen.items.has(id))).to.equal(true);
        const files = new Set(
          taken.items.flatMap((i) => i.files.filter((f) => f.present).map((f) => f.path)),
        );
        expect(new Set(dependencies.filter((d) => d.kind === 'file').map((d) => d.id))).to.deep.equal(files);
        const graded = holding.rubrics[0]!.attachedTo.filter((id) =>
          id === 'q1' ? chosen.quizzes.has(id) : all.has(id),
        );
        expect(taken.rubrics.flatMap((r) => r.attachedTo)).to.deep.equal(graded);
        expect(taken.rubrics.length).to.equal(graded.length > 0 ? 1 : 0);
      }),
    );
  });

  it('and what is left behind are all there is, each once (property)', () => {
    const tick: fc.Arbitrary<Tick> = fc.record({
      kind: fc.constantFrom(...NODE_KINDS),
      nodeId: fc.constantFrom(...ITEMS, ...BANKS, 'q1', 'q2', 'r', ''),
    });
    fc.assert(
      fc.property(holdings, fc.array(tick), (holding, ticks) => {
        const { items, points, total, itemsBehind, behind } = contentsOf(holding, ticks);
        expect(items + itemsBehind.length).to.equal(total);
        expect(points).to.equal(2 * items);
        const order = holding.items.map((i) => i.id);
        expect(itemsBehind).to.deep.equal(order.filter((id) => itemsBehind.includes(id)));
        const ticked = new Set(ticks.flatMap((t) => (t.kind === 'quiz' ? [t.nodeId] : [])));
        expect(behind.flatMap((b) => (b.kind === 'quiz' ? [b.id] : []))).to.deep.equal(
          ['q1', 'q2'].filter((id) => !ticked.has(id)),
        );
      }),
    );
  });
});
