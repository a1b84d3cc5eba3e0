import { expect } from 'chai';
import { CHECKS, make } from '@alforja/core';
import { codes, read, readZip } from '../../support/read.ts';
import { dated, SAMPLES } from './samples.ts';
import { askedBy } from '../../../core/src/match/asked.ts';

describe('the checks', () => {
  it('has a sample for each of the catalogue', () => {
    expect(Object.keys(SAMPLES).sort()).to.deep.equal(CHECKS.map((c) => c.code).sort());
  });
  it('dates-impossible: trips on equal dates and on closing first', () => {
    const check = CHECKS.find((c) => c.code === 'dates-impossible')!;
    const found = (opens: string | null, closes: string | null): number =>
      check.whole(make.holding({ quizzes: [dated(opens, closes)] }), askedBy).length;
    expect(found('2026-03-01T08:00:00Z', '2026-03-01T08:00:00Z')).to.equal(1);
    expect(found('2026-03-02T08:00:00Z', '2026-03-01T08:00:00Z')).to.equal(1);
    expect(found('2026-03-01T08:00:00Z', '2026-03-02T08:00:00Z')).to.equal(0);
    expect(found(null, '2026-03-02T08:00:00Z')).to.equal(0);
  });
  const found = async (sample: string | Record<string, string>): Promise<string[]> =>
    codes(await (typeof sample === 'string' ? read(sample) : readZip(sample)));
  for (const [code, { trips, passes }] of Object.entries(SAMPLES)) {
    it(`${code}: trips on what is wrong, and only then`, async () => {
      for (const sample of trips) expect(await found(sample), JSON.stringify(sample)).to.include(code);
      for (const sample of passes) expect(await found(sample), JSON.stringify(sample)).to.not.include(code);
    });
  }
});
