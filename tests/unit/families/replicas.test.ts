import { expect } from 'chai';
import fc from 'fast-check';
import {
  applyEdits,
  evaluate,
  forecast,
  inspectReport,
  lossRepairs,
  make,
  replicasOf,
  stemText,
  walk,
  writeHolding,
  type Holding,
  type Item,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { distanceItem, sideItem } from '../../support/parameters.ts';
import { read } from '../../support/read.ts';

const first = async (xml: string): Promise<Item> => (await read(xml)).items[0]!;

describe('replicas', () => {
  it('are fixed items in which what was drawn stands in numbers, in text, formula, key and scoring', async () => {
    const { replicas, findings } = replicasOf(await first(distanceItem()), 4, 'spring');
    expect(findings).to.deep.equal([]);
    for (const { item, values, key } of replicas) {
      const [v, t, d] = [values['V'], values['T'], values['D']].map(Number) as [number, number, number];
      expect(d).to.equal(v * t);
      expect(d).to.be.at.most(100);
      expect(stemText(item)).to.equal(
        `A boat runs ${t.toFixed(2)} hours at ${v} knots${v > 9 ? ' on the ebb' : ''}. With S=${v}, how far?`,
      );
      expect(key).to.deep.equal([String(d)]);
      expect(item.templates).to.deep.equal([]);
      expect(evaluate(item, { RESPONSE: [d + 0.09] }).score).to.equal(2);
      expect(evaluate(item, { RESPONSE: [d + 0.11] }).score).to.equal(0);
    }
    expect(new Set(replicas.map((r) => stemText(r.item))).size).to.equal(4);
    expect(replicas.map((r) => r.item.title)).to.deep.equal([1, 2, 3, 4].map((n) => `Distance run (${n}/4)`));
  });

  it('score as the item does for the candidate of their seed, whatever is answered', async () => {
    const item = await first(distanceItem());
    fc.assert(
      fc.property(fc.string(), fc.double({ noNaN: true, min: -10, max: 120 }), (seed, answer) => {
        for (const replica of replicasOf(item, 2, seed).replicas)
          for (const given of [answer, Number(replica.values['D'])])
            expect(evaluate(replica.item, { RESPONSE: [given] }).score).to.equal(
              evaluate(item, { RESPONSE: [given] }, { seed: replica.seed }).score,
            );
      }),
      { numRuns: 30 },
    );
  });

  it('are fewer, and say so, where there are too few values', async () => {
    const { replicas, findings } = replicasOf(await first(sideItem()), 5, 'x');
    expect(replicas.map((r) => r.key).sort()).to.deep.equal([['left'], ['right']]);
    expect(findings.map((f) => [f.code, f.params])).to.deep.equal([['replicas-few', { made: 2, wanted: 5 }]]);
  });

  it('have no choice that their candidate would not be shown', async () => {
    for (const { item } of replicasOf(await first(sideItem()), 2, 'x').replicas)
      expect(
        inspectReport(make.holding({ items: [item] })).items[0]!.choices.map((c) => c.text),
      ).to.deep.equal(['left', 'right']);
  });

  it('come back as they were written, in every format', async () => {
    const item = await first(distanceItem());
    const made = replicasOf(item, 3, 'a').replicas.map((r) => r.item);
    const bank = { id: 'b', title: 'Replicas', items: made.map((i) => i.id), metadata: [], origin: null };
    for (const target of ['qti1.2', 'qti2.1', 'qti3.0', 'cc1.3'] as const) {
      const { packages } = writeHolding(
        make.holding({ items: made, banks: [bank] }),
        target,
        () => null,
        nodePlatform,
      );
      const back = await read(packages[0]!, 'back.zip');
      expect(back.items.map(stemText), target).to.deep.equal(made.map(stemText));
      expect(
        inspectReport(back).items.map((i) => i.key),
        target,
      ).to.deep.equal(replicasOf(item, 3, 'a').replicas.map((r) => [...r.key]));
    }
  });
});

describe('an item with templates where a target has none', () => {
  const quizOf = (item: Item, before: string[], after: string[]): Holding => {
    const others = [...before, ...after].map((id) => make.item({ id, title: id, points: 1 }));
    const refs = [...before, item.id, ...after].map((id) => ({ item: id, weight: 1 }));
    return make.holding({
      items: [item, ...others],
      quizzes: [
        {
          id: 'q',
          title: 'Quiz',
          settings: make.NO_SETTINGS,
          sections: [
            { id: 's', title: 'One', shuffle: false, items: refs, draw: null, instructions: 'Read.' },
          ],
          test: null,
          metadata: [],
          origin: null,
        },
      ],
    });
  };

  it('becomes a draw of one of its replicas, in its place, and nobody scores otherwise', async () => {
    const item = await first(distanceItem());
    const holding = quizOf(item, ['a'], ['b']);
    const losses = forecast(holding, 'qti1.2').filter((f) => f.where.node === 'run');
    const [repair] = lossRepairs(holding, 'qti1.2', losses);
    expect(repair!.edits.map((e) => e.op)).to.deep.equal(['replicas']);
    expect(repair!.scores).to.equal(null);
    const done = applyEdits(holding, repair!.edits);
    expect(done.refused).to.deep.equal([]);
    const [quiz] = done.holding.quizzes;
    expect(
      quiz!.sections.map((s) => [s.items.map((r) => r.item).join(), s.draw?.pick, s.draw?.pool.length]),
    ).to.deep.equal([
      ['a', undefined, undefined],
      ['', 1, 5],
      ['b', undefined, undefined],
    ]);
    expect(quiz!.sections[1]!.draw!.pointsEach).to.equal(item.points);
    expect(forecast(done.holding, 'qti1.2').filter((f) => f.code === 'loss-kind')).to.deep.equal([]);
  });

  it('that is drawn becomes one for everybody: a draw never meets one exercise twice', async () => {
    const item = await first(distanceItem());
    const holding = quizOf(item, [], []);
    const draw = { pick: 1, bank: null, pool: ['run'], weights: null, pointsEach: 2, withReplacement: false };
    const drawn: Holding = {
      ...holding,
      quizzes: holding.quizzes.map((q) => ({
        ...q,
        sections: q.sections.map((s) => ({ ...s, items: [], draw })),
      })),
    };
    const losses = forecast(drawn, 'qti1.2').filter((f) => f.where.node === 'run');
    const [repair] = lossRepairs(drawn, 'qti1.2', losses);
    expect(repair!.edits.map((e) => e.op)).to.deep.equal(['parameters-fix']);
    expect(applyEdits(drawn, [{ op: 'replicas', node: 'run', count: 2, seed: '1' }]).refused).to.have.length(
      1,
    );
  });

  it('reads as one candidate gets it once its parameters are fixed', async () => {
    const { holding } = applyEdits(await read(distanceItem()), [
      { op: 'parameters-fix', node: 'run', seed: 9 },
    ]);
    let printed = 0;
    walk(
      holding.items[0]!.body,
      (n) => void (printed += Number(n.kind === 'printedVariable' || n.kind === 'template')),
    );
    expect(printed).to.equal(0);
    expect(stemText(holding.items[0]!)).to.match(/runs \d+\.\d\d hours at \d+ knots/u);
  });
});
