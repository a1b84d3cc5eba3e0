import { expect } from 'chai';
import fc from 'fast-check';
import { finding, type Finding } from '@alforja/core';
import { Collected, MOST_ALIKE } from '../../../core/src/reading/collect.ts';
import { read } from '../../support/read.ts';

describe('findings of a reading', () => {
  it('are listed as they come, and of those that are alike no more than anybody reads', () => {
    const nodes = fc.constantFrom(null, 'i1', 'i2');
    const runs = fc.array(fc.tuple(nodes, fc.boolean(), fc.integer({ min: 1, max: 1700 })), { maxLength: 6 });
    fc.assert(
      fc.property(runs, (given) => {
        const collected = new Collected();
        const added = new Map<string, number>();
        for (const [node, empty, times] of given)
          for (let n = 0; n < times; n++) {
            const found: Finding = empty
              ? finding('stem-empty', 'warning', { node })
              : finding('opaque-content', 'note', { node, line: n }, { what: 'a' });
            collected.add(found);
            const key = `${node} ${found.code}`;
            added.set(key, (added.get(key) ?? 0) + 1);
          }
        const came = new Map<string, number>();
        for (const found of collected.all) {
          const many = found.code === 'findings-many';
          const key = `${found.where.node} ${many ? found.params.code : found.code}`;
          came.set(key, (came.get(key) ?? 0) + (many ? found.params.count : 1));
          if (!many) expect(came.get(key)).to.be.at.most(MOST_ALIKE);
        }
        // None is lost from the count.
        expect([...came].sort()).to.deep.equal([...added].sort());
      }),
      { numRuns: 30 },
    );
  });

  it('of a file of nothing known are few, and say how many they stand for', async () => {
    const { findings } = await read(`<questestinterop>${'<a/>'.repeat(5000)}</questestinterop>`, 'a.xml');
    expect(findings.length).to.be.below(MOST_ALIKE + 20);
    const many = findings.find((f) => f.code === 'findings-many');
    expect(many?.params).to.deep.equal({ code: 'opaque-content', count: 4000, listed: MOST_ALIKE });
  });
});
