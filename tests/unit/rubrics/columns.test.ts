import { expect } from 'chai';
import fc from 'fast-check';
import {
  columnsFrom,
  columnsOf,
  layoutHeader,
  make,
  proposeColumns,
  readHolding,
  readRubricRows,
  rolesOf,
  type ColumnRole,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';

const header = ['Kriterium', 'Gewicht', 'gut', 'Punkte', 'schwach', 'Punkte'];
const roles: ColumnRole[] = ['criterion', 'weight', 'title 1', 'points 1', 'title 2', 'points 2'];

describe('rubrics: the columns of a table', () => {
  const proposals: [is: string, rows: string[][], headerRow: number, roles: string[]][] = [
    [
      'names points after each level',
      [header, ['Kurs', '2', 'ja', '3', 'nein', '0'], ['Gezeiten', '1', 'ja', '2', 'nein', '0']],
      0,
      roles,
    ],
    [
      'describes levels at length, points after them',
      [['Rumbo', 'Cada tramo con rumbo verdadero', '3', 'Falta algún tramo de todos', '1']],
      -1,
      ['criterion', 'description 1', 'points 1', 'description 2', 'points 2'],
    ],
    [
      'has no points at all',
      [
        ['船位', '三方位あり', '二方位のみ'],
        ['潮汐', '時刻ごと', 'なし'],
      ],
      -1,
      ['criterion', 'description 1', 'description 2'],
    ],
    [
      'has a row a level',
      [
        ['Fixes', 'Good', '2', 'three lines at least, well cut'],
        ['', 'Poor', '0', 'no lines that would cut'],
        ['Tides', 'Good', '2', 'both heights, and the stream'],
      ],
      -1,
      ['criterion', 'title', 'points', 'description'],
    ],
    [
      'names its columns in a row below a title',
      [
        ['Our rubric', '', ''],
        ['criterion', 'level 1', 'points 1'],
        ['Fixes', 'Good', '2'],
      ],
      1,
      ['criterion', 'title 1', 'points 1'],
    ],
  ];
  for (const [is, rows, at, wanted] of proposals)
    it(`a table that ${is}`, () => {
      const found = proposeColumns(rows);
      expect([found.headerRow, found.roles]).to.deep.equal([at, wanted]);
      expect(readRubricRows(rows, 'T', found.roles, found.headerRow).rubrics.length).to.equal(1);
    });

  const tails: [is: string, rows: string[][], levels: [string, number | null][]][] = [
    [
      'under a header',
      [
        ['Criterion', 'Good', 'Poor'],
        ['Units', 'Complete with units, 10', 'None given, 2.5 points'],
      ],
      [
        ['Complete with units', 10],
        ['None given', 2.5],
      ],
    ],
    [
      'without a header',
      [['Units', 'Complete with units everywhere, 10', 'No units were given at all, 0']],
      [
        ['Complete with units everywhere', 10],
        ['No units were given at all', 0],
      ],
    ],
    [
      'not where one cell of the row ends otherwise',
      [
        ['Criterion', 'Good', 'Poor'],
        ['Fix', 'Within 0.2 NM, 3', 'Wide of the mark'],
      ],
      [
        ['Within 0.2 NM, 3', null],
        ['Wide of the mark', null],
      ],
    ],
  ];
  for (const [is, rows, levels] of tails)
    it(`points after a comma are split off, ${is}`, () => {
      const found = proposeColumns(rows);
      const [rubric] = readRubricRows(rows, 'T', found.roles, found.headerRow).rubrics;
      expect(rubric!.criteria[0]!.levels.map((l) => [l.description, l.points?.high ?? null])).to.deep.equal(
        levels,
      );
    });

  it('roles and columns say the same both ways, for every header that is known (property)', () => {
    const known = fc.shuffledSubarray(['rubric', 'weight', 'outcome', 'criterion description'], {
      minLength: 0,
    });
    fc.assert(
      fc.property(known, fc.integer({ min: 1, max: 8 }), (extra, levels) => {
        const head = [
          'criterion',
          ...extra,
          ...Array.from({ length: levels }, (_, n) => [
            `level ${n + 1}`,
            `points ${n + 1}`,
            `description ${n + 1}`,
          ]).flat(),
        ];
        const columns = columnsOf(head)!;
        expect(columnsFrom(rolesOf(columns, head.length), head)).to.deep.equal(columns);
      }),
    );
  });

  it('says why columns make no rubric', () => {
    const why = (...given: ColumnRole[]) => columnsFrom(given, []);
    expect(why('title 1', 'points 1')).to.equal('no-criterion');
    expect(why('criterion', 'weight')).to.equal('no-level');
    expect(why('criterion', 'points 1', 'points 1')).to.equal('twice');
    expect(why('criterion', 'title', 'named')).to.equal('mixed');
  });

  it('a file with a header that was confirmed before is read so', async () => {
    const bytes = new TextEncoder().encode(`${header.join(';')}\nKurs;2;ja;3;nein;0\n`);
    const unread = await readHolding('kurs.csv', bytes, nodePlatform);
    expect(unread.rubrics).to.deep.equal([]);
    expect(unread.findings.map((f) => f.code)).to.include('rubric-header-missing');
    const layouts = [{ header: layoutHeader(header), roles }];
    const { rubrics } = await readHolding('kurs.csv', bytes, nodePlatform, { layouts });
    expect(
      rubrics.map((r) =>
        r.criteria.map((c) => [c.title, c.weight, ...c.levels.map((l) => [l.title, l.points?.high])]),
      ),
    ).to.deep.equal([[['Kurs', 2, ['ja', 3], ['nein', 0]]]]);
    expect(make.holding({ rubrics }).rubrics.length).to.equal(1);
  });
});
