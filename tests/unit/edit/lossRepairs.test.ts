import { expect } from 'chai';
import {
  allRepairs,
  changesScores,
  comparePlanned,
  compareHoldings,
  forecast,
  mend,
  readHolding,
  writeHolding,
  type Finding,
  type Holding,
  type Target,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { demoFiles } from '../../../demo/packages.ts';
import { readZip } from '../../support/read.ts';
import { THREE_LOSSES } from '../../support/threeLosses.ts';
import { readAll } from '../../support/losses.ts';

const three = (): Promise<Holding> => readZip(THREE_LOSSES);

const bad = (findings: readonly Finding[]): Finding[] =>
  findings.filter((f) => f.code === 'loss-kind' || f.code === 'loss-scoring');
const TARGET: Target = 'cc1.3';

describe('repairs of losses', () => {
  it('take every loss away, and say by running them whose scores change', async () => {
    const holding = await three();
    const losses = bad(forecast(holding, TARGET));
    expect(new Set(losses.map((f) => f.where.node))).to.deep.equal(new Set(['match', 'number', 'parts']));
    const repairs = allRepairs(holding, TARGET).filter((r) => r.code.startsWith('loss-'));
    const changing = new Map(repairs.map((r) => [r.node, changesScores(r)]));
    expect([...changing].sort()).to.deep.equal([
      ['match', false],
      ['number', true],
      ['parts', true],
    ]);
    const { holding: mended, edits } = mend(holding, 'all', [], (h) => allRepairs(h, TARGET));
    expect(edits.map((e) => e.op).sort()).to.deep.equal(['scoring', 'scoring', 'separate']);
    expect(bad(forecast(mended, TARGET))).to.deep.equal([]);
    expect(mended.items.map((i) => i.points)).to.deep.equal([1, 2, 3, 3]);
  });

  it('arrive as planned, and only what was changed on purpose is otherwise', async () => {
    const holding = await three();
    const { holding: mended } = mend(holding, 'all', [], (h) => allRepairs(h, TARGET));
    const back = await readAll(writeHolding(mended, TARGET, () => null).packages);
    const items = { ...mended, banks: [], quizzes: [] };
    const { comparison, onPurpose } = comparePlanned(holding, items, { ...back, banks: [], quizzes: [] });
    expect([comparison.verdict, comparison.counts]).to.deep.equal([
      'intact',
      { intact: 4, altered: 0, missing: 0, extra: 0 },
    ]);
    expect(new Set(onPurpose.map((p) => p.node))).to.include.all.keys('match', 'number', 'parts');
  });

  it('are not made where scores would change, unless that is wanted', async () => {
    const holding = await three();
    const { edits } = mend(holding, 'all', [], (h) => allRepairs(h, TARGET).filter((r) => !changesScores(r)));
    expect(edits.map((e) => [e.op, e.node])).to.deep.equal([['separate', 'match']]);
  });

  it('never make it worse, whatever the package and the target', async () => {
    for (const name of ['every-kind.zip', 'midterm-export.zip', 'distance-drill.zip']) {
      const { bytes } = demoFiles().find((f) => f.name === name)!;
      const holding = await readHolding(name, bytes, nodePlatform);
      for (const target of ['cc1.3', 'qti1.2', 'qti2.1'] as const) {
        const before = bad(forecast(holding, target));
        const { holding: mended, edits } = mend(
          holding,
          new Set([
            'loss-kind',
            'loss-scoring',
            'loss-feedback',
            'loss-draw',
            'loss-settings',
            'loss-section',
          ]),
          [],
          (h) => allRepairs(h, target),
        );
        const after = bad(forecast(mended, target));
        expect(after.length, `${name} ${target}`).to.be.at.most(before.length);
        if (edits.length === 0) expect(compareHoldings(holding, mended).verdict).to.equal('intact');
      }
    }
  });

  it('say in the instructions what a cartridge has no place for', async () => {
    const { bytes } = demoFiles().find((f) => f.name === 'midterm-export.zip')!;
    const holding = await readHolding('midterm-export.zip', bytes, nodePlatform);
    const timed: Holding = {
      ...holding,
      quizzes: holding.quizzes.map((q) => ({ ...q, settings: { ...q.settings, passMark: 12 } })),
    };
    const { holding: mended } = mend(timed, new Set(['loss-settings']), [], (h) => allRepairs(h, TARGET));
    const [quiz] = mended.quizzes;
    expect(quiz!.settings.passMark).to.equal(null);
    expect(quiz!.settings.instructions).to.include('Pass mark: 12 points.');
  });
});
