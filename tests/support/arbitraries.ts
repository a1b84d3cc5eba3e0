import fc from 'fast-check';
import {
  make,
  type ChoiceInteraction,
  type ContentNode,
  type Holding,
  type Item,
  type Rule,
} from '@alforja/core';
import { templateProgram } from '../../core/src/formats/qti2/processing.ts';

/** Made-up trees that any QTI 2 reader must give back as they were written. */

const { call, number, set, text, value, variable, when } = make;

/** Text in many scripts and with every sign that XML escapes; white space as a reader sees it. */
export const words: fc.Arbitrary<string> = fc
  .oneof(
    fc.string({ unit: 'grapheme', minLength: 1, maxLength: 24 }),
    fc.constantFrom(
      'a < b & c',
      '"quoted" \'so\'',
      '潮の干満',
      'المدّ والجزر',
      'étale de courant',
      ']]>',
      '&amp;',
      '⚓🌊',
      'e\u0301',
    ),
  )
  // White space, invisible and unassigned characters are no matter of the tree.
  .map((s) =>
    s
      .toWellFormed()
      .replace(/[\p{C}\s]+/gu, ' ')
      .trim(),
  )
  .filter((s) => s !== '');

export const identifier = fc.stringMatching(/^[A-Za-z_][A-Za-z0-9_.-]{0,7}$/u);
export const ids = (min: number, max: number): fc.Arbitrary<string[]> =>
  fc.uniqueArray(identifier, { minLength: min, maxLength: max });
const points = fc.integer({ min: 1, max: 40 }).map((n) => n / 4);

const inline: fc.Arbitrary<ContentNode> = fc.oneof(
  { weight: 4, arbitrary: words.map(text) },
  fc
    .tuple(fc.constantFrom('em', 'strong', 'sub', 'sup', 'code', 'span'), words)
    .map(([name, t]) => make.element(name, [text(t)])),
  words.map((t): ContentNode => ({ kind: 'math', attrs: {}, children: [make.element('mi', [text(t)])] })),
);
const paragraph = fc
  .array(inline, { minLength: 1, maxLength: 3 })
  .map((nodes) => make.element('p', separate(nodes)));

/** Two texts side by side are one text for every reader. */
const separate = (nodes: readonly ContentNode[]): ContentNode[] =>
  nodes.flatMap((node, at) =>
    node.kind === 'text' && nodes[at - 1]?.kind === 'text' ? [make.element('br'), node] : [node],
  );

/** Blocks before the interactions of an item. */
export const stem: fc.Arbitrary<ContentNode[]> = fc.array(
  fc.oneof(
    { weight: 4, arbitrary: paragraph },
    fc.array(words, { minLength: 1, maxLength: 3 }).map((list) =>
      make.element(
        'ul',
        list.map((t) => make.element('li', [text(t)])),
      ),
    ),
  ),
  { minLength: 1, maxLength: 2 },
);

interface Part {
  readonly body: readonly ContentNode[];
  readonly responses: Item['responses'];
  readonly rules: readonly Rule[];
  readonly template?: 'match_correct' | 'map_response';
  /** What a person can give, where a person marks. */
  readonly maximum?: number;
}

const choices = (single: boolean): fc.Arbitrary<Part> =>
  fc
    .tuple(
      ids(2, 5),
      fc.boolean(),
      fc.array(words, { minLength: 5, maxLength: 5 }),
      fc.integer(),
      fc.boolean(),
      fc.boolean(),
      points,
    )
    .map(([names, shuffle, texts, seed, mapped, pinned, worth]) => {
      const right = single
        ? [names[Math.abs(seed) % names.length]!]
        : names.filter((_, at) => (seed >> at) & 1);
      const key = right.length > 0 ? right : [names[0]!];
      const interaction: ChoiceInteraction = make.choiceInteraction({
        responseId: 'RESPONSE',
        shuffle,
        maxChoices: single ? 1 : 0,
        choices: names.map((id, at) => ({
          id,
          content: [text(`${texts[at]!} ${at}`)],
          fixed: pinned && at === names.length - 1,
        })),
      });
      const mapping = mapped
        ? {
            lowerBound: 0,
            upperBound: null,
            defaultValue: -1,
            entries: key.map((k) => ({ key: k, value: worth, caseSensitive: true })),
          }
        : null;
      const template = mapped ? 'map_response' : 'match_correct';
      return {
        body: [interaction],
        responses: [make.response('RESPONSE', single ? 'single' : 'multiple', 'identifier', key, mapping)],
        rules: templateProgram(template, 'RESPONSE').rules,
        template,
      } satisfies Part;
    });

const textEntry: fc.Arbitrary<Part> = fc
  .tuple(fc.uniqueArray(words, { minLength: 1, maxLength: 3 }), fc.boolean(), points)
  .map(([answers, caseSensitive, worth]) => ({
    body: [
      make.element('p', [
        text('Answer: '),
        { kind: 'textEntry', responseId: 'RESPONSE', expectedLength: 20, placeholder: null },
      ]),
    ],
    responses: [
      make.response('RESPONSE', 'single', 'string', [answers[0]!], {
        lowerBound: null,
        upperBound: null,
        defaultValue: 0,
        entries: answers.map((key, at) => ({ key, value: worth / (at + 1), caseSensitive })),
      }),
    ],
    rules: templateProgram('map_response', 'RESPONSE').rules,
    template: 'map_response' as const,
  }));

