import { expect } from 'chai';
import { seamRows, type Comparison, type Hotspot } from '@alforja/core';
import type { Arrival } from '$lib/shared/transfers';
import { courseIdOf, partsOfCourse } from '$lib/shared/courses';
import { FILE_STEPS, STEPS, stepWords } from '$lib/shared/stages';
import { bytes, count, formatName, plural, pointsRange, readable } from '../../../src/lib/ui/format.ts';
import { outlineOf } from '../../../src/lib/ui/content/areas.ts';
import { holds, holdsAnything } from '../../../src/lib/ui/courses/holds.ts';
import { FACET_NAMES } from '../../../src/lib/ui/seam/rows.ts';
import type { CourseListing } from '$lib/shared/courses';

describe('numbers, sizes and dates in words', () => {
  const cases: readonly [said: string, wanted: string][] = [
    [count(12345.678), new Intl.NumberFormat().format(12345.678)],
    [plural(1, 'quiz', 'quizzes'), '1 quiz'],
    [plural(0, 'quiz', 'quizzes'), '0 quizzes'],
    [pointsRange(null), ''],
    [pointsRange({ low: 4, high: 4 }), '4'],
    [pointsRange({ low: 4, high: 5.5 }), '4 to 5.5'],
    [bytes(999), '999 bytes'],
    [bytes(1500), '1.5 kB'],
    [bytes(52_000_000), '52 MB'],
    [bytes(7e12), '7000 GB'],
    [readable('from 2027-01-11T09:00:00+02:00 on', 'en-GB'), 'from 11 Jan 2027, 09:00 +02:00 on'],
    [readable('2026-12-01T08:05Z', 'en-GB'), '1 Dec 2026, 08:05 UTC'],
    [readable('2026-99-01T08:05Z'), '2026-99-01T08:05Z'],
    [readable('no date at all'), 'no date at all'],
    [formatName({ standard: 'qti', version: '1.2', container: 'xml' }), 'QTI 1.2 (one XML file)'],
    [formatName({ standard: 'constructor', version: null, container: 'zip' }), 'Not recognised'],
  ];
  for (const [said, wanted] of cases) it(`“${wanted}”`, () => expect(said).to.equal(wanted));
});

describe('courses and steps', () => {
  it('a course’s id comes apart where it was put together', () => {
    const id = courseIdOf('sys', 'k:tides:1');
    expect(partsOfCourse(id)).to.deep.equal({ systemId: 'sys', classId: 'k:tides:1' });
  });

  it('every step has words, where it is gone', () => {
    expect(STEPS.filter((s) => !stepWords(true)[s])).to.deep.equal([]);
    expect(Object.keys(stepWords(false))).to.deep.equal(Object.keys(FILE_STEPS));
  });

  it('what a course holds is told without what it has none of', () => {
    const course = { quizzes: 2, banks: 0, rubrics: 1, links: 0, items: 12 } as CourseListing;
    expect(holds(course))
      .to.match(/2 quizzes/u)
      .and.not.to.match(/bank/u);
    expect(holdsAnything({ ...course, quizzes: 0, rubrics: 0 })).to.equal(false);
  });
});

describe('the seam', () => {
  const row = (id: string, n: number) => ({ id, n, name: id, kind: 'choice', key: 'A', points: 1 });
  const pair = (source: string, arrived: string, state: 'intact' | 'altered') => ({
    source,
    arrived,
    state,
    by: 'identifier',
    differences: [],
  });
  const arrival = (over: Partial<Comparison>, left: string[], right: string[]): Arrival =>
    ({
      comparison: {
        pairs: [],
        missing: [],
        extra: [],
        containers: [],
        missingFiles: [],
        families: [],
        ...over,
      },
      onPurpose: [],
      left: left.map(row),
      right: right.map(row),
    }) as unknown as Arrival;

  it('keeps the order of the source, with what is extra after what it follows', () => {
    const rows = seamRows(
      arrival(
        {
          pairs: [pair('a', 'A', 'intact'), pair('c', 'C', 'altered')] as never,
          extra: [
            { id: 'X', title: '' },
            { id: 'Y', title: '' },
          ],
        },
        ['a', 'b', 'c'],
        ['X', 'A', 'Y', 'C'],
      ),
    );
    expect(rows.map((r) => [r.left?.id ?? null, r.right?.id ?? null, r.state])).to.deep.equal([
      [null, 'X', 'extra'],
      ['a', 'A', 'intact'],
      [null, 'Y', 'extra'],
      ['b', null, 'missing'],
      ['c', 'C', 'altered'],
    ]);
    expect(new Set(rows.map((r) => r.key)).size).to.equal(rows.length);
  });

  it('has one row for an exercise whose replicas came with other numbers', () => {
    const family = { id: 'f', title: 'Distance', items: ['b', 'c'], missing: 0, stale: [] };
    const sides = (state: 'reseeded' | 'altered') =>
      seamRows(
        arrival(
          {
            pairs: [pair('a', 'A', 'intact'), pair('b', 'B', 'altered'), pair('c', 'C', 'altered')] as never,
            extra: [{ id: 'X', title: '' }],
            families: [{ ...family, state }],
          },
          ['a', 'b', 'c'],
          ['A', 'B', 'C', 'X'],
        ),
      ).map((r) => [r.left?.name ?? null, r.right?.name ?? null, r.state]);
    expect(sides('reseeded')).to.deep.equal([
      ['a', 'A', 'intact'],
      ['Distance: 2 replicas', 'the same exercise with other numbers', 'altered'],
      [null, 'X', 'extra'],
    ]);
    expect(sides('altered').map(([name]) => name)).to.deep.equal(['a', 'b', 'c', null]);
  });

  it('has a name for every facet that differs', () => {
    expect(Object.values(FACET_NAMES).every((n) => n.length > 3)).to.equal(true);
  });
});

describe('areas of a picture', () => {
  const cases: readonly [shape: Hotspot['shape'], coords: string, path: string, x: number, y: number][] = [
    ['rect', '10,20,30,60', 'M10 20H30V60H10Z', 20, 40],
    ['rect', '10%,0,50%,100%', 'M20 0H100V100H20Z', 60, 50],
    ['circle', '50,40,10', 'M40 40A10 10 0 1 0 60 40A10 10 0 1 0 40 40Z', 50, 40],
    ['ellipse', '50,40,10,5', 'M40 40A10 5 0 1 0 60 40A10 5 0 1 0 40 40Z', 50, 40],
    ['poly', '0,0,30,0,0,30', 'M0 0L30 0L0 30Z', 10, 10],
    ['rect', 'no numbers', 'M0 0H200V100H0Z', 100, 50],
    ['default', '', 'M0 0H200V100H0Z', 100, 50],
  ];
  for (const [shape, coords, path, x, y] of cases)
    it(`${shape} ${coords}`, () =>
      expect(outlineOf({ shape, coords }, 200, 100)).to.deep.equal({ path, x, y }));
});
