import { expect } from 'chai';
import fc from 'fast-check';
import {
  checkLanding,
  dateTrouble,
  daysBetween,
  find,
  foldName,
  landedThings,
  make,
  matchSections,
  outlineOfPackage,
  planLanding,
  plannedHolding,
  planTroubles,
  proposeName,
  quizItems,
  Recogniser,
  selectFrom,
  shiftDates,
  whatGoesOut,
  withLooseBank,
  type CourseOutline,
  type CourseThing,
  type Holding,
  type Item,
  type Landing,
} from '@alforja/core';
import { ALL_SETTINGS } from '../../support/landing.ts';
import { anyHolding } from '../../support/arbitraries.ts';

const TERMS = { fromTerm: '2026-02-02', toTerm: '2026-09-07' };
const item = (id: string, says: string): Item =>
  make.item({ id, body: [make.element('p', [make.text(says)])] });
const quiz = (id: string, title: string, items: readonly string[]): Holding['quizzes'][number] => ({
  id,
  title,
  settings: make.NO_SETTINGS,
  test: null,
  metadata: [],
  origin: null,
  sections: [
    {
      id: `${id}-s`,
      title: '',
      shuffle: false,
      instructions: null,
      draw: null,
      items: items.map((i) => ({ item: i, weight: 1 })),
    },
  ],
});
const thing = (over: Partial<CourseThing> & Pick<CourseThing, 'id' | 'kind' | 'title'>): CourseThing => ({
  section: null,
  hidden: false,
  opens: null,
  closes: null,
  instructions: null,
  attempts: null,
  timeLimitMinutes: null,
  passMark: null,
  review: null,
  items: 0,
  points: 0,
  openAttempts: 0,
  ...over,
});
const outline = (sections: readonly string[], things: readonly CourseThing[] = []): CourseOutline => ({
  sections: sections.map((name, at) => ({ id: `s${at + 1}`, name })),
  things,
});
const EMPTY = { outline: outline([]), holding: make.holding() };

describe('landing: sections', () => {
  const match = (from: string, to: readonly string[], byPosition = false) => {
    const found = matchSections(outline([from]).sections, outline(to).sections, { byPosition }).get('s1')!;
    return [found.by, found.section === null ? null : to[Number(found.section.slice(1)) - 1]];
  };
  const cases: [from: string, to: string[], by: string, section: string | null][] = [
    ['Week 3', ['Week 1', 'Week 2', 'Week 3'], 'name', 'Week 3'],
    ['WEEK 3: Lights', ['Week 3 – lights', 'Lights'], 'name', 'Week 3 – lights'],
    ['Révision', ['Revision', 'Exam'], 'name', 'Revision'],
    ['Week 5: Tides', ['Week 6: Tides', 'Week 5'], 'similar', 'Week 5'],
    ['Week 05', ['Week 5'], 'similar', 'Week 5'],
    ['Week 5: Tides', ['Week 6: Tides'], 'none', null],
    ['Exam period', ['Charts'], 'none', null],
    ['潮汐 第三周', ['第三周 潮汐'], 'similar', '第三周 潮汐'],
    ['', ['', 'Week 1'], 'none', null],
  ];
  for (const [from, to, by, section] of cases)
    it(`“${from}” among ${to.join(', ')}: ${by}`, () => expect(match(from, to)).to.deep.equal([by, section]));

  it('goes by position only when asked, and never beyond the last', () => {
    expect(match('Exam', ['Charts'], true)).to.deep.equal(['position', 'Charts']);
    const two = matchSections(outline(['A', 'B']).sections, outline(['X']).sections, { byPosition: true });
    expect(two.get('s2')).to.deep.equal({ section: null, by: 'none' });
  });

  it('lands by name whatever the order of the sections there (property)', () => {
    const names = fc
      .uniqueArray(fc.string({ minLength: 1, maxLength: 12 }), {
        selector: foldName,
        minLength: 1,
        maxLength: 8,
      })
      .filter((l) => l.every((n) => foldName(n) !== ''));
    fc.assert(
      fc.property(names, fc.infiniteStream(fc.nat()), (list, order) => {
        const there = list
          .map((n) => ({ n, k: order.next().value as number }))
          .sort((a, b) => a.k - b.k)
          .map((x) => x.n);
        const found = matchSections(outline(list).sections, outline(there).sections);
        list.forEach((name, at) => {
          const { section, by } = found.get(`s${at + 1}`)!;
          expect([by, there[Number(section!.slice(1)) - 1]]).to.deep.equal(['name', name]);
        });
      }),
    );
  });
});

