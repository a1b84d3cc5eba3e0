import { expect } from 'chai';
import { ItemPlaces, type Tree } from '@alforja/core';
import type { ContentsShown, Thing } from '$lib/shared/contents';
import { differencesMeant, sortDifferences } from '$lib/shared/differences';
import {
  DEFAULT_OPTIONS,
  type JudgedDifference,
  type Sending,
  type TransferState,
} from '$lib/shared/transfers';
import type { CourseListing } from '$lib/shared/courses';
import type { PackageListing } from '$lib/shared/types';
import { foldBehind } from '../../../src/lib/server/work/contents.ts';
import { thingsOf } from '../../../src/lib/server/work/contentsList.ts';
import { groupSays, mendWords } from '../../../src/lib/ui/transfer/differences.ts';
import { includedOf, includedShort } from '../../../src/lib/ui/transfer/included.ts';
import { destinationSays, destinationShort, placesSay } from '../../../src/lib/ui/transfer/places.ts';
import { stageStates, type StrapFacts } from '../../../src/lib/ui/transfer/strap.ts';
import { holdsOf, kindWord, thingsIn, withoutTick, wordOf } from '../../../src/lib/ui/transfer/things.ts';

const contents: ContentsShown = {
  items: 34,
  points: 70,
  total: 61,
  rubrics: 2,
  rubricsTotal: 3,
  dependencies: [],
  broken: [],
  ungraded: [],
  behind: [],
  places: 0,
  left: 0,
  singles: {},
  loose: [],
};
const tides = {
  title: 'Tides',
  code: 'NAV 205',
  section: '01',
  term: 'Spring 2026',
  system: 'Quayside',
} as CourseListing;
const file: TransferState = {
  from: null,
  to: { kind: 'file' },
  plan: null,
  options: DEFAULT_OPTIONS,
  byHand: [],
  targetChosen: true,
  sending: null,
  takenBack: null,
  running: false,
  open: 0,
  accepted: 0,
  notes: [],
};
const course: TransferState = { ...file, to: { kind: 'course', course: tides, outline: null, takes: [] } };
const plan = {
  basis: 'b',
  landings: [],
  target: 'cc1.3',
  losses: [],
  troubles: [],
} as const;
const facts = (over: Partial<StrapFacts> = {}): StrapFacts => ({
  sourceName: 'week5.imscc',
  contents,
  target: 'cc1.3',
  ahead: null,
  lost: 0,
  state: file,
  sent: null,
  stale: false,
  counts: null,
  ...over,
});
const sent = { parts: [], items: 34, points: 70, again: [] } as const;
const counts = { intact: 34, altered: 1, missing: 0, extra: 0 };
const difference = (id: string, over: Partial<JudgedDifference> = {}): JudgedDifference => ({
  id,
  what: id,
  planned: 'there',
  found: 'missing',
  about: 'item',
  itemState: 'missing',
  sort: ['missing'],
  items: [id],
  mend: 'write',
  undoes: [],
  decision: null,
  ...over,
});
const takenBack = { at: 1, by: 'N', removed: ['Exam'], refused: [] };
const decision = { key: 'x', reason: 'so', by: 'N', at: 1 };

