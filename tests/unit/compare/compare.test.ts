import { expect } from 'chai';
import fc from 'fast-check';
import {
  compareHoldings,
  make,
  matchItems,
  type ContentNode,
  type Facet,
  type Holding,
  type Item,
  type Quiz,
} from '@alforja/core';
import { settleDraws } from '../../../core/src/reading/settle.ts';
import { settlePoints } from '../../support/settled.ts';
import { templateProgram } from '../../../core/src/formats/qti2/processing.ts';
import { anyHolding } from '../../support/arbitraries.ts';

const { call, element, number, set, text, variable, when } = make;
const FILE = { path: 'images/chart.png', bytes: 3, sha256: 'aaa' };

/** A bare tree priced as a reader would price it. */
function settled(
  items: readonly Item[],
  quizzes: readonly Quiz[] = [],
  over: Partial<Holding> = {},
): Holding {
  const priced = settlePoints(items, quizzes);
  return make.holding({ items: priced, quizzes: settleDraws(quizzes, priced), ...over });
}

const choiceItem = (over: Partial<Item> = {}): Item =>
  make.item({
    id: 'c1',
    title: 'Springs',
    category: 'Tides',
    body: [
      element('p', [
        text('When do spring tides come about?'),
        element('img', [], { src: FILE.path, alt: 'A chart' }),
      ]),
      element('p', [{ kind: 'math', attrs: {}, children: [element('mi', [text('D')])] }]),
      make.choiceInteraction({
        responseId: 'R',
        shuffle: true,
        choices: ['At new and full moon', 'At half moon', 'Never'].map((t, at) => ({
          id: 'abc'[at]!,
          content: [text(t)],
          fixed: at === 2,
        })),
      }),
    ],
    responses: [make.response('R', 'single', 'identifier', ['a'])],
    scoring: templateProgram('match_correct', 'R'),
    feedback: [
      {
        id: 'f',
        kind: 'general',
        title: '',
        outcome: 'FB',
        show: true,
        content: [text('Think of the sun.')],
      },
    ],
    files: [{ path: FILE.path, present: true }],
    ...over,
  });

const numericItem = (low: number, high: number, value = 42, worth = 2): Item =>
  make.item({
    id: 'n1',
    title: 'Bearing',
    body: [
      element('p', [
        text('Which bearing?'),
        { kind: 'textEntry', responseId: 'R', expectedLength: 5, placeholder: null },
      ]),
    ],
    responses: [make.response('R', 'single', 'float', [value])],
    scoring: {
      rules: [
        when(
          call('and', [
            call('gte', [variable('R'), number(low)]),
            call('lte', [variable('R'), number(high)]),
          ]),
          [set('SCORE', number(worth))],
        ),
      ],
      untranslated: [],
    },
  });

const textItem = (answers: readonly [string, number][], caseSensitive = false): Item =>
  make.item({
    id: 't1',
    title: 'Word',
    body: [
      element('p', [
        text('Name the line.'),
        { kind: 'textEntry', responseId: 'R', expectedLength: 9, placeholder: null },
      ]),
    ],
    responses: [
      make.response('R', 'single', 'string', [answers[0]![0]], {
        lowerBound: null,
        upperBound: null,
        defaultValue: 0,
        entries: answers.map(([key, value]) => ({ key, value, caseSensitive })),
      }),
    ],
    scoring: templateProgram('map_response', 'R'),
  });

const perChoice = (penalty: number): Item =>
  make.item({
    id: 'm1',
    title: 'Lights',
    body: [
      element('p', [text('Which lights?')]),
      make.choiceInteraction({
        responseId: 'R',
        maxChoices: 0,
        choices: ['w', 'r', 'g'].map((id) => ({ id, content: [text(`light ${id}`)], fixed: false })),
      }),
    ],
    responses: [
      make.response('R', 'multiple', 'identifier', ['w', 'r'], {
        lowerBound: null,
        upperBound: null,
        defaultValue: penalty,
        entries: ['w', 'r'].map((key) => ({ key, value: 1, caseSensitive: true })),
      }),
    ],
    scoring: templateProgram('map_response', 'R'),
  });

