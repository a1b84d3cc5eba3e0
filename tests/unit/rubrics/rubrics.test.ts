import { expect } from 'chai';
import { rawZip } from '../../support/rawZip.ts';
import fc from 'fast-check';
import {
  checkRubrics,
  columnsOf,
  compareHoldings,
  gradeEffect,
  gradeOf,
  make,
  type Criterion,
  type RubricLevel,
  readHolding,
  rubricPoints,
  RUBRIC_TARGETS,
  writeRubrics,
  type Rubric,
  type RubricTarget,
  type Refusal,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { rubric, rubrics } from '../../support/rubricArbitraries.ts';

const encode = (text: string): Uint8Array => new TextEncoder().encode(text);
const read = async (name: string, source: string | Uint8Array) =>
  readHolding(name, typeof source === 'string' ? encode(source) : source, nodePlatform);
const csv = async (text: string) => read('logbook.csv', text);
const grid = ({ rubrics }: { rubrics: readonly Rubric[] }) =>
  rubrics.map((r) => [
    r.title,
    ...r.criteria.map((c) => [
      c.title,
      c.weight,
      ...c.levels.map((l) => [l.title, l.points?.low ?? null, l.points?.high ?? null, l.description]),
    ]),
  ]);

const differing = (a: readonly Rubric[], b: readonly Rubric[]) =>
  compareHoldings(make.holding({ rubrics: a }), make.holding({ rubrics: b })).containers.flatMap((c) =>
    c.state === 'intact'
      ? []
      : c.differences.length > 0
        ? c.differences.map((d) => [d.facet, d.from, d.to])
        : [c.state],
  );

describe('rubrics: round trips', () => {
  const trips: [target: RubricTarget, name: string, layout: 'wide' | 'long'][] = [
    ['case1.0', 'r.json', 'wide'],
    ['csv', 'r.csv', 'wide'],
    ['csv', 'r.csv', 'long'],
    ['xlsx', 'r.xlsx', 'wide'],
    ['xlsx', 'r.xlsx', 'long'],
  ];
  for (const [target, name, layout] of trips)
    it(`${target}, ${layout}: read back, nothing differs (property)`, async () => {
      await fc.assert(
        fc.asyncProperty(rubrics, async (given) => {
          const { bytes, findings } = await writeRubrics(given, target, nodePlatform, layout);
          expect(findings).to.deep.equal([]);
          const back = await read(name, bytes);
          expect(differing(given, back.rubrics)).to.deep.equal([]);
          for (const [at, r] of given.entries())
            expect(rubricPoints(back.rubrics[at]!)).to.equal(rubricPoints(r));
        }),
        { numRuns: target === 'xlsx' ? 15 : 60 },
      );
    });

  it('keeps descriptions, percentages and identifiers in CASE, and names what a table has no place for', async () => {
    const given: Rubric = {
      ...fc.sample(rubric, { seed: 7, numRuns: 1 })[0]!,
      description: 'For the logbook.',
      mode: 'percentage',
      metadata: [{ label: 'language', value: 'en' }],
      freeComments: true,
    };
    const back = (await read('r.json', (await writeRubrics([given], 'case1.0', nodePlatform)).bytes))
      .rubrics[0]!;
    expect([back.id, back.description, back.mode, back.metadata, back.freeComments]).to.deep.equal([
      given.id,
      'For the logbook.',
      'percentage',
      given.metadata,
      true,
    ]);
    const nameless = { ...given, criteria: [...given.criteria, { ...given.criteria[0]!, title: '' }] };
    const { findings } = await writeRubrics([nameless], 'csv', nodePlatform);
    expect(findings.map((f) => [f.code, 'what' in f.params && f.params.what])).to.deep.equal([
      ['loss-rubric', 'its description, metadata, free comments, criteria without a name'],
    ]);
  });

  it('writes the same bytes for the same rubric, and a page that runs nothing', async () => {
    const [given] = fc.sample(rubric, { seed: 3, numRuns: 1 }) as [Rubric];
    for (const target of RUBRIC_TARGETS.filter((t) => t !== 'xlsx'))
      expect((await writeRubrics([given], target, nodePlatform)).bytes).to.deep.equal(
        (await writeRubrics([given], target, nodePlatform)).bytes,
      );
    const html = new TextDecoder().decode(
      (await writeRubrics([{ ...given, title: '<script>alert(1)</script>' }], 'html', nodePlatform)).bytes,
    );
    expect(html).to.include('&lt;script&gt;').and.not.include('<script');
  });
});

describe('rubrics: tables as they are met', () => {
  const wide = [['Logbook', ['Fixes', 2, ['Good', 3, 3, 'near'], ['Poor', 0, 0, '']]]];
  const cases: [what: string, text: string, expected: unknown][] = [
    [
      'wide',
      'Rubric,Criterion,Weight,Level 1,Points 1,Description 1,Level 2,Points 2,Description 2\nLogbook,Fixes,2,Good,3,near,Poor,0,',
      wide,
    ],
    [
      'wide, other words, semicolons',
      'criteria;weighting;rating 1;score 1;level 1 description;rating 2;score 2\nFixes;2;Good;3;near;Poor;0',
      [['logbook', ...wide[0]!.slice(1)]],
    ],
    [
      'long, merged cells left empty',
      'rubric,criterion,weight,level,points,description\nLogbook,Fixes,2,Good,3,near\n,,,Poor,0,',
      wide,
    ],
    [
      'a grid with points in its cells',
      'Criterion\tGood\tPoor\nFixes\t3\t0 to 1\nTides\tall\t',
      [
        [
          'logbook',
          ['Fixes', null, ['Good', 3, 3, ''], ['Poor', 0, 1, '']],
          ['Tides', null, ['Good', null, null, 'all'], ['Poor', null, null, '']],
        ],
      ],
    ],
    [
      'a grid from a page',
      'Criterion\tGood (3 points)\tPoor (0)\nFixes\tnear\t',
      [['logbook', ['Fixes', null, ['Good', 3, 3, 'near'], ['Poor', 0, 0, '']]]],
    ],
    [
      'a title above the header',
      'Logbook of the term\n\ncriterion,level 1,points 1\nFixes,Good,"2,5"',
      [['logbook', ['Fixes', null, ['Good', 2.5, 2.5, '']]]],
    ],
    [
      'ranges of points',
      'criterion,level 1,points 1,level 2,points 2\nFixes,Good,5 to 4 points,Poor,3–0',
      [['logbook', ['Fixes', null, ['Good', 4, 5, ''], ['Poor', 0, 3, '']]]],
    ],
    [
      'right to left',
      'criterion,level 1,points 1\nمعيار,جيد,3',
      [['logbook', ['معيار', null, ['جيد', 3, 3, '']]]],
    ],
  ];
  for (const [what, text, expected] of cases)
    it(what, async () => expect(grid(await csv(text))).to.deep.equal(expected));

  it('finds the columns and says which they are', () => {
    expect(columnsOf(['Rubric', 'Criterion', 'Level 1', 'Points 1'])).to.deep.include({
      layout: 'wide',
      rubric: 0,
      criterion: 1,
    });
    expect(columnsOf(['Criterion', 'Level', 'Points'])?.layout).to.equal('long');
    expect(columnsOf(['Criterion', 'Good', 'Poor'])?.layout).to.equal('grid');
    expect(columnsOf(['Name', 'Age'])).to.equal(null);
  });

  const broken: [what: string, name: string, text: string, code: string, line: number | null][] = [
    ['no header', 'r.csv', 'criterion-ish;x\nFixes,3', 'rubric-header-missing', 1],
    [
      'points that are none',
      'r.csv',
      'criterion,level 1,points 1\nFixes,Good,many',
      'rubric-points-unread',
      2,
    ],
    ['a row without a criterion', 'r.csv', 'criterion,level 1,points 1\n,Good,3', 'rubric-row-unread', 2],
    ['JSON cut off', 'r.json', '{"CFRubrics": [{"title": "x", ', 'json-malformed', null],
    ['CASE without rubrics', 'r.json', '{"CFPackage": {"CFDocument": {}}}', 'rubrics-none', null],
    [
      'a rubric that is none',
      'r.json',
      '{"CFRubrics": [{"title": 7}, {"title": "x", "CFRubricCriteria": []}]}',
      'rubric-unread',
      null,
    ],
  ];
  for (const [what, name, text, code, line] of broken)
    it(`says what is wrong: ${what}`, async () => {
      const found = (await read(name, text)).findings.find((f) => f.code === code);
      expect([found?.code, found?.where.line ?? null]).to.deep.equal([code, line]);
    });

  it('refuses a workbook that is none, with the file’s name', async () => {
    const { bytes } = await writeRubrics(
      fc.sample(rubrics, { seed: 1, numRuns: 1 })[0]!,
      'xlsx',
      nodePlatform,
    );
    const torn = bytes.slice(0, bytes.length - 40);
    const failure = await read('torn.xlsx', torn).then(
      () => null,
      (e: Error) => e.constructor.name,
    );
    expect(failure).to.equal('Refusal');
  });

  const BOOK = [
    { name: '[Content_Types].xml', content: '<Types/>' },
    { name: 'xl/workbook.xml', content: '<workbook/>' },
  ];
  const hostile: readonly [what: string, entry: Parameters<typeof rawZip>[0][number], code: string][] = [
    ['a name that leaves its folder', { name: '../evil.xml', content: 'x' }, 'archive-unsafe-name'],
    ['two entries of one name', { name: 'xl/workbook.xml', content: 'x' }, 'archive-duplicate-name'],
    ['a false size', { name: 'xl/a.xml', content: 'x', declaredSize: 9 }, 'archive-size-false'],
    ['a wrong checksum', { name: 'xl/a.xml', content: 'x', crc: 1 }, 'archive-crc'],
  ];
  for (const [what, entry, code] of hostile)
    it(`opens a workbook by the guarded door: ${what}`, async () => {
      const refused = await read('book.xlsx', rawZip([...BOOK, entry])).catch((e: Refusal) => e.finding.code);
      expect(refused).to.equal(code);
    });
});

describe('rubrics: totals, checks, comparison', () => {
  const l = (title: string, points: number | null, description = 'said'): RubricLevel => ({
    id: title,
    title,
    points: points === null ? null : { low: points, high: points },
    description,
    feedback: '',
  });
  const c = (title: string, levels: readonly RubricLevel[], weight: number | null = null): Criterion => ({
    id: title,
    title,
    description: '',
    weight,
    outcome: null,
    levels,
  });
  const r = (title: string, criteria: readonly Criterion[], mode: Rubric['mode'] = 'points'): Rubric => ({
    id: title,
    title,
    description: '',
    mode,
    criteria,
    attachedTo: [],
    metadata: [],
    origin: null,
  });
  const good = r('Logbook', [
    c('Fixes', [l('Good', 5), l('Poor', 0)], 2),
    c('Lights', [l('All', 7), l('None', 0)]),
  ]);

  it('adds up weight times highest level; nothing where it is not scored', () => {
    expect(rubricPoints(good)).to.equal(17);
    expect(rubricPoints({ ...good, mode: 'unscored' })).to.equal(null);
    expect(
      gradeOf(
        good,
        new Map([
          ['Fixes', 'Good'],
          ['Lights', 'None'],
        ]),
      ),
    ).to.equal(10);
  });

  it('no ticks give more than the total, and the best ticks give it (property)', () => {
    fc.assert(
      fc.property(rubric, fc.infiniteStream(fc.nat()), (given, pick) => {
        const total = rubricPoints(given);
        const ticks = new Map(
          given.criteria.map((x) => [x.id, x.levels[(pick.next().value as number) % x.levels.length]!.id]),
        );
        const grade = gradeOf(given, ticks);
        if (total === null) return void expect(grade).to.equal(null);
        expect(grade!).to.be.at.most(total + 1e-9);
        const best = new Map(
          given.criteria.flatMap((x) => {
            const top = [...x.levels].sort(
              (a, b) => (b.points?.high ?? -Infinity) - (a.points?.high ?? -Infinity),
            )[0]!;
            return (top.points?.high ?? 0) > 0 ? [[x.id, top.id] as const] : [];
          }),
        );
        expect(gradeOf(given, best)).to.be.closeTo(total, 1e-9);
      }),
    );
  });

  const wrong: [code: string, rubrics: readonly Rubric[]][] = [
    ['rubric-no-levels', [r('A', [c('x', [])])]],
    ['rubric-levels-order', [r('A', [c('x', [l('a', 1), l('b', 5), l('c', 3)])])]],
    ['rubric-equal-points', [r('A', [c('x', [l('a', 5), l('b', 5)])])]],
    ['rubric-weights', [r('A', [c('x', [l('a', 1)], 60), c('y', [l('a', 1)], 30)], 'percentage')]],
    ['rubric-description-empty', [r('A', [c('x', [l('a', 5), l('b', 0, '')])])]],
    ['rubric-same-content', [r('A', [c('x', [l('a', 5)])]), r('B', [c('x', [l('a', 5)])])]],
    ['rubric-same-name', [r('A', [c('x', [l('a', 5)])]), r('a', [c('y', [l('a', 5)])])]],
  ];
  for (const [code, given] of wrong)
    it(`finds ${code}`, () => expect(checkRubrics(given).map((f) => f.code)).to.include(code));
  it('finds nothing wrong with a sound one', () => expect(checkRubrics([good])).to.deep.equal([]));

  const changes: [what: string, to: Rubric, facets: string[]][] = [
    ['nothing', { ...good, id: 'other' }, []],
    ['white space', { ...good, title: ' Logbook ' }, []],
    ['a name', { ...good, title: 'Log' }, ['title']],
    ['a criterion gone', { ...good, criteria: good.criteria.slice(1) }, ['criteria', 'points']],
    ['criteria in another order', { ...good, criteria: [...good.criteria].reverse() }, ['criteria']],
    [
      'a weight',
      { ...good, criteria: [{ ...good.criteria[0]!, weight: 1 }, good.criteria[1]!] },
      ['criteria', 'points'],
    ],
    [
      'points of a level that is not the highest',
      { ...good, criteria: [c('Fixes', [l('Good', 5), l('Poor', 1)], 2), good.criteria[1]!] },
      ['levels'],
    ],
    [
      'descriptions',
      { ...good, criteria: [c('Fixes', [l('Good', 5, ''), l('Poor', 0)], 2), good.criteria[1]!] },
      ['levels'],
    ],
    ['not scored any more', { ...good, mode: 'unscored' }, ['points']],
  ];
  for (const [what, to, facets] of changes)
    it(`${what}: ${facets.join(', ') || 'intact'}`, () =>
      expect(differing([good], [to]).map((d) => d[0])).to.deep.equal(facets));

  it('says what the same ticks come to on both sides', () => {
    const rounded = { ...good, criteria: [c('Fixes', [l('Good', 4.5), l('Poor', 0)], 2), good.criteria[1]!] };
    expect(gradeEffect(good, rounded)).to.deep.equal({
      ticks: ['Fixes: Good', 'Lights: All'],
      from: 17,
      to: 16,
      outOf: [17, 16],
    });
    expect(gradeEffect(good, good)).to.equal(null);
  });
});
