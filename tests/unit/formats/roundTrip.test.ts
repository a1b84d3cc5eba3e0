import { expect } from 'chai';
import fc from 'fast-check';
import {
  evaluate,
  probesOf,
  recognise,
  TARGETS,
  writeHolding,
  type Holding,
  type Item,
  type Quiz,
  type Target,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { settleDraws } from '../../../core/src/reading/settle.ts';
import { settlePoints } from '../../support/settled.ts';
import { anyHolding } from '../../support/arbitraries.ts';
import { readAll, unexplained } from '../../support/losses.ts';

/** As a reader settles it: points found by running, draws priced. */
function settled(holding: Holding): Holding {
  const items = settlePoints(holding.items, holding.quizzes);
  return { ...holding, items, quizzes: settleDraws(holding.quizzes, items) };
}

const essence = (i: Item) => ({
  id: i.id,
  title: i.title,
  body: i.body,
  responses: i.responses,
  outcomes: i.outcomes.map(({ normalMaximum: _max, ...o }) => o),
  scoring: i.scoring,
  points: i.points,
  feedback: i.feedback,
  category: i.category,
});
const quizEssence = ({ sections, settings, title }: Quiz) => ({
  title,
  sections: sections.map(({ title: t, items, draw, shuffle, instructions }) => ({
    t,
    items,
    shuffle,
    instructions,
    draw: draw && { pick: draw.pick, pool: draw.pool, pointsEach: draw.pointsEach },
  })),
  attempts: settings.attempts,
  time: settings.timeLimitMinutes,
  instructions: settings.instructions,
});

const write = (holding: Holding, target: Target) => writeHolding(holding, target, () => null, nodePlatform);
const LOSES_SCORING: ReadonlySet<string> = new Set(['loss-kind', 'loss-scoring']);
const isQti2 = (target: Target): boolean => /^qti[23]/u.test(target);

describe('writing and reading back', () => {
  for (const target of TARGETS) {
    it(`${target}: nothing differs but what is declared as lost, and the scores stay`, async () => {
      await fc.assert(
        fc.asyncProperty(anyHolding, async (made) => {
          const before = settled(made);
          const { packages, findings } = write(before, target);
          const after = await readAll(packages);
          expect(
            after.findings.filter((f) => /^(?:xml|archive|scoring|item-ref)/u.test(f.code)),
          ).to.deep.equal([]);
          expect(unexplained(before, after, findings)).to.deep.equal([]);
          const byId = new Map(after.items.map((i) => [i.id, i]));
          for (const item of before.items) {
            // Only what says that the scoring itself cannot be carried excuses it.
            if (findings.some((f) => f.where.node === item.id && LOSES_SCORING.has(f.code))) continue;
            const there = byId.get(item.id)!;
            for (const answers of probesOf(item, recognise(item).best.answers).answers)
              expect(evaluate(there, answers).score).to.be.closeTo(evaluate(item, answers).score, 1e-6);
          }
        }),
        { numRuns: 80 },
      );
    }).timeout(120_000);
  }

  for (const target of TARGETS.filter(isQti2)) {
    it(`${target}: the tree is the same`, async () => {
      await fc.assert(
        fc.asyncProperty(anyHolding, async (made) => {
          const before = settled(made);
          const after = await readAll(write(before, target).packages);
          const standard = target === 'qti3.0' ? 'qti3' : 'qti2';
          expect(after.items.every((i) => i.standard === standard)).to.equal(true);
          expect(after.items.map(essence)).to.deep.equal(before.items.map(essence));
          expect(after.quizzes.map(quizEssence)).to.deep.equal(before.quizzes.map(quizEssence));
        }),
        { numRuns: 40 },
      );
    });
  }

  it('writes byte-identical packages for the same input', () => {
    fc.assert(
      fc.property(anyHolding, fc.constantFrom(...TARGETS), (made, target) => {
        const once = write(settled(structuredClone(made)), target).packages;
        const twice = write(settled(structuredClone(made)), target).packages;
        expect(once.map((p) => Buffer.from(p).toString('hex'))).to.deep.equal(
          twice.map((p) => Buffer.from(p).toString('hex')),
        );
      }),
      { numRuns: 20 },
    );
  });
});