const body = (item: Item, edit: (node: ContentNode) => ContentNode): Item => ({
  ...item,
  body: item.body.map(edit),
});
const choices = (item: Item, edit: (c: Extract<ContentNode, { kind: 'choice' }>) => ContentNode): Item =>
  body(item, (n) => (n.kind === 'choice' ? edit(n) : n));
const c1 = choiceItem();

/** One thing altered, and the one facet that must be named. */
const ITEM_CASES: [facet: Facet, before: Item, after: Item, example: boolean][] = [
  ['title', c1, { ...c1, title: 'Neaps' }, false],
  [
    'wording',
    c1,
    body(c1, (n) =>
      n.kind === 'element' && n.children[0]?.kind === 'text'
        ? { ...n, children: [text('When do neap tides come about?'), ...n.children.slice(1)] }
        : n,
    ),
    false,
  ],
  [
    'mathematics',
    c1,
    body(c1, (n) =>
      n.kind === 'element' && n.children[0]?.kind === 'math'
        ? element('p', [{ kind: 'math', attrs: {}, children: [element('mi', [text('S')])] }])
        : n,
    ),
    false,
  ],
  [
    'choices',
    c1,
    choices(c1, (c) => ({
      ...c,
      choices: c.choices.map((x) => (x.id === 'b' ? { ...x, content: [text('At quarter moon')] } : x)),
    })),
    false,
  ],
  [
    'choice-order',
    c1,
    choices(c1, (c) => ({ ...c, choices: [c.choices[1]!, c.choices[0]!, c.choices[2]!] })),
    false,
  ],
  ['shuffle', c1, choices(c1, (c) => ({ ...c, shuffle: false })), false],
  [
    'shuffle',
    c1,
    choices(c1, (c) => ({ ...c, choices: c.choices.map((x) => ({ ...x, fixed: false })) })),
    false,
  ],
  ['key', c1, { ...c1, responses: [make.response('R', 'single', 'identifier', ['b'])] }, true],
  ['points', numericItem(41, 43), numericItem(41, 43, 42, 3), true],
  ['tolerance', numericItem(41, 43), numericItem(42, 42), true],
  ['tolerance', numericItem(41, 43), numericItem(41.5, 43), true],
  ['key', numericItem(41, 43), numericItem(51, 53, 52), true],
  ['case-sensitivity', textItem([['isogonal', 1]]), textItem([['isogonal', 1]], true), true],
  ['key', textItem([['isogonal', 1]]), textItem([['isobar', 1]]), true],
  [
    'scoring',
    textItem([
      ['isogonal', 1],
      ['isogonic', 0.5],
    ]),
    textItem([
      ['isogonal', 1],
      ['isogonic', 0.25],
    ]),
    true,
  ],
  ['scoring', perChoice(-1), perChoice(-0.5), true],
  ['feedback', c1, { ...c1, feedback: [] }, false],
  ['category', c1, { ...c1, category: 'Moon' }, false],
  [
    'kind',
    c1,
    choices({ ...c1, responses: [make.response('R', 'multiple', 'identifier', ['a'])] }, (c) => ({
      ...c,
      maxChoices: 0,
    })),
    false,
  ],
  ['files', c1, { ...c1, files: [{ path: FILE.path, present: false }] }, false],
];

