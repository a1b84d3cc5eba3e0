import { expect } from 'chai';
import fc from 'fast-check';
import {
  chosenFrom,
  contentsOf,
  groupsOf,
  LOOSE,
  looseIds,
  NODE_KINDS,
  THING_KINDS,
  ticksOfKinds,
  type Holding,
  type Tick,
} from '@alforja/core';
import { assessmentXml, bankXml, PLAIN } from '../../../demo/qti12.ts';
import { LIGHTS_BANK, TIDAL_EXAM } from '../../../demo/items.ts';
import { demoFiles } from '../../../demo/packages.ts';
import { read } from '../../support/read.ts';

const demo = (name: string): Promise<Holding> => read(demoFiles().find((f) => f.name === name)!.bytes, name);

describe('ticks', () => {
  it('are sorted by kind, and none is lost', () => {
    const tick = fc.record({ kind: fc.constantFrom(...NODE_KINDS), nodeId: fc.string() });
    fc.assert(
      fc.property(fc.array(tick), (ticks) => {
        const chosen = chosenFrom(ticks);
        const sets = {
          quiz: chosen.quizzes,
          bank: chosen.banks,
          item: chosen.items,
          'without-item': chosen.withoutItems!,
          link: chosen.links,
          rubric: chosen.rubrics!,
          without: chosen.without!,
          'without-rubric': chosen.withoutRubrics!,
        };
        expect(chosen.loose).to.equal(ticks.some((t) => t.kind === 'loose'));
        for (const kind of NODE_KINDS.filter((k) => k !== 'loose'))
          expect([...sets[kind]].sort()).to.deep.equal(
            [...new Set(ticks.filter((t) => t.kind === kind).map((t) => t.nodeId))].sort(),
          );
      }),
    );
  });

  it('of kinds are everything of these kinds and nothing else', async () => {
    const holding = await demo('pilotage-week5.imscc');
    const all = ticksOfKinds(holding, THING_KINDS);
    expect(all.length).to.equal(
      holding.quizzes.length + holding.banks.length + holding.links.length + holding.rubrics.length,
    );
    expect(ticksOfKinds(holding, ['bank']).map((t) => t.nodeId)).to.deep.equal(
      holding.banks.map((b) => b.id),
    );
    expect(ticksOfKinds(holding, [])).to.deep.equal([]);
  });

  it('loose items are those in no quiz and no bank', async () => {
    const holding = await read(assessmentXml({ id: 'q', title: 'Q', items: TIDAL_EXAM.slice(0, 3) }, PLAIN));
    const ids = holding.items.map((i) => i.id);
    expect(looseIds(holding, [...ids, 'alone'])).to.deep.equal(['alone']);
    expect(looseIds({ quizzes: [], banks: [] }, ids)).to.deep.equal(ids);
  });
});

describe('the contents of a transfer', () => {
  it('everything ticked leaves nothing behind; nothing ticked leaves everything', async () => {
    for (const { name } of demoFiles().filter((f) => /\.(?:imscc|zip|xml)$/u.test(f.name))) {
      const holding = await demo(name);
      const loose = looseIds(
        holding,
        holding.items.map((i) => i.id),
      );
      const everything: Tick[] = [
        ...ticksOfKinds(holding, THING_KINDS),
        ...loose.map((nodeId): Tick => ({ kind: 'item', nodeId })),
      ];
      const all = contentsOf(holding, everything);
      expect([all.items, all.behind.length], name).to.deep.equal([holding.items.length, 0]);
      const none = contentsOf(holding, []);
      expect([none.items, none.points, none.total], name).to.deep.equal([0, 0, holding.items.length]);
      expect(none.itemsBehind.length, name).to.equal(holding.items.length);
      const atOnce = contentsOf(holding, [...ticksOfKinds(holding, THING_KINDS), LOOSE]);
      expect(atOnce, `${name}: one tick for all that stands alone`).to.deep.equal(all);
      if (loose.length === 0) continue;
      const but = contentsOf(holding, [LOOSE, { kind: 'without-item', nodeId: loose[0]! }]);
      expect([but.items, but.itemsBehind.includes(loose[0]!)], name).to.deep.equal([loose.length - 1, true]);
    }
  });

  it('a quiz brings what it draws from, and says why', async () => {
    const holding = await demo('midterm-export.zip');
    const drawing = holding.quizzes.find((q) => q.sections.some((s) => s.draw?.bank))!;
    const { dependencies } = contentsOf(holding, [{ kind: 'quiz', nodeId: drawing.id }]);
    const banks = dependencies.filter((d) => d.kind === 'bank');
    expect(banks.length).to.be.above(0);
    expect(banks.every((d) => d.reason === 'drawn-from' && d.neededBy === drawing.id)).to.equal(true);
    const bank = banks[0]!.id;
    const without = contentsOf(holding, [
      { kind: 'quiz', nodeId: drawing.id },
      { kind: 'without', nodeId: bank },
    ]);
    expect(without.broken.map((b) => b.bank)).to.include(bank);
    expect(without.behind.some((b) => b.kind === 'bank' && b.id === bank)).to.equal(true);
  });

  it('stand in the groups of the source, each once', async () => {
    const holding = await demo('pilotage-week5.imscc');
    const groups = groupsOf(holding, null);
    const nodes = groups.flatMap((g) => g.nodes.map((n) => `${n.kind} ${n.nodeId}`));
    expect(new Set(nodes).size).to.equal(nodes.length);
    expect(nodes.length).to.equal(ticksOfKinds(holding, THING_KINDS).length);
    expect(groupsOf(await read(bankXml('b', LIGHTS_BANK, PLAIN)), null).map((g) => g.id)).to.deep.equal([
      'banks',
    ]);
  });
});
