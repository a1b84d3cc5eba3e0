import { expect } from 'chai';
import { compareHoldings, fileReader, readHolding, writeHolding, type Target } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { kindsPackage } from '../../../demo/kinds.ts';
import { demoFiles } from '../../../demo/packages.ts';
import { zip } from '../../../demo/zip.ts';
import { emptyCourse } from '../../../standins/buildCourse.ts';
import { arriving, exportCourse } from '../../../standins/course.ts';
import { quayside } from '../../../standins/data.ts';
import { HABITS, NO_HABITS, type Habit } from '../../../standins/habits.ts';
import { importInto } from '../../../standins/imports.ts';

/** What a course system takes in and gives out again, with and without its habits. */

type Gives = 'cartridge' | 'qti2.1';
const TAKES: Readonly<Record<Gives, Target>> = { cartridge: 'qti1.2', 'qti2.1': 'qti2.1' };

/** A package sent by the application into an empty course, and what an export of the course then says. */
async function there(source: Uint8Array, gives: Gives, habits: Partial<Record<Habit, boolean>> = {}) {
  const given = await readHolding('given.zip', source, nodePlatform);
  const read = await fileReader('given.zip', source, nodePlatform);
  const course = emptyCourse('c1');
  const all = { ...NO_HABITS, ...habits };
  const { packages } = writeHolding(given, TAKES[gives], read, nodePlatform);
  for (const sent of packages)
    importInto(course, arriving(sent), { sourceSections: 0, things: [] }, all, 'Ilan Brook', Infinity);
  const planned = await readHolding('sent.zip', packages[0]!, nodePlatform);
  const bytes = exportCourse(course, null, gives, all, 'Course');
  const arrived = await readHolding('arrived.zip', bytes, nodePlatform);
  return { course, planned, arrived, report: compareHoldings(planned, arrived) };
}

const demo = (name: string): Uint8Array => demoFiles().find((f) => f.name === name)!.bytes;

/** What a course of last term holds: an exam, what it draws from, half points, a picture with a blank in its name. */
function lastTerm(): Uint8Array {
  const { courses } = quayside({ port: 0, folder: null });
  const course = courses.find((c) => c.id === 'k-tides-s26')!;
  return exportCourse(course, null, 'cartridge', NO_HABITS, 'Tides');
}

describe('a simulated course system', () => {
  for (const gives of ['cartridge', 'qti2.1'] as const)
    it(`gives out as ${gives} what it took in, also the items that it does not know itself`, async () => {
      for (const source of [zip(kindsPackage()), demo('midterm-export.zip'), demo('pilotage-week5.imscc')]) {
        const { course, report } = await there(source, gives);
        const altered = report.pairs.filter((p) => p.state !== 'intact');
        expect(altered.map((p) => [p.source, p.differences])).to.deep.equal([]);
        expect([report.missing, report.extra]).to.deep.equal([[], []]);
        expect(course.held.items.length).to.be.above(0);
      }
    });

  const content: readonly [Habit, facet: string][] = [
    ['dropsTolerance', 'tolerance'],
    ['lowersCase', 'case-sensitivity'],
    ['stripsFeedback', 'feedback'],
    ['reordersChoices', 'choice-order'],
    ['roundsPoints', 'points'],
    ['losesSpacedFiles', 'files'],
  ];
  for (const [habit, facet] of content)
    it(`${HABITS[habit]}: the comparison says ${facet}`, async () => {
      for (const gives of ['cartridge', 'qti2.1'] as const) {
        const { report } = await there(lastTerm(), gives, { [habit]: true });
        const facets = new Set(report.pairs.flatMap((p) => p.differences.map((d) => d.facet)));
        expect([...facets], gives).to.include(facet);
      }
    });

  it('refuses what is no package, and says why', () => {
    expect(() => arriving(zip({ 'a.txt': 'nothing' }))).to.throw('imsmanifest.xml');
    expect(() => arriving(new TextEncoder().encode('a,b\n1,2'))).to.throw('criterion');
  });
});