describe('comparing two holdings', () => {
  for (const [facet, before, after, example] of ITEM_CASES) {
    it(`names "${facet}" and nothing else when only that changes (${before.id})`, () => {
      const files = { files: [FILE] };
      const missing = after.files.some((f) => !f.present);
      const report = compareHoldings(
        settled([before], [], files),
        settled([after], [], missing ? {} : files),
      );
      const found = report.pairs[0]?.differences ?? [];
      // The answer "none of the wrong" can score otherwise once several may be ticked.
      expect(found.map((d) => d.facet).filter((f) => facet !== 'kind' || f === 'kind')).to.deep.equal([
        facet,
      ]);
      if (example) {
        const shown = found[0]!.example!;
        expect(shown, 'a counter-example').to.not.equal(null);
        expect(shown.from).to.not.equal(shown.to);
      }
      expect(report.verdict).to.equal(missing ? 'incomplete' : 'altered');
    });
  }

  it('does not take identifiers, white space or mark-up that shows the same for a difference', () => {
    const renamed: Item = {
      ...choiceItem({ id: 'other-77' }),
      body: choiceItem().body.map((n) =>
        n.kind === 'choice'
          ? { ...n, responseId: 'Q', choices: n.choices.map((c) => ({ ...c, id: `${c.id}9` })) }
          : n.kind === 'element' && n.children[0]?.kind === 'text'
            ? element('div', [
                element('span', [text('When  do spring\u00a0tides come about?')]),
                ...n.children.slice(1),
              ])
            : n,
      ),
      responses: [make.response('Q', 'single', 'identifier', ['a9'])],
      scoring: templateProgram('match_correct', 'Q'),
    };
    const report = compareHoldings(
      settled([c1], [], { files: [FILE] }),
      settled([renamed], [], { files: [FILE] }),
    );
    expect(report.pairs).to.have.length(1);
    expect(report.pairs[0]).to.deep.include({ state: 'intact', differences: [] });
    expect(report.verdict).to.equal('intact');
  });

  it('compares a holding with itself as intact, whatever it is', () => {
    fc.assert(
      fc.property(anyHolding, (made) => {
        const holding = settled(made.items, made.quizzes, { banks: made.banks });
        const report = compareHoldings(holding, structuredClone(holding));
        expect(report.verdict).to.equal('intact');
        expect(report.counts).to.deep.equal({
          intact: holding.items.length,
          altered: 0,
          missing: 0,
          extra: 0,
        });
      }),
      { numRuns: 60 },
    );
  });

  it('names what is missing and what is extra, and mirrors when the sides are swapped', () => {
    fc.assert(
      fc.property(anyHolding, fc.nat(), (made, pick) => {
        const holding = settled(made.items);
        const gone = holding.items[pick % holding.items.length]!;
        const rest = { ...holding, items: holding.items.filter((i) => i !== gone) };
        const forth = compareHoldings(holding, rest);
        const back = compareHoldings(rest, holding);
        expect(forth.missing.map((m) => m.id)).to.deep.equal([gone.id]);
        expect(back.extra.map((m) => m.id)).to.deep.equal([gone.id]);
        expect([forth.verdict, back.verdict]).to.deep.equal(['incomplete', 'altered']);
      }),
      { numRuns: 60 },
    );
  });

  it('matches by identifier, then by content, then by likeness, one to one', () => {
    const make3 = (id: string, words: string): Item => make.item({ id, body: [element('p', [text(words)])] });
    const left = [
      make3('a', 'How long is one nautical mile in metres, exactly'),
      make3('b', 'Name the line that joins points of equal variation'),
      make3('c', 'What does a vessel under sail show at night near the coast'),
    ];
    const right = [
      make3('x', 'What does a vessel under sail show by night near the coast'),
      make3('y', 'Name the line that joins points of equal variation'),
      make3('a', 'How long is one nautical mile in metres'),
    ];
    const { pairs, missing, extra } = matchItems(left, right);
    expect(pairs.map((p) => `${p.source.id}-${p.arrived.id} ${p.by}`)).to.deep.equal([
      'a-a identifier',
      'b-y fingerprint',
      'c-x similarity',
    ]);
    expect([missing, extra]).to.deep.equal([[], []]);
  });

  it('believes the content where numbers were handed out anew', () => {
    const one = (id: string, words: string): Item => make.item({ id, body: [element('p', [text(words)])] });
    const texts = [
      'spring tides and the moon in line',
      'a cone point down by day',
      'the stern light and its arc',
    ];
    const left = texts.map((t, at) => one(`q${at}`, t));
    const right = [2, 0, 1].map((from, at) => one(`q${at}`, texts[from]!));
    expect(matchItems(left, right).pairs.map((p) => p.source.id + p.arrived.id)).to.deep.equal([
      'q0q1',
      'q1q2',
      'q2q0',
    ]);
  });
});