describe('the strap', () => {
  const stage = (name: string, over: Partial<StrapFacts> = {}) =>
    stageStates(facts(over)).find((s) => s.stage === name)!;

  it('has a word for each stage before anything is done', () => {
    expect(stageStates(facts()).map((s) => [s.stage, s.says])).to.deep.equal([
      ['source', 'week5.imscc'],
      ['contents', '34 of 61 items, 2 rubrics'],
      ['forecast', 'Common Cartridge 1.3'],
      ['landing', 'out as a file'],
      ['send', 'not written yet'],
      ['arrival', 'upload the returned export'],
      ['receipt', 'available after sending'],
    ]);
  });

  const cases: readonly [what: string, stage: string, over: Partial<StrapFacts>, says: string][] = [
    ['losses', 'forecast', { ahead: 1 }, 'Common Cartridge 1.3, 1 loss'],
    ['no losses', 'forecast', { ahead: 0 }, 'Common Cartridge 1.3, no losses'],
    ['a course', 'landing', { state: course }, 'Tides'],
    ['a course with a plan', 'landing', { state: { ...course, plan } }, 'Spring 2026, section 01'],
    [
      'troubles',
      'landing',
      { state: { ...course, plan: { ...plan, troubles: ['a', 'b'] } } },
      '2 things to settle',
    ],
    [
      'a course that is gone',
      'landing',
      { state: { ...course, to: { kind: 'course', course: null, outline: null, takes: [] } } },
      'a course no longer listed',
    ],
    ['under way', 'send', { state: { ...course, running: true } }, 'under way'],
    [
      'stopped',
      'send',
      { state: { ...course, sending: { failure: { reason: 'other', detail: 'x' } } as Sending } },
      'stopped',
    ],
    ['changed since', 'send', { sent, stale: true }, 'changed since'],
    ['written', 'send', { sent }, 'written, no losses'],
    ['written with losses', 'send', { sent, lost: 2 }, '2 losses'],
    ['sent', 'send', { sent, state: course }, 'sent'],
    ['open differences', 'arrival', { counts, state: { ...file, open: 1 } }, '1 to decide'],
    ['settled ones', 'arrival', { counts, state: { ...file, accepted: 1 } }, '1 accepted'],
    [
      'open ones apart from accepted ones',
      'arrival',
      { counts, state: { ...file, open: 1, accepted: 1 } },
      '1 open, 1 accepted',
    ],
    ['that it was taken back', 'arrival', { counts, sent, state: { ...file, takenBack } }, 'undone'],
    [
      'that it was taken back in part',
      'arrival',
      { counts, sent, state: { ...file, takenBack: { ...takenBack, refused: ['Begun.'] } } },
      'undone in part',
    ],
    ['that it was taken back', 'send', { counts, sent, state: { ...file, takenBack } }, 'undone'],
    [
      'that it was taken back',
      'receipt',
      { counts, sent, state: { ...file, takenBack } },
      'says it was undone',
    ],
    ['none', 'arrival', { counts }, 'all intact'],
    ['a receipt', 'receipt', { counts, sent }, 'ready'],
  ];
  for (const [what, name, over, wanted] of cases)
    it(`says of ${name}: ${what}`, () => expect(stage(name, over).says).to.equal(wanted));

  it('marks what is done', () => {
    expect(
      stageStates(facts({ sent, counts, ahead: 0, state: { ...file, plan } })).every((s) => s.done),
    ).to.equal(true);
    expect(stage('send', { sent, stale: true }).done).to.equal(false);
  });
});

describe('what is included, in words', () => {
  it('counts items of all, and rubrics alone where there is nothing else', () => {
    expect(includedOf({ ...contents, rubrics: 0 })).to.equal('34 of 61 items');
    expect(includedOf({ ...contents, items: 0, total: 0 })).to.equal('2 of 3 rubrics');
    expect(includedShort(contents)).to.equal('34 items, 70 points, 2 rubrics');
    expect(includedShort({ ...contents, items: 0, points: 0 })).to.equal('2 rubrics');
    expect(includedShort({ ...contents, items: 1, points: 1, rubrics: 0 })).to.equal('1 item, 1 point');
  });

  it('names both ends of the trip', () => {
    const source = { name: 'week5.imscc', summary: null } as PackageListing;
    expect(placesSay(file, source, 'qti2.1')).to.equal('week5.imscc → QTI 2.1');
    expect(placesSay({ ...course, from: tides }, source, 'qti2.1')).to.equal(
      'Tides, Spring 2026, Quayside → Tides, section 01, Spring 2026, Quayside',
    );
    expect(destinationSays(file.to)).to.equal('a file to keep or to mail');
    expect(destinationSays(course.to)).to.equal('Tides (NAV 205), section 01, Spring 2026, Quayside');
    expect(destinationShort(course.to, null)).to.equal('Tides, Quayside');
    expect(destinationShort(file.to, { name: 'back.zip' } as PackageListing)).to.equal('back.zip');
  });
});

describe('the list of differences', () => {
  it('has a line each for a few of a sort, and one line for many', () => {
    const few = sortDifferences([difference('a'), difference('b', { itemState: 'extra', sort: ['extra'] })]);
    expect([few.single.length, few.groups.length]).to.deep.equal([2, 0]);
    const many = sortDifferences(Array.from({ length: 40 }, (_, n) => difference(`i${n}`)));
    expect([
      many.single.length,
      many.groups.map((g) => groupSays(g.sort, g.differences.length)),
    ]).to.deep.equal([0, ['40 questions missing']]);
  });

  it('tells differences of one sort in one line, whichever order their facets come in', () => {
    const altered = (id: string, ...sort: string[]): JudgedDifference =>
      difference(id, { itemState: 'altered', sort });
    const { groups, single } = sortDifferences([
      ...['a', 'b', 'c', 'd'].map((id) => altered(id, 'tolerance')),
      altered('e', 'key', 'points'),
      altered('f', 'points', 'key'),
      altered('g', 'key', 'points'),
      altered('h', 'wording'),
      ...['i', 'j', 'k', 'l', 'm', 'n'].map((id) =>
        difference(id, { about: 'landing', itemState: null, sort: ['section'] }),
      ),
    ]);
    expect(groups.map((g) => groupSays(g.sort, g.differences.length))).to.deep.equal([
      'other section: 6 things',
      'tolerance changed: 4 questions',
      'key changed, points changed: 3 questions',
    ]);
    expect(single.map((d) => d.id)).to.deep.equal(['h']);
  });

  it('tells what is set from what goes again, and leaves out what is decided', () => {
    const sorted = sortDifferences([
      difference('a', { mend: 'set', itemState: null }),
      difference('b', { mend: 'resend' }),
      difference('c', { mend: null }),
      difference('d', { mend: 'set', decision }),
    ]);
    expect([sorted.settable.length, sorted.sendable.length, sorted.accepted.length]).to.deep.equal([1, 1, 1]);
    const meant = (given: Parameters<typeof differencesMeant>[1]): string[] =>
      differencesMeant(sorted, given).map((d) => d.id);
    expect(meant({ all: 'settable' })).to.deep.equal(['a']);
    expect(meant({ all: 'sendable' })).to.deep.equal(['b']);
    expect(meant({ ids: ['d', 'c', 'never'] })).to.deep.equal(['c', 'd']);
    expect(meant({ sort: 'item missing missing' })).to.deep.equal(
      sorted.groups[0]?.differences.map((d) => d.id) ?? [],
    );
    expect(meant({ sort: 'of another comparison' })).to.deep.equal([]);
    expect(Object.values(mendWords).every((w) => /^[A-Z]/u.test(w))).to.equal(true);
  });
});