describe('landing: dates', () => {
  it('keeps the time of day and the distance between the terms', () => {
    const moved = shiftDates(
      { opens: '2026-06-08T09:00:00+02:00', closes: '2026-06-08T12:00:00+02:00' },
      '2026-02-02',
      '2026-09-07',
    );
    expect(moved).to.deep.equal({ opens: '2027-01-11T09:00:00+02:00', closes: '2027-01-11T12:00:00+02:00' });
    expect(daysBetween('2026-02-02', '2026-09-07') % 7).to.equal(0);
    expect(shiftDates({ opens: 'soon', closes: null }, '2026-02-02', '2026-09-07').opens).to.equal(null);
  });

  it('never gives dates that are equal or close before they open (property)', () => {
    const date = fc
      .date({ min: new Date('2020-01-01'), max: new Date('2030-01-01'), noInvalidDate: true })
      .map((d) => d.toISOString());
    const either = fc.option(date, { nil: null });
    const day = date.map((d) => d.slice(0, 10));
    fc.assert(
      fc.property(either, either, day, day, (opens, closes, from, to) => {
        const moved = shiftDates({ opens, closes }, from, to);
        expect(dateTrouble(moved)).to.equal(null);
        if (opens && moved.opens) expect(daysBetween(opens, moved.opens)).to.equal(daysBetween(from, to));
      }),
    );
  });
});

describe('landing: names', () => {
  it('are never empty and never the same twice (property)', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.string({ maxLength: 6 }), fc.option(fc.string({ maxLength: 6 }), { nil: null })),
        ),
        (list) => {
          const taken = new Set<string>();
          const names = list.map(([title, fallback]) => proposeName(title, [fallback], 'Quiz', taken));
          expect(names.every((n) => foldName(n) !== '')).to.equal(true);
          expect(new Set(names.map(foldName)).size).to.equal(names.length);
        },
      ),
    );
  });
});

describe('landing: what is there already', () => {
  const source = make.holding({
    quizzes: [quiz('q', 'Exam', ['a', 'b'])],
    banks: [{ id: 'k', title: 'Bank', items: ['a', 'b'], metadata: [], origin: null }],
    items: [
      item('a', 'What is a fathom of rope good for?'),
      item('b', 'Name three kinds of anchor, please.'),
    ],
    links: [{ id: 'l', title: 'Tables', kind: 'web', url: 'https://t.example', xml: null }],
  });
  const state = (there: Partial<Holding>, kind: 'quiz' | 'bank' | 'link' = 'quiz', node = 'q'): string =>
    new Recogniser(source, make.holding(there)).find(kind, node).state;
  const same = [
    item('x', 'What is a fathom of rope good for?'),
    item('y', 'Name three kinds of anchor, please.'),
  ];

  it('tells the same content, another version, a namesake and nothing apart', () => {
    expect(state({ quizzes: [quiz('z', 'Other name', ['x', 'y'])], items: same })).to.equal('same');
    expect(state({ quizzes: [quiz('z', 'Exam', ['x'])], items: same })).to.equal('version');
    expect(
      state({ quizzes: [quiz('z', 'EXAM', ['w'])], items: [item('w', 'Something else entirely here?')] }),
    ).to.equal('namesake');
    expect(state({})).to.equal('none');
    expect(
      state(
        { links: [{ id: 'm', title: 'x', kind: 'web', url: 'https://t.example', xml: null }] },
        'link',
        'l',
      ),
    ).to.equal('same');
    expect(
      state(
        { links: [{ id: 'm', title: 'Tables', kind: 'web', url: 'https://u.example', xml: null }] },
        'link',
        'l',
      ),
    ).to.equal('namesake');
  });

  it('takes the same wording with another score for a version, not for the same', () => {
    const worth = same.map((i) => ({ ...i, points: 7 }));
    expect(state({ quizzes: [quiz('z', 'Exam', ['x', 'y'])], items: worth })).to.equal('version');
  });

  it('sent a second time, everything is there already, and nothing travels (property)', () => {
    fc.assert(
      fc.property(anyHolding, (holding) => {
        const chosen = withLooseBank(holding);
        const landings = planLanding(chosen, outline([]), EMPTY, { settings: ALL_SETTINGS, ...TERMS });
        const planned = plannedHolding(chosen, landings, ALL_SETTINGS);
        const there = {
          outline: {
            sections: [],
            things: landings.map((l) => thing({ id: l.node, kind: l.kind, title: l.name })),
          },
          holding: planned,
        };
        const again = planLanding(planned, outline([]), there, { settings: ALL_SETTINGS, ...TERMS });
        const full = (l: Landing): boolean =>
          l.kind === 'link' ||
          (l.kind === 'quiz'
            ? quizItems(chosen.quizzes.find((q) => q.id === l.node)!)
            : chosen.banks.find((b) => b.id === l.node)!.items
          ).length > 0;
        for (const l of again.filter(full))
          expect([l.existing, l.action], l.name).to.deep.equal(['same', 'skip']);
      }),
      { numRuns: 40 },
    );
  });
});