describe('comparing quizzes and banks', () => {
  const items = ['a', 'b', 'c'].map((id) =>
    choiceItem({
      id,
      title: id,
      files: [],
      body: [
        element('p', [text(`Question ${id} about ${id.repeat(4)}`)]),
        ...choiceItem().body.filter((n) => n.kind === 'choice'),
      ],
    }),
  );
  const quiz: Quiz = {
    id: 'q',
    title: 'Exam',
    test: null,
    settings: {
      ...make.NO_SETTINGS,
      attempts: 2,
      timeLimitMinutes: 45,
      passMark: 1,
      instructions: 'Work alone.',
    },
    sections: [
      {
        id: 's1',
        title: 'Fixed',
        shuffle: false,
        instructions: null,
        items: [
          { item: 'a', weight: 1 },
          { item: 'b', weight: 1 },
        ],
        draw: null,
      },
      {
        id: 's2',
        title: 'Drawn',
        shuffle: true,
        instructions: null,
        items: [],
        draw: { pick: 1, bank: null, pool: ['c'], weights: null, pointsEach: 1, withReplacement: false },
      },
    ],
    metadata: [],
    origin: null,
  };
  const settings = (over: Partial<Quiz['settings']>): Quiz => ({
    ...quiz,
    settings: { ...quiz.settings, ...over },
  });
  const [fixed, drawn] = quiz.sections;
  const cases: [facet: Facet, quiz: Quiz][] = [
    ['title', { ...quiz, title: 'exam_0021' }],
    ['instructions', settings({ instructions: null })],
    ['attempts', settings({ attempts: 'unlimited' })],
    ['time-limit', settings({ timeLimitMinutes: 60 })],
    ['pass-mark', settings({ passMark: 2 })],
    ['dates', settings({ opens: '2026-03-01T08:00:00Z' })],
    ['sections', { ...quiz, sections: [{ ...fixed!, title: 'Part one' }, drawn!] }],
    ['shuffle', { ...quiz, sections: [{ ...fixed!, shuffle: true }, drawn!] }],
    ['membership', { ...quiz, sections: [{ ...fixed!, items: [...fixed!.items].reverse() }, drawn!] }],
    [
      'draw',
      { ...quiz, sections: [fixed!, { ...drawn!, draw: { ...drawn!.draw!, withReplacement: true } }] },
    ],
  ];
  for (const [facet, after] of cases) {
    it(`names "${facet}"`, () => {
      const report = compareHoldings(settled(items, [quiz]), settled(items, [after]));
      expect(report.containers.flatMap((c) => c.differences.map((d) => d.facet))).to.deep.equal([facet]);
      expect(report.verdict).to.equal('altered');
    });
  }

  it('says when a quiz or a bank is not there, or is there twice', () => {
    const bank = { id: 'k', title: 'Bank', items: ['c'], metadata: [], origin: null };
    const whole = settled(items, [quiz], { banks: [bank] });
    const without = settled(items, [quiz]);
    expect(compareHoldings(whole, without).containers.map((c) => `${c.kind} ${c.state}`)).to.deep.equal([
      'quiz intact',
      'bank missing',
    ]);
    expect(compareHoldings(whole, without).verdict).to.equal('incomplete');
    expect(
      compareHoldings(without, settled(items, [quiz, { ...quiz, id: 'q2' }])).containers.map((c) => c.state),
    ).to.deep.equal(['intact', 'extra']);
  });
});

describe('containers of systems that count from 1 in every course', () => {
  it('are paired by what they hold before an identifier that means another', () => {
    const named = (id: string, says: string): Item => make.item({ id, body: [element('p', [text(says)])] });
    const bank = (id: string, title: string, items: readonly string[]): Holding['banks'][number] => ({
      id,
      title,
      items,
      metadata: [],
      origin: null,
    });
    const [knots, lights] = [
      'Which knot makes a loop that does not slip?',
      'Which light does an anchored vessel show?',
    ];
    const source = make.holding({
      banks: [bank('b1', 'Knots', ['a']), bank('b2', 'Lights', ['b'])],
      items: [named('a', knots!), named('b', lights!)],
    });
    const arrived = make.holding({
      banks: [bank('b1', 'Lights', ['x']), bank('b2', '', ['y'])],
      items: [named('x', lights!), named('y', knots!)],
    });
    const pairs = compareHoldings(source, arrived).containers.map((c) => [c.source, c.arrived, c.state]);
    expect(pairs).to.deep.equal([
      ['b1', 'b2', 'altered'],
      ['b2', 'b1', 'intact'],
    ]);
  });
});