describe('things to tick', () => {
  const facts = {
    items: ['a', 'b', 'c'].map((id) => ({ id, points: 2, files: [] })),
    places: new ItemPlaces(['a', 'b', 'c']),
  };
  const tree = {
    quizzes: [
      {
        id: 'q',
        title: 'Exam',
        sections: [
          { items: [{ item: 'a' }], draw: null },
          { items: [], draw: { pool: ['b', 'c'] } },
        ],
      },
      { id: 'untitled', title: '', sections: [] },
    ],
    banks: [{ id: 'b', title: '', items: ['b', 'c', 'gone'] }],
    links: [{ id: 'l', title: '', url: 'https://tides.invalid/', kind: 'web' }],
    rubrics: [{ id: 'r', title: 'Plan', criteria: [{}], attachedTo: ['w1'] }],
  } as unknown as Tree;
  const things = thingsOf({ ...facts, tree }, [{ id: 'w1', title: 'Passage', points: 5 }]);
  it('are called what people know them by', () => {
    expect([...things.values()].map((t) => [kindWord(t), t.title, wordOf(t)])).to.deep.equal([
      ['Quiz', 'Exam', 'quiz, 1 draw'],
      ['Quiz', 'Quiz without a name', 'quiz'],
      ['Bank', 'Bank without a name', 'bank'],
      ['Link', 'https://tides.invalid/', 'web link'],
      ['Rubric', 'Plan', 'rubric, 1 criterion'],
    ]);
    expect(things.get('quiz q')!.items).to.equal(3);
    expect(things.get('rubric r')!.grades).to.deep.equal(['Passage']);
    expect(things.get('bank b')!.points).to.equal(4);
    const [exam] = [...things.values()] as [Thing];
    const list = {
      groups: [{ id: 'g', name: '', things: [exam], items: 3, points: 6 }],
      loose: 0,
      rubrics: 0,
    };
    expect([...thingsIn(list).keys()]).to.deep.equal(['quiz q']);
  });

  it('of a quiz with draws say what it holds and what one student gets', () => {
    const drawn = {
      ...tree,
      quizzes: [
        {
          id: 'q',
          title: 'Exam',
          sections: [
            { items: [{ item: 'a', weight: 1 }], draw: null },
            { items: [], draw: { pool: ['b', 'c'], pick: 1, pointsEach: 3 } },
          ],
        },
      ],
    } as unknown as Tree;
    const held = thingsOf({ ...facts, tree: drawn }, []);
    expect(holdsOf(held.get('quiz q')!)).to.equal('3 items; each student 2, 5 points');
    expect(holdsOf(held.get('bank b')!)).to.equal('2 items, 4 points');
    expect(holdsOf(held.get('link l')!)).to.equal('');
  });

  it('that are not included fold items under what holds them', () => {
    const behind = [{ kind: 'quiz', id: 'q', title: 'Exam' }] as const;
    const ids = ['a', 'b', 'c', 'alone'];
    const all = {
      tree,
      items: ids.map((id) => ({ id, points: 2, files: [] })),
      places: new ItemPlaces(ids),
    };
    expect(foldBehind(behind, ['a', 'b', 'alone'], all)).to.deep.equal([
      { key: 'quiz q', title: 'Exam', word: 'quiz', items: 2, ids: ['a', 'b'] },
      { key: 'item alone', title: null, word: 'item', items: 0, ids: ['alone'] },
    ]);
  });

  it('are left out knowingly by a tick of their own', () => {
    expect(withoutTick({ kind: 'bank', nodeId: 'b' })).to.deep.equal({ kind: 'without', nodeId: 'b' });
    expect(withoutTick({ kind: 'rubric', nodeId: 'r' })).to.deep.equal({
      kind: 'without-rubric',
      nodeId: 'r',
    });
  });
});