describe('landing: plan and check', () => {
  const from = outline(
    ['Week 1', 'Exam'],
    [
      thing({
        id: 'q',
        kind: 'quiz',
        title: 'Final',
        section: 's2',
        opens: '2026-06-08T09:00:00Z',
        closes: '2026-06-08T09:00:00Z',
      }),
    ],
  );
  const holding = make.holding({
    quizzes: [quiz('q', 'Final', ['a'])],
    items: [item('a', 'What is a knot worth?')],
  });
  const to = {
    outline: outline(['Exam', 'Week 1'], [thing({ id: 'z', kind: 'bank', title: 'Other' })]),
    holding: make.holding(),
  };
  const [landing] = planLanding(holding, from, to, { settings: ALL_SETTINGS, ...TERMS }) as [Landing];

  it('plans the section by name, hides, and does not carry equal dates on', () => {
    expect(landing).to.deep.include({
      section: 's1',
      sectionBy: 'name',
      hidden: true,
      action: 'add',
      opens: '2027-01-11T09:00:00Z',
      closes: null,
    });
    const [byHand] = planLanding(holding, from, to, {
      settings: ALL_SETTINGS,
      ...TERMS,
      overrides: { 'quiz q': { name: 'Own', section: 's2' } },
    });
    expect(byHand).to.deep.include({ name: 'Own', section: 's2', sectionBy: 'hand' });
  });

  const troubles: [what: string, change: Partial<Landing>, says: RegExp][] = [
    ['no section', { section: null, sectionBy: 'none' }, /no section there yet/u],
    ['a section that is gone', { section: 's9' }, /no longer there/u],
    ['equal dates', { closes: landing.opens }, /at the moment it opens/u],
    ['reversed dates', { closes: '2026-01-01T00:00:00Z' }, /before it opens/u],
    ['an empty name', { name: ' ' }, /has no name/u],
    ['a name that is taken', { kind: 'bank', name: 'other' }, /is taken/u],
  ];
  for (const [what, change, says] of troubles)
    it(`refuses ${what}`, () =>
      expect(planTroubles([{ ...landing, ...change }], to.outline).join()).to.match(says));

  it('finds nothing wrong with a landing as planned, and each departure by its name', () => {
    const good = thing({ id: 'n1', kind: 'quiz', title: 'Final', section: 's1', hidden: true });
    const check = (things: readonly CourseThing[], created = things.map((t) => t.id)): string[] => {
      const there = { ...to.outline, things };
      const comparison = {
        containers: things.some((t) => t.id === 'n1')
          ? [{ kind: 'quiz' as const, source: 'q', arrived: 'n1', state: 'intact' as const, differences: [] }]
          : [],
      };
      return checkLanding(landedThings([landing], comparison, there, created), there, created).map(
        (t) => t.trouble,
      );
    };
    expect(check([good])).to.deep.equal([]);
    expect(check([{ ...good, section: 's2' }])).to.deep.equal(['section']);
    expect(check([{ ...good, title: '' }])).to.deep.equal(['name']);
    expect(check([{ ...good, hidden: false }])).to.deep.equal(['visibility']);
    expect(check([good, { ...good, id: 'n2', title: 'Final (2)' }])).to.deep.equal(['copy']);
    expect(check([good, { ...good, id: 'n2', title: 'Sample' }])).to.deep.equal(['extra']);
    expect(check([good, { ...good, id: 'n2', title: 'Final' }], ['n1'])).to.deep.equal([]);
    expect(check([])).to.deep.equal(['not-there']);
  });

  it('reads sections from the folders of a package in hand', () => {
    const node = (id: string, title: string, refers: string | null, children: Holding['outline'] = []) => ({
      id,
      title,
      refers,
      children,
    });
    const packed = outlineOfPackage({
      ...holding,
      outline: [node('f', 'Week 5', null, [node('g', 'Inner', null, [node('i', '', 'q')])])],
    });
    expect(packed.sections).to.deep.equal([{ id: 'f', name: 'Week 5' }]);
    expect(packed.things[0]).to.deep.include({ id: 'q', section: 'f' });
  });
});

