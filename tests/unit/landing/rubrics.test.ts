import { expect } from 'chai';
import fc from 'fast-check';
import {
  checkAttached,
  checkAttachments,
  landedThings,
  make,
  plannedAttachments,
  plannedHolding,
  planLanding,
  selectFrom,
  whatGoesOut,
  withOutline,
  type CourseOutline,
  type Criterion,
  type HeldRubric,
  type Holding,
  type Landing,
  type Rubric,
} from '@alforja/core';
import { ALL_SETTINGS } from '../../support/landing.ts';

const OPTIONS = { settings: ALL_SETTINGS, fromTerm: null, toTerm: null };
const criterion = (title: string, ...points: number[]): Criterion => ({
  id: title,
  title,
  description: '',
  weight: null,
  outcome: null,
  levels: points.map((p) => ({
    id: `${title}${p}`,
    title: `${p}`,
    points: { low: p, high: p },
    description: '',
    feedback: '',
  })),
});
const rubric = (
  id: string,
  title: string,
  criteria: readonly Criterion[],
  attachedTo: readonly string[] = [],
): Rubric => ({
  id,
  title,
  description: '',
  mode: 'points',
  criteria,
  attachedTo,
  metadata: [],
  origin: null,
});
const item = (id: string) =>
  make.item({ id, title: `Item ${id}`, points: 4, body: [make.element('p', [make.text(id)])] });
const bank = (items: readonly string[]): Holding['banks'][number] => ({
  id: 'b',
  title: 'Bank',
  items,
  metadata: [],
  origin: null,
});
const course = (rubrics: readonly Rubric[], locked = false): CourseOutline => ({
  sections: [],
  things: rubrics.map((r) => ({
    id: r.id,
    kind: 'rubric',
    title: r.title,
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
  })),
  rubrics: rubrics.map((r): HeldRubric => ({ rubric: r, locked })),
});
const NONE = {
  quizzes: new Set<string>(),
  banks: new Set<string>(),
  items: new Set<string>(),
  links: new Set<string>(),
};