const numeric: fc.Arbitrary<Part> = fc
  .tuple(
    fc.integer({ min: -4000, max: 4000 }),
    fc.integer({ min: 1, max: 40 }),
    fc.constantFrom('absolute', 'range', 'exact'),
    points,
  )
  .map(([at, half, mode, worth]) => {
    const middle = at / 8;
    const answer = variable('RESPONSE');
    const test =
      mode === 'range'
        ? call('and', [
            call('gte', [answer, number(middle - half / 8)]),
            call('lte', [answer, number(middle + half / 8)]),
          ])
        : call(
            'equal',
            [answer, { op: 'correct', id: 'RESPONSE' }],
            mode === 'exact'
              ? { toleranceMode: 'exact' }
              : { toleranceMode: 'absolute', tolerance: String(half / 8) },
          );
    return {
      body: [
        make.element('p', [
          { kind: 'textEntry', responseId: 'RESPONSE', expectedLength: 8, placeholder: null },
          text('NM'),
        ]),
      ],
      responses: [make.response('RESPONSE', 'single', 'float', [middle])],
      rules: [when(test, [set('SCORE', number(worth))], [set('SCORE', number(0))])],
    };
  });

const essay: fc.Arbitrary<Part> = fc.integer({ min: 1, max: 20 }).map((lines) => ({
  maximum: lines,
  body: [
    {
      kind: 'extendedText',
      responseId: 'RESPONSE',
      prompt: [text('Explain.')],
      expectedLines: lines,
      expectedLength: null,
    },
  ],
  responses: [make.response('RESPONSE', 'single', 'string')],
  rules: [],
}));

const partlyRight: fc.Arbitrary<Part> = fc
  .tuple(ids(3, 5), fc.array(words, { minLength: 5, maxLength: 5 }), points)
  .map(([names, texts, worth]) => ({
    body: [
      make.choiceInteraction({
        responseId: 'RESPONSE',
        maxChoices: 0,
        choices: names.map((id, at) => ({ id, content: [text(`${texts[at]!} ${at}`)], fixed: false })),
      }),
    ],
    responses: [make.response('RESPONSE', 'multiple', 'identifier', names.slice(0, 2))],
    rules: names.map((id, at) =>
      when(call('member', [value('identifier', id), variable('RESPONSE')]), [
        set(
          'SCORE',
          call(at < 2 ? 'sum' : 'subtract', [variable('SCORE'), number(at < 2 ? worth : worth / 2)]),
        ),
      ]),
    ),
  }));

export const anyItem: fc.Arbitrary<Item> = fc
  .tuple(
    identifier,
    words,
    stem,
    fc.oneof(choices(true), choices(false), textEntry, numeric, essay, partlyRight),
    fc.option(words, { nil: null }),
    fc.option(words, { nil: null }),
  )
  .map(([id, title, blocks, part, category, feedback]) =>
    make.item({
      id,
      title,
      body: [...blocks, ...part.body],
      responses: part.responses,
      outcomes: [
        make.outcome('SCORE', part.maximum ? { normalMaximum: part.maximum } : {}),
        ...(feedback
          ? [
              make.outcome('FB', {
                cardinality: 'multiple',
                baseType: 'identifier',
                defaultValue: ['general'],
              }),
            ]
          : []),
      ],
      scoring: {
        rules: part.rules,
        untranslated: [],
        ...(part.template ? { template: part.template } : {}),
      },
      category,
      feedback: feedback
        ? [
            {
              id: 'general',
              kind: 'general',
              title: '',
              outcome: 'FB',
              show: true,
              content: [make.element('p', [text(feedback)])],
            },
          ]
        : [],
    }),
  );

/** A holding with a quiz of fixed items, a draw, and a bank. */
export const anyHolding: fc.Arbitrary<Holding> = fc
  .tuple(
    fc.uniqueArray(anyItem, { minLength: 2, maxLength: 6, selector: (i) => i.id }),
    words,
    fc.option(words, { nil: null }),
    fc.boolean(),
    fc.constantFrom(null, 1, 3, 'unlimited' as const),
    fc.constantFrom(null, 30, 45),
    fc.integer({ min: 1, max: 4 }),
  )
  .map(([items, title, instructions, shuffle, attempts, timeLimitMinutes, weight]) => {
    const half = Math.ceil(items.length / 2);
    const all = items.map((i) => i.id);
    return make.holding({
      title,
      items,
      quizzes: [
        {
          id: 'quiz',
          title,
          test: null,
          settings: { ...make.NO_SETTINGS, attempts, timeLimitMinutes, instructions },
          sections: [
            {
              id: 's1',
              title: 'Fixed',
              shuffle,
              instructions: null,
              draw: null,
              items: all.slice(0, half).map((item, at) => ({ item, weight: at === 0 ? weight : 1 })),
            },
            {
              id: 's2',
              title: 'Drawn',
              shuffle: true,
              instructions,
              items: [],
              draw: {
                pick: 1,
                bank: 'bank',
                pool: all.slice(half),
                weights: null,
                pointsEach: 1,
                withReplacement: false,
              },
            },
          ],
          metadata: [],
          origin: null,
        },
      ],
      banks: [{ id: 'bank', title: `${title} bank`, items: all.slice(half), metadata: [], origin: null }],
    });
  });
