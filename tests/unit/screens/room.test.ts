import { expect } from 'chai';
import fc from 'fast-check';
import type { SpokenFinding } from '@alforja/core';
import { fromRuns, toRuns, type RoomRows, type RoomView } from '$lib/shared/room';
import {
  choicesAt,
  itemsAt,
  narrowed,
  NO_FILTERS,
  placeName,
  placeOf,
  placeText,
  UNCATEGORISED,
  type Place,
} from '../../../src/lib/ui/room/places.ts';

const finding = (code: string, severity = 'warning'): SpokenFinding =>
  ({ code, severity, message: code }) as unknown as SpokenFinding;

const rows: RoomRows = {
  kinds: ['choice', 'number'],
  kind: [0, 1, 0, 1],
  categories: ['Tides', '-'],
  category: [0, -1, 1, 0],
  points: [1, 2, 2, 0.5],
};
const room = {
  quizzes: [
    {
      id: 'q:1',
      title: 'Exam',
      items: [
        [3, 1],
        [0, 2],
      ],
      count: 3,
    },
  ],
  banks: [{ id: 'b', title: 'Bank', items: [[1, 3]], count: 3 }],
  loose: [[2, 1]],
  findings: [
    { spoken: finding('key-missing', 'error'), item: 3 },
    { spoken: finding('key-missing', 'error'), item: 1 },
    { spoken: finding('item-unused', 'note'), item: 2 },
    { spoken: finding('link-dead'), item: null },
  ],
  items: 4,
} as unknown as RoomView;

describe('places of items as runs', () => {
  it('come back as they were, in whatever order', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(500)), (places) => {
        expect(fromRuns(toRuns(places))).to.deep.equal(places);
      }),
    );
    expect(toRuns(Array.from({ length: 50_000 }, (_, n) => n))).to.deep.equal([[0, 50_000]]);
  });
});

describe('the places of a reading room', () => {
  const places: [Place, number[]][] = [
    [{ kind: 'all' }, [0, 1, 2, 3]],
    [{ kind: 'quiz', id: 'q:1' }, [3, 0, 1]],
    [{ kind: 'bank', id: 'b' }, [1, 2, 3]],
    [{ kind: 'loose' }, [2]],
    [{ kind: 'findings', which: 'decide' }, [1, 3]],
    [{ kind: 'findings', which: 'notes' }, [2]],
  ];
  for (const [place, items] of places)
    it(`${placeText(place)} is an address and back, with its items`, () => {
      expect(placeOf(placeText(place), room)).to.deep.equal(place);
      expect(itemsAt(place, room)).to.deep.equal(items);
    });

  it('are called by their own names, or by what they are', () => {
    expect(places.map(([place]) => placeName(place, room))).to.deep.equal([
      'All items',
      'Exam',
      'Bank',
      'In no quiz or bank',
      'To decide',
      'Noted on reading',
    ]);
  });

  it('that are not there are no places', () => {
    for (const text of [null, '', 'quiz:gone', 'constructor', 'bank:'])
      expect(placeOf(text, room)).to.equal(null);
  });
});

describe('the filters of a reading room', () => {
  const all = [0, 1, 2, 3];
  const cases: [what: string, filters: Partial<typeof NO_FILTERS>, found: number[] | null, left: number[]][] =
    [
      ['none', {}, null, all],
      ['kind', { kind: 'number' }, null, [1, 3]],
      ['a kind that is not there', { kind: 'essay' }, null, []],
      ['category', { category: 'Tides' }, null, [0, 3]],
      ['no category', { category: UNCATEGORISED }, null, [1]],
      ['a category that is not there', { category: 'Lights' }, null, []],
      ['points', { points: '0.5' }, null, [3]],
      ['finding', { finding: 'key-missing' }, null, [1, 3]],
      ['words', { q: 'x' }, [2, 3], [2, 3]],
      ['all at once', { kind: 'number', finding: 'key-missing', points: '2' }, [1, 2], [1]],
    ];
  for (const [what, filters, found, left] of cases)
    it(`by ${what}`, () =>
      expect(narrowed(all, { ...NO_FILTERS, ...filters }, rows, room, found && new Set(found))).to.deep.equal(
        left,
      ));

  it('offer what there is in the place, counted', () => {
    const {
      kind,
      category,
      points,
      finding: codes,
    } = choicesAt(itemsAt({ kind: 'bank', id: 'b' }, room), rows, room);
    expect(kind).to.deep.equal([
      { value: 'number', count: 2 },
      { value: 'choice', count: 1 },
    ]);
    expect(category.map((c) => c.value).sort()).to.deep.equal(['-', '-', 'Tides'].slice(1));
    expect(points.map((p) => p.value)).to.deep.equal(['0.5', '2']);
    expect(codes.map((c) => [c.value, c.count])).to.deep.equal([
      ['key-missing', 2],
      ['item-unused', 1],
    ]);
  });
});
