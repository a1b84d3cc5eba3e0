import { expect } from 'chai';
import fc from 'fast-check';
import { readHolding, rubricPoints, writeRubrics, type Rubric } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import {
  readRubrics,
  rubricWorth,
  writeRubric,
  type HeldRubric,
  type RubricForm,
} from '../../../standins/formats/rubrics.ts';
import { passagePlanCase, passagePlanCsv } from '../../../demo/rubricFiles.ts';
import { rubrics } from '../../support/rubricArbitraries.ts';

/** Rubrics between the application and a course system, which share no code for them. */
const NAMES: Readonly<Record<RubricForm, string>> = { csv: 'r.csv', 'case1.0': 'r.json' };

const text = (t: string): string => t.replace(/\s+/gu, ' ').trim();
/** What both sides have to agree upon; CASE by itself has one number for a level, not two. */
const told = (r: Rubric | HeldRubric, form: RubricForm): unknown[] => [
  text(r.title),
  ...r.criteria.map((c) => [
    text(c.title),
    c.weight ?? 1,
    ...c.levels.map((l) => [
      text(l.title),
      form === 'csv' ? (l.points?.low ?? null) : null,
      l.points?.high ?? null,
      text(l.description),
    ]),
  ]),
];

describe('rubrics of a simulated course system', () => {
  for (const form of ['csv', 'case1.0'] as const) {
    it(`${form}: what the application writes is read there, level by level (property)`, () =>
      fc.assert(
        fc.asyncProperty(rubrics.filter(plainNumbers), async (given) => {
          const { bytes } = await writeRubrics(given, form, nodePlatform);
          const there = readRubrics(form, new TextDecoder().decode(bytes));
          expect(there.map((r) => told(r, form))).to.deep.equal(given.map((r) => told(r, form)));
          for (const [at, r] of given.entries())
            if (r.mode === 'points') expect(rubricWorth(there[at]!)).to.be.closeTo(rubricPoints(r)!, 1e-9);
        }),
        { numRuns: 60 },
      ));

    it(`${form}: what it writes is read by the application, and comes to the same points (property)`, () =>
      fc.assert(
        fc.asyncProperty(rubrics.filter(plainNumbers), async (given) => {
          const { bytes } = await writeRubrics(given, form, nodePlatform);
          for (const held of readRubrics(form, new TextDecoder().decode(bytes))) {
            const source = new TextEncoder().encode(writeRubric(form, held));
            const back = await readHolding(NAMES[form], source, nodePlatform);
            expect(back.findings.filter((f) => f.severity === 'error')).to.deep.equal([]);
            expect(back.rubrics.map((r) => told(r, form))).to.deep.equal([told(held, form)]);
          }
        }),
        { numRuns: 60 },
      ));
  }

  it('come to the figures of the passage plan: 6 + 5 + 4 + 1.5 points (demo data, worked by hand)', () => {
    const [plan] = readRubrics('csv', passagePlanCsv());
    expect(plan!.criteria.map((c) => c.weight)).to.deep.equal([2, 1, 1, 1]);
    expect(rubricWorth(plan!)).to.equal(16.5);
    const [came] = readRubrics('case1.0', passagePlanCase());
    expect(rubricWorth(came!)).to.equal(17);
  });

  it('are refused in words where they are none', () => {
    expect(() => readRubrics('csv', 'a,b\n1,2')).to.throw('criterion');
    expect(() => readRubrics('case1.0', '{"a":1}')).to.throw('CASE');
  });
});

/** A table of a plain system has no sign for points below 0. */
function plainNumbers(given: readonly Rubric[]): boolean {
  return given.every((r) => r.criteria.every((c) => c.levels.every((l) => (l.points?.low ?? 0) >= 0)));
}
