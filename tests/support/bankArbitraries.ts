import fc from 'fast-check';
import { make, programFor, type Holding, type Item, type ScoringShape } from '@alforja/core';

/** Made-up banks of the kinds of question that a document can ask, in plain words of several scripts. */

const WORDS = [
  'tide',
  'vessel',
  'buoy',
  'marea',
  'Licht',
  'Ebbe',
  'Kurs',
  'ancre',
  'огонь',
  'берег',
  'rope',
  'chart',
  'anchor',
  'sound',
  'bearing',
];
const phrase = (min: number, max: number): fc.Arbitrary<string> =>
  fc.array(fc.constantFrom(...WORDS), { minLength: min, maxLength: max }).map((w) => w.join(' '));
/** Told apart by a number, so that no two texts are the same. */
const distinct = (texts: readonly string[]): string[] =>
  texts.map((t, at) => `${t} ${['one', 'two', 'three', 'four', 'five', 'six'][at] ?? at}`);

type Asked = {
  readonly nodes: Item['body'];
  readonly response: Item['responses'][number];
  readonly shape: ScoringShape;
  readonly key: readonly (string | number)[];
};

const choices = fc.array(phrase(1, 3), { minLength: 2, maxLength: 6 }).map(distinct);
const option = (text: string, at: number) => ({
  id: String.fromCharCode(65 + at),
  content: [make.text(text)],
  fixed: false,
});
const all = (points: number, ordered = false): ScoringShape => ({ kind: 'all-or-nothing', points, ordered });

const choice = (points: number): fc.Arbitrary<Asked> =>
  choices.chain((texts) =>
    fc
      .subarray(
        texts.map((_, at) => at),
        { minLength: 1, maxLength: texts.length - 1 },
      )
      .map((right) => {
        const key = right.map((at) => String.fromCharCode(65 + at));
        const several = key.length > 1;
        return {
          nodes: [
            make.choiceInteraction({
              responseId: 'RESPONSE',
              maxChoices: several ? 0 : 1,
              choices: texts.map(option),
            }),
          ],
          response: make.response('RESPONSE', several ? 'multiple' : 'single', 'identifier', key),
          shape: all(points),
          key,
        };
      }),
  );

const order = (points: number): fc.Arbitrary<Asked> =>
  fc
    .array(phrase(1, 3), { minLength: 3, maxLength: 5 })
    .map(distinct)
    .chain((texts) =>
      fc
        .shuffledSubarray(
          texts.map((_, at) => at),
          { minLength: texts.length },
        )
        .filter((o) => o.some((at, n) => at !== n))
        .map((o) => {
          const key = o.map((at) => String.fromCharCode(65 + at));
          return {
            nodes: [
              {
                kind: 'order' as const,
                responseId: 'RESPONSE',
                prompt: [],
                shuffle: false,
                maxChoices: 0,
                minChoices: 0,
                choices: texts.map(option),
              },
            ],
            response: make.response('RESPONSE', 'ordered', 'identifier', key),
            shape: all(points, true),
            key,
          };
        }),
    );

const number = (points: number): fc.Arbitrary<Asked> =>
  fc
    .tuple(fc.integer({ min: -900, max: 900 }), fc.option(fc.integer({ min: 1, max: 40 })))
    .map(([tenths, within]) => {
      const value = tenths / 10;
      const reach = (within ?? 0) / 10;
      const round = (n: number): number => Number(n.toFixed(6));
      return {
        nodes: [
          make.element('p', [
            { kind: 'textEntry' as const, responseId: 'RESPONSE', expectedLength: 8, placeholder: null },
          ]),
        ],
        response: make.response('RESPONSE', 'single', 'float', [value]),
        shape: {
          kind: 'numeric',
          points,
          value,
          stated: true,
          tolerance:
            within === null
              ? null
              : {
                  mode: 'absolute',
                  low: round(value - reach),
                  high: round(value + reach),
                  includesLow: true,
                  includesHigh: true,
                },
        },
        key: [value],
      };
    });

const texts = (points: number): fc.Arbitrary<Asked> =>
  fc
    .array(phrase(1, 2), { minLength: 1, maxLength: 3 })
    .map((t) => [...new Set(t)])
    .map((answers) => ({
      nodes: [
        make.element('p', [
          { kind: 'textEntry' as const, responseId: 'RESPONSE', expectedLength: 20, placeholder: null },
        ]),
      ],
      response: make.response('RESPONSE', 'single', 'string', answers.slice(0, 1)),
      shape: {
        kind: 'accepted-answers' as const,
        answers: answers.map((text) => ({ text, points, caseSensitive: false })),
      },
      key: answers,
    }));

const item = (id: string): fc.Arbitrary<Item> =>
  fc
    .record({
      points: fc.constantFrom(1, 2, 3, 0.5),
      category: fc.option(fc.constantFrom('tides', 'lights'), { nil: null }),
      stem: phrase(4, 9),
      feedback: fc.option(phrase(3, 8), { nil: null }),
    })
    .chain(({ points, category, stem, feedback }) =>
      fc
        .oneof(choice(points), choice(points), order(points), number(points), texts(points))
        .map(({ nodes, response, shape, key }) => {
          const base = make.item({
            id,
            points,
            category,
            body: [make.element('p', [make.text(`${stem} ${id}?`)]), ...nodes],
            responses: [response],
            ...(feedback === null
              ? {}
              : {
                  outcomes: [
                    make.outcome('SCORE'),
                    make.outcome('FEEDBACK', {
                      cardinality: 'multiple',
                      baseType: 'identifier',
                      defaultValue: ['general_feedback'],
                    }),
                  ],
                  feedback: [
                    {
                      id: 'general_feedback',
                      kind: 'general' as const,
                      title: '',
                      outcome: 'FEEDBACK',
                      show: true,
                      content: [make.text(feedback)],
                    },
                  ],
                }),
          });
          return { ...base, ...programFor(base, shape, { RESPONSE: key }) };
        }),
    );

/** A bank of three to eight items. */
export const plainBank: fc.Arbitrary<Holding> = fc
  .integer({ min: 3, max: 8 })
  .chain((n) => fc.tuple(...Array.from({ length: n }, (_, at) => item(`q${at + 1}`))))
  .map((items) =>
    make.holding({
      title: 'Coastal pilotage',
      items,
      banks: [
        {
          id: 'bank-1',
          title: 'Coastal pilotage',
          items: items.map((i) => i.id),
          metadata: [],
          origin: null,
        },
      ],
    }),
  );
