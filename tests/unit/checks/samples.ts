import { assessmentXml, bankXml, document as qti, itemXml, PLAIN } from '../../../demo/qti12.ts';
import type { ItemSpec } from '../../../demo/items.ts';
import { make, type Quiz } from '@alforja/core';
import { itemXml21, NS21, SCORE21, template21 } from '../../support/read.ts';

export const base = {
  kind: 'single',
  id: 'i',
  points: 1,
  stem: '<p>Which side is port?</p>',
  choices: [{ text: 'Left', right: true }, { text: 'Right' }],
} satisfies ItemSpec;
const shuffled = (...texts: string[]) => ({
  ...base,
  shuffle: true,
  choices: texts.map((text, at) => ({ text, right: at === 0, pinned: text.endsWith('!') })),
});
export const raw = (spec: ItemSpec, edit: (xml: string) => string = (x) => x): string =>
  qti(edit(itemXml(spec, PLAIN)));
export const drawing = (pick: number, ...points: number[]): Record<string, string> => ({
  'quiz.xml': assessmentXml(
    { id: 'q', title: 'Q', items: [], draws: [{ title: 'D', bank: 'b', pick, pointsEach: 1 }] },
    PLAIN,
  ),
  'bank.xml': bankXml(
    'b',
    points.map((p, at) => ({
      ...base,
      id: `b${at}`,
      points: p,
      stem: `<p>Question number ${at} on port</p>`,
    })),
    PLAIN,
    'B',
  ),
});

/** Replicas of one exercise: how far in two hours? */
const replica = (id: string, { knots, key, points = 2 }: { knots: number; key: number; points?: number }) =>
  ({
    kind: 'number',
    id,
    points,
    value: key,
    tolerance: 0.05,
    unit: 'NM',
    stem: `<p>At ${knots} knots, how far does a boat come in two hours?</p>`,
  }) satisfies ItemSpec;
export const replicas = (...all: readonly { knots: number; key: number; points?: number }[]): string =>
  qti(all.map((r, at) => itemXml(replica(`r${at}`, r), PLAIN)).join(''));
/** The same as documents of QTI 2.1, for tests that choose among them. */
const replicaFiles = (count: number): Record<string, string> =>
  Object.fromEntries(
    Array.from({ length: count }, (_, at) => [
      `r${at}.xml`,
      itemXml21(
        `r${at}`,
        `<responseDeclaration identifier="R" cardinality="single" baseType="float"><correctResponse><value>${2 * at + 2}</value></correctResponse></responseDeclaration>${SCORE21}<itemBody><p>At ${at + 1} knots, how far in two hours? <textEntryInteraction responseIdentifier="R"/></p></itemBody>${template21('match_correct')}`,
      ),
    ]),
  );
const choosing = (pick: number, ...ids: readonly string[]): string =>
  `<assessmentTest ${NS21} identifier="q" title="Q"><testPart identifier="p" navigationMode="linear" submissionMode="individual"><assessmentSection identifier="s" title="D" visible="true"><selection select="${pick}"/>${ids.map((id) => `<assessmentItemRef identifier="${id}" href="${id}.xml"/>`).join('')}</assessmentSection></testPart></assessmentTest>`;

const LONG =
  'In the second hour after low water, by how many twelfths of its range does the tide rise in the harbour?';
const solving = (attempts: number | string): string =>
  assessmentXml({ id: 'q', title: 'Q', items: [base], fields: { cc_maxattempts: attempts } }, PLAIN).replace(
    '</item>',
    '<itemfeedback ident="s"><solution><solutionmaterial><material><mattext>Left.</mattext></material></solutionmaterial></solution></itemfeedback></item>',
  );

const typed = (baseType: string, wanted: string): string =>
  `<assessmentItem identifier="i" title="I"><responseDeclaration identifier="R" cardinality="single" baseType="identifier"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><choiceInteraction responseIdentifier="R"><simpleChoice identifier="A">a</simpleChoice><simpleChoice identifier="B">b</simpleChoice></choiceInteraction></itemBody><responseProcessing><responseCondition><responseIf><match><variable identifier="R"/><baseValue baseType="${baseType}">${wanted}</baseValue></match><setOutcomeValue identifier="SCORE"><baseValue baseType="float">1</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing></assessmentItem>`;

const patterned = (pattern: string): string =>
  `<assessmentItem identifier="i" title="I"><responseDeclaration identifier="R" cardinality="single" baseType="string"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" normalMaximum="1"/><itemBody><p>Which side? <textEntryInteraction responseIdentifier="R"/></p></itemBody><responseProcessing><responseCondition><responseIf><patternMatch pattern="${pattern}"><variable identifier="R"/></patternMatch><setOutcomeValue identifier="SCORE"><baseValue baseType="float">1</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing></assessmentItem>`;

