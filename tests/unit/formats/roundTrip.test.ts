import { expect } from 'chai';
import { config } from 'chai';
config.truncateThreshold = 0;
import fc from 'fast-check';
import { compareHoldings, evaluate, probesOf, readHolding, recognise, writeHolding, type Holding, type Item, type Quiz } from '@alforja/core'; // prettier-ignore
import { nodePlatform } from '@alforja/core/node';
import { settlePoints, settleDraws } from '../../../core/src/reading/settle.ts';
import { anyHolding } from '../../support/arbitraries.ts';

/** As a reader settles it: points found by running, draws priced. */
function settled(holding: Holding): Holding {
  const items = settlePoints(holding.items, holding.quizzes, () => undefined);
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

describe('writing QTI 2.1 and reading it back', () => {
  it('gives the same tree, the same scores on every probe, and the verdict "intact"', async () => {
    await fc.assert(
      fc.asyncProperty(anyHolding, async (made) => {
        const before = settled(made);
        const { packages, findings } = writeHolding(before, 'qti2.1', () => null);
        expect(findings.filter((f) => f.severity === 'error')).to.deep.equal([]);
        const after = await readHolding('back.zip', packages[0]!, nodePlatform);
        expect(after.findings.filter((f) => f.severity === 'error' && f.where.path !== null && f.code.startsWith('xml'))).to.deep.equal([]);
        expect(after.items.map(essence)).to.deep.equal(before.items.map(essence));
        expect(after.quizzes.map(quizEssence)).to.deep.equal(before.quizzes.map(quizEssence));
        expect(after.banks.map(({ title, items }) => ({ title, items }))).to.deep.equal(
          before.banks.map(({ title, items }) => ({ title, items })),
        );
        for (const [at, item] of before.items.entries()) {
          const best = recognise(item).best.answers;
          for (const answers of probesOf(item, best).answers)
            expect(evaluate(after.items[at]!, answers).score).to.be.closeTo(evaluate(item, answers).score, 1e-9);
        }
        expect(compareHoldings(before, after).verdict).to.equal('intact');
      }),
      { numRuns: 150 },
    );
  }).timeout(60_000); // prettier-ignore

  it('writes byte-identical packages for the same input', () => {
    fc.assert(
      fc.property(anyHolding, (made) => {
        const write = (): Uint8Array =>
          writeHolding(settled(structuredClone(made)), 'qti2.1', () => null).packages[0]!;
        expect(Buffer.compare(write(), write())).to.equal(0);
      }),
      { numRuns: 20 },
    );
  });
});