describe('what is chosen', () => {
  it('is closed: whatever something needs comes along; and minimal: nothing else does (property)', () => {
    const chosen = fc.tuple(anyHolding, fc.func(fc.boolean()));
    fc.assert(
      fc.property(chosen, ([holding, tick]) => {
        const ids = (kind: 'quizzes' | 'banks' | 'items' | 'links') =>
          new Set(holding[kind].map((x) => x.id).filter((id) => tick(`${kind} ${id}`)));
        const ticked = {
          quizzes: ids('quizzes'),
          banks: ids('banks'),
          items: ids('items'),
          links: ids('links'),
        };
        const { holding: got } = selectFrom(holding, ticked);
        const items = new Set(got.items.map((i) => i.id));
        const banks = new Set(got.banks.map((b) => b.id));
        const known = new Set(holding.items.map((i) => i.id));
        const needed = new Set(
          [...got.quizzes.flatMap(quizItems), ...got.banks.flatMap((b) => b.items)].filter((id) =>
            known.has(id),
          ),
        );
        for (const id of needed) expect(items.has(id), `${id} is needed`).to.equal(true);
        for (const q of got.quizzes)
          for (const s of q.sections)
            if (s.draw?.bank && holding.banks.some((b) => b.id === s.draw!.bank))
              expect(banks.has(s.draw.bank)).to.equal(true);
        const files = new Set(got.files.map((f) => f.path));
        for (const i of got.items)
          for (const f of i.files)
            if (f.present && holding.files.some((x) => x.path === f.path))
              expect(files.has(f.path)).to.equal(true);
        // Minimal: every thing was ticked or is needed by one that is there.
        for (const q of got.quizzes) expect(ticked.quizzes.has(q.id)).to.equal(true);
        for (const i of got.items)
          expect(ticked.items.has(i.id) || needed.has(i.id), `${i.id} came along for nothing`).to.equal(true);
        const drawn = new Set(got.quizzes.flatMap((q) => q.sections.flatMap((s) => s.draw?.bank ?? [])));
        for (const b of got.banks)
          expect(
            ticked.banks.has(b.id) || drawn.has(b.id) || b.items.some((i) => ticked.items.has(i)),
            `${b.id} came along for nothing`,
          ).to.equal(true);
      }),
      { numRuns: 60 },
    );
  });

  it('without the bank it draws from, a quiz has as many fixed items, always the same ones', () => {
    const drawing: Holding = make.holding({
      quizzes: [
        {
          ...quiz('q', 'Q', []),
          sections: [
            {
              ...quiz('q', 'Q', []).sections[0]!,
              draw: {
                pick: 2,
                bank: 'k',
                pool: ['a', 'b', 'c'],
                weights: null,
                pointsEach: 1,
                withReplacement: false,
              },
            },
          ],
        },
      ],
      banks: [{ id: 'k', title: 'K', items: ['a', 'b', 'c'], metadata: [], origin: null }],
      items: ['a', 'b', 'c'].map((id) => item(id, `What about ${id}?`)),
    });
    const none = new Set<string>();
    const chosen = {
      quizzes: new Set(['q']),
      banks: none,
      items: none,
      links: none,
      without: new Set(['k']),
    };
    const { holding: got } = selectFrom(drawing, chosen);
    expect([
      got.banks.length,
      got.quizzes[0]!.sections[0]!.draw,
      got.quizzes[0]!.sections[0]!.items.length,
    ]).to.deep.equal([0, null, 2]);
    expect(selectFrom(drawing, chosen).holding).to.deep.equal(got);
  });

  it('leaves out of what is sent what is there, but for a bank that a quiz draws from', () => {
    const both = make.holding({
      quizzes: [quiz('q', 'Q', ['a'])],
      banks: [{ id: 'k', title: 'K', items: ['b'], metadata: [], origin: null }],
      items: [item('a', 'One?'), item('b', 'Two?')],
    });
    const landing = (kind: 'quiz' | 'bank', node: string, action: Landing['action']): Landing => ({
      kind,
      node,
      name: node,
      section: null,
      sectionBy: 'outside',
      existing: 'none',
      there: null,
      action,
      hidden: false,
      opens: null,
      closes: null,
      review: null,
    });
    const sent = whatGoesOut(both, [landing('quiz', 'q', 'add'), landing('bank', 'k', 'skip')]);
    expect([sent.quizzes.length, sent.banks.length, sent.items.map((i) => i.id)]).to.deep.equal([
      1,
      0,
      ['a'],
    ]);
  });
});