/** Two blanks, each worth a point where a word is accepted in it. */
const blanks = (...words: readonly string[]): string => {
  const of = (make: (word: string, at: number) => string): string => words.map(make).join('');
  return `<assessmentItem identifier="i" title="I">${of((_, at) => `<responseDeclaration identifier="R${at}" cardinality="single" baseType="string"/>`)}<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration><itemBody><p>In front is the ${of((_, at) => `<textEntryInteraction responseIdentifier="R${at}"/>, `)}</p></itemBody><responseProcessing>${of(
    (word, at) =>
      word === ''
        ? ''
        : `<responseCondition><responseIf><stringMatch caseSensitive="false"><variable identifier="R${at}"/><baseValue baseType="string">${word}</baseValue></stringMatch><setOutcomeValue identifier="SCORE"><sum><variable identifier="SCORE"/><baseValue baseType="float">1</baseValue></sum></setOutcomeValue></responseIf></responseCondition>`,
  )}</responseProcessing></assessmentItem>`;
};

/** For each check: what trips it, and what looks alike and does not. */
export const SAMPLES: Record<
  string,
  { trips: (string | Record<string, string>)[]; passes: (string | Record<string, string>)[] }
> = {
  'key-missing': {
    trips: [raw({ ...base, choices: [{ text: 'Left' }, { text: 'Right' }] })],
    passes: [raw(base), raw({ kind: 'essay', id: 'e', points: 3, stem: '<p>Explain.</p>' })],
  },
  'blank-unanswered': {
    trips: [blanks('', 'stern')],
    passes: [blanks('bow', 'stern'), blanks('', '')],
  },
  'key-unknown-choice': {
    trips: [raw(base, (x) => x.replace('>A</varequal>', '>Z</varequal>'))],
    passes: [raw(base)],
  },
  'key-several-on-single': {
    trips: [
      raw(base, (x) =>
        x.replace(/(<varequal respident="response1">)A(<\/varequal>)/u, '<or>$1A$2$1B$2</or>'),
      ),
    ],
    passes: [
      raw(base),
      raw({ ...base, kind: 'multiple', choices: base.choices.map((c) => ({ ...c, right: true })) }),
    ],
  },
  'points-not-positive': { trips: [raw({ ...base, points: 0 })], passes: [raw({ ...base, points: 0.5 })] },
  'stem-empty': {
    trips: [raw({ ...base, stem: '' }), raw({ ...base, stem: '<p> </p>' })],
    passes: [
      raw({ ...base, stem: '<p><img src="a.png" alt="A chart"></p>' }),
      raw({ ...base, stem: '<p>右</p>' }),
    ],
  },
  'duplicate-choices': {
    trips: [raw({ ...base, choices: [...base.choices, { text: ' left' }] })],
    passes: [raw({ ...base, choices: [{ text: 'H<sub>2</sub>', right: true }, { text: 'H2' }] })],
  },
  'all-of-the-above-shuffled': {
    trips: [
      shuffled('A', 'All of the above'),
      shuffled('A', 'Both A and B'),
      shuffled('A', 'none of these.'),
      shuffled('A', 'Answers B and C'),
    ].map((s) => raw(s)),
    passes: [
      raw(shuffled('A', 'All of the above!')),
      raw({ ...shuffled('A', 'All of the above'), shuffle: false }),
      raw(shuffled('A bearing of all buoys', 'Vitamin C and D are nice')),
      raw(shuffled('Left of the mark', 'Above all, slow down')),
    ],
  },
  'draw-too-large': { trips: [drawing(3, 1, 1)], passes: [drawing(2, 1, 1)] },
  'pattern-not-run': {
    trips: [patterned('(a)\\1'), patterned('a{5000}'), patterned('(?=x)y'), patterned('[a')],
    passes: [patterned('(a|a)*b'), patterned('[a-z-[aeiou]]+'), patterned('{WANTED}')],
  },
  'scoring-type': { trips: [typed('integer', '5')], passes: [typed('identifier', 'A')] },
  'tolerance-missing': {
    trips: [raw({ kind: 'number', id: 'n', points: 1, stem: '<p>How far?</p>', value: 42.5, unit: 'NM' })],
    passes: [
      raw({
        kind: 'number',
        id: 'n',
        points: 1,
        stem: '<p>How far?</p>',
        value: 42.5,
        tolerance: 0.5,
        unit: 'NM',
      }),
      raw({ kind: 'number', id: 'n', points: 1, stem: '<p>How many?</p>', value: 42, unit: '' }),
    ],
  },
  'solution-with-attempts': {
    trips: [solving(3), solving('unlimited')],
    passes: [
      solving(1),
      assessmentXml({ id: 'q', title: 'Q', items: [base], fields: { cc_maxattempts: 3 } }, PLAIN),
    ],
  },
  'points-unreached': {
    trips: [raw({ ...base, points: 2 }, (x) => x.replace('>2</setvar>', '>1</setvar>'))],
    passes: [raw({ ...base, points: 2 })],
  },
  'image-alt-missing': {
    trips: [raw({ ...base, stem: '<p>See <img src="a.png"></p>' })],
    passes: [raw({ ...base, stem: '<p>See <img src="a.png" alt=""></p>' })],
  },
  'link-dead': {
    trips: [raw({ ...base, stem: '<p>See <a href="handout.pdf">this</a></p>' })],
    passes: [
      { 'q.xml': raw({ ...base, stem: '<p>See <a href="handout.pdf">this</a></p>' }), 'handout.pdf': 'x' },
      raw({ ...base, stem: '<p>See <a href="https://tables.example.org">this</a></p>' }),
    ],
  },
  'key-longest': {
    trips: [
      raw({
        ...base,
        choices: [
          { text: 'The side that lies to your left when you face the bow', right: true },
          { text: 'Right' },
          { text: 'Aft' },
        ],
      }),
    ],
    passes: [
      raw({
        ...base,
        choices: [
          { text: 'Left', right: true },
          { text: 'The side that lies to your right when you face the bow' },
          { text: 'Aft' },
        ],
      }),
    ],
  },
  'dates-impossible': { trips: [], passes: [raw(base)] },
  'quiz-unnamed': {
    trips: [assessmentXml({ id: 'q', title: '', items: [base] }, PLAIN)],
    passes: [assessmentXml({ id: 'q', title: 'Q', items: [base] }, PLAIN)],
  },
  'bank-mixed-kinds': {
    trips: [
      bankXml(
        'b',
        [base, { kind: 'text', id: 't', points: 1, stem: '<p>Word?</p>', answers: ['x'] }],
        PLAIN,
        'B',
      ),
    ],
    passes: [
      bankXml('b', [base, { ...base, id: 'i2', stem: '<p>Another question on sides?</p>' }], PLAIN, 'B'),
    ],
  },
  'item-unused': {
    trips: [
      {
        'q.xml': assessmentXml({ id: 'q', title: 'Q', items: [base] }, PLAIN),
        'i.xml': raw({ ...base, id: 'alone' }),
      },
    ],
    passes: [raw(base)],
  },
  'duplicate-items': {
    trips: [qti(itemXml(base, PLAIN) + itemXml({ ...base, id: 'again' }, PLAIN))],
    passes: [
      qti(
        itemXml(base, PLAIN) +
          itemXml({ ...base, id: 'other', stem: '<p>Which side is starboard?</p>' }, PLAIN),
      ),
    ],
  },
  'near-duplicate-items': {
    trips: [
      qti(
        itemXml({ ...base, stem: `<p>${LONG}</p>` }, PLAIN) +
          itemXml({ ...base, id: 'again', stem: `<p>${LONG} Say.</p>` }, PLAIN),
      ),
    ],
    passes: [
      qti(
        itemXml({ ...base, stem: `<p>${LONG}</p>` }, PLAIN) +
          itemXml(
            {
              ...base,
              id: 'other',
              stem: '<p>What does a cone point down mean by day on a vessel with sails set?</p>',
            },
            PLAIN,
          ),
      ),
    ],
  },
  'draw-points-unequal': { trips: [drawing(1, 1, 2)], passes: [drawing(1, 2, 2)] },
  'family-points-unequal': {
    trips: [replicas({ knots: 4, key: 8 }, { knots: 5, key: 10, points: 3 })],
    passes: [replicas({ knots: 4, key: 8 }, { knots: 5, key: 10 })],
  },
  'family-key-stale': {
    trips: [
      // One rule holds for the others.
      replicas({ knots: 4, key: 8 }, { knots: 5, key: 10 }, { knots: 7, key: 14 }, { knots: 9, key: 14 }),
      // No rule is seen, and one key occurs twice.
      replicas({ knots: 4, key: 8.3 }, { knots: 5, key: 17.1 }, { knots: 7, key: 17.1 }),
    ],
    passes: [
      replicas({ knots: 4, key: 8 }, { knots: 5, key: 10 }, { knots: 7, key: 14 }),
      replicas({ knots: 4, key: 8.3 }, { knots: 5, key: 17.1 }, { knots: 7, key: 21.9 }),
      // A key that never changes depends on nothing that does.
      replicas({ knots: 4, key: 8 }, { knots: 5, key: 8 }, { knots: 7, key: 8 }),
    ],
  },
  'family-draw-partial': {
    trips: [{ ...replicaFiles(3), 'quiz.xml': choosing(1, 'r0', 'r1') }],
    passes: [
      { ...replicaFiles(3), 'quiz.xml': choosing(1, 'r0', 'r1', 'r2') },
      // One that is set on purpose is no draw.
      { ...replicaFiles(3), 'quiz.xml': choosing(1, 'r0') },
    ],
  },
  'family-drawn-twice': {
    trips: [{ ...replicaFiles(3), 'quiz.xml': choosing(2, 'r0', 'r1', 'r2') }],
    passes: [{ ...replicaFiles(3), 'quiz.xml': choosing(1, 'r0', 'r1', 'r2') }],
  },
};

/** A quiz without items, of some dates. */
export const dated = (opens: string | null, closes: string | null): Quiz => ({
  id: 'q',
  title: 'Q',
  test: null,
  settings: { ...make.NO_SETTINGS, opens, closes },
  sections: [],
  metadata: [],
  origin: null,
});