describe('landing: rubrics', () => {
  const fixes = [criterion('Fixes', 2, 1, 0), criterion('Tides', 2, 0)];
  const plan = (there: readonly Rubric[]): Landing[] => {
    const outline = course(there);
    const to = { outline, holding: withOutline(make.holding(), outline) };
    return planLanding(make.holding({ rubrics: [rubric('r', 'Logbook', fixes)] }), course([]), to, OPTIONS);
  };
  const cases: [is: string, there: Rubric, existing: string, action: string][] = [
    ['the same under another name', rubric('x', 'Log', fixes), 'same', 'skip'],
    [
      'another version',
      rubric('x', 'Log', [criterion('Fixes', 3, 0), criterion('Tides', 2, 0)], ['e']),
      'version',
      'replace',
    ],
    ['only the name', rubric('x', 'Logbook', [criterion('Style', 1, 0)]), 'namesake', 'keep'],
    ['nothing of the kind', rubric('x', 'Essay', [criterion('Style', 1, 0)]), 'none', 'add'],
  ];
  for (const [is, there, existing, action] of cases)
    it(`is there already: ${is}`, () => {
      const [l] = plan([there]);
      expect([l!.existing, l!.action, l!.sectionBy]).to.deep.equal([existing, action, 'outside']);
      // What the older one graded is graded by the one that takes its place.
      expect(l!.attach ?? []).to.deep.equal(action === 'replace' ? ['e'] : []);
    });

  it('an item brings the rubric it is graded by, unless that is left behind knowingly (property)', () => {
    const ids = fc.uniqueArray(fc.stringMatching(/^[a-z]{1,4}$/u), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(ids, fc.infiniteStream(fc.boolean()), (all, coin) => {
        const on = all.filter(() => coin.next().value as boolean);
        const chosen = all.filter(() => coin.next().value as boolean);
        const holding = make.holding({ items: all.map(item), rubrics: [rubric('r', 'R', fixes, on)] });
        const pick = { ...NONE, items: new Set(chosen) };
        const { holding: got, dependencies } = selectFrom(holding, pick);
        const wanted = on.filter((id) => chosen.includes(id));
        expect(got.rubrics.map((r) => r.attachedTo)).to.deep.equal(wanted.length > 0 ? [wanted] : []);
        expect(dependencies.filter((d) => d.kind === 'rubric').length).to.equal(got.rubrics.length);
        expect(
          selectFrom(holding, { ...pick, withoutRubrics: new Set(['r']) }).holding.rubrics,
        ).to.deep.equal([]);
      }),
    );
  });

  it('hangs on what answers to its items, and on what was chosen there; what does not is told', () => {
    const source = make.holding({
      items: [item('a'), item('b')],
      banks: [bank(['a', 'b'])],
      rubrics: [rubric('r', 'Logbook', fixes, ['a', 'b'])],
    });
    const { holding } = selectFrom(source, { ...NONE, banks: new Set(['b']) });
    const [l, ...more] = planLanding(
      holding,
      course([]),
      { outline: course([]), holding: make.holding() },
      { ...OPTIONS, overrides: { 'rubric r': { name: 'Log', attach: ['z'] } } },
    ).filter((x) => x.kind === 'rubric');
    expect([l!.carries, more.length]).to.deep.equal([['Item a', 'Item b'], 0]);
    const planned = plannedHolding(holding, [l!], ALL_SETTINGS);
    expect(planned.rubrics.map((r) => r.title)).to.deep.equal(['Log']);
    const troubles = (attachedTo: readonly string[], locked: boolean) => {
      const outline = course([rubric('r9', 'Log', fixes, attachedTo)], locked);
      const containers = [
        { kind: 'rubric' as const, source: 'r', arrived: 'r9', state: 'intact' as const, differences: [] },
      ];
      const landed = landedThings([l!], { containers }, outline, ['r9']);
      const all = plannedAttachments(
        landed,
        planned.rubrics,
        outline,
        new Map([
          ['a', 'i1'],
          ['b', 'i2'],
        ]),
      );
      return checkAttachments(all, (id) => `<${id}>`).map((t) => [t.trouble, t.planned, t.found]);
    };
    expect(troubles(['i2', 'z', 'i1'], false)).to.deep.equal([]);
    expect(troubles([], false)).to.deep.equal([['attachment', { to: ['<i1>', '<i2>', '<z>'] }, { to: [] }]]);
    expect(troubles(['i1', 'i2', 'z'], true).map(([t]) => t)).to.deep.equal(['locked']);
  });

  it('grades the assignment there that is named as the one it grades, unless another is chosen', () => {
    const work = (id: string, title: string) => ({ id, title, points: 4 });
    const own = rubric('r', 'Logbook', fixes, ['a1', 'a2', 'a3']);
    const from: CourseOutline = {
      ...course([own]),
      assignments: [
        work('a1', 'Night watch'),
        work('a2', 'Sounds'),
        work('a3', 'Twice'),
        work('a4', 'Not graded by it'),
      ],
    };
    const outline: CourseOutline = {
      ...course([]),
      assignments: [
        work('t1', 'NIGHT  WATCH'),
        work('t2', 'Twice'),
        work('t3', 'twice'),
        work('t4', 'Not graded by it'),
      ],
    };
    const planned = (overrides: object) => {
      const { holding } = selectFrom(make.holding({ rubrics: [own] }), { ...NONE, rubrics: new Set(['r']) });
      const [l] = planLanding(
        holding,
        from,
        { outline, holding: make.holding() },
        { ...OPTIONS, overrides: { 'rubric r': overrides } },
      );
      expect(l!.worth).to.equal(4);
      return [l!.attach, l!.unmet];
    };
    expect(planned({})).to.deep.equal([['t1'], ['Sounds', 'Twice']]);
    expect(planned({ attach: ['t3'] })).to.deep.equal([['t3'], undefined]);
    expect(planned({ attach: [] })).to.deep.equal([[], undefined]);
  });

  it('one that stays behind does not travel, though its item does', () => {
    const holding = make.holding({
      items: [item('a')],
      banks: [bank(['a'])],
      rubrics: [rubric('r', 'R', fixes, ['a'])],
    });
    const landings = planLanding(
      holding,
      course([]),
      { outline: course([]), holding: make.holding() },
      OPTIONS,
    );
    expect(whatGoesOut(holding, landings).rubrics.length).to.equal(1);
    const without = landings.map((l) => (l.kind === 'rubric' ? { ...l, action: 'skip' as const } : l));
    expect(whatGoesOut(holding, without).rubrics).to.deep.equal([]);
  });

  it('a total other than the points of its item is found, and a rubric that grades nothing', () => {
    const items = [
      { id: 'a', name: 'Item a', points: 4 },
      { id: 'b', name: 'Item b', points: 6 },
    ];
    const found = checkAttached([rubric('r', 'R', fixes, ['a', 'b']), rubric('s', 'S', fixes)], items);
    expect(found.map((f) => [f.code, f.where.node, 'item' in f.params ? f.params.item : null])).to.deep.equal(
      [
        ['rubric-points-differ', 'r', 'Item b'],
        ['rubric-unattached', 's', null],
      ],
    );
  });
});