describe('finding courses', () => {
  const COURSES = [
    'Tides and Tidal Streams NAV 205 Autumn 2026 section 01 Ilan Brook',
    'Tides and Tidal Streams NAV 205 Spring 2026 section 01 Ilan Brook',
    'Coastal Navigation NAV 101 Autumn 2026 section 02 Tomo Hašek-Lind',
    'Lichterführung NAV 230 Herbst 2026 Odile Fenn',
    'ملاحة ساحلية NAV 301 2026',
    '潮汐学 NAV 310 2026',
  ];
  const hits = (query: string): number[] =>
    find(COURSES, query, (c) => c).map((h) => COURSES.indexOf(h.entry));
  const cases: [query: string, hits: number[]][] = [
    ['tides', [0, 1]],
    ['spring tides', [1]],
    ['brook 205', [0, 1]],
    ['NAV205', [0, 1]],
    ['nav 205 01 autumn', [0]],
    ['idal', [0, 1]],
    ['hasek', [2]],
    ['Hašek lind coastal', [2]],
    ['lichterfuhrung', [3]],
    ['tidel sprng', [1]],
    ['navigashun', []],
    ['navigatoin', [2]],
    ['206', []],
    ['ساحلية', [4]],
    ['潮汐', [5]],
    ['', [0, 1, 2, 3, 4, 5]],
    ['zzz', []],
  ];
  for (const [query, expected] of cases) it(`“${query}”`, () => expect(hits(query)).to.deep.equal(expected));

  it('puts what fits as written before what had to be forgiven, and keeps the order given within each', () => {
    expect(find(['Tides B', 'Tidas A', 'Tides A'], 'tides', (c) => c).map((h) => h.entry)).to.deep.equal([
      'Tides B',
      'Tides A',
      'Tidas A',
    ]);
  });

  it('finds an entry by any of its words, in any order (property)', () => {
    fc.assert(
      fc.property(fc.constantFrom(...COURSES), fc.infiniteStream(fc.nat()), (course, order) => {
        const words = course
          .split(' ')
          .map((w) => ({ w, k: order.next().value as number }))
          .sort((a, b) => a.k - b.k)
          .slice(0, 3)
          .map((x) => x.w);
        expect(find(COURSES, words.join(' '), (c) => c).map((h) => h.entry)).to.include(course);
      }),
    );
  });
});
