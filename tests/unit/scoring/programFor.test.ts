import { expect } from 'chai';
import fc from 'fast-check';
import {
  evaluate,
  make,
  programFor,
  recognise,
  type Answers,
  type Interaction,
  type Item,
  type ScoringShape,
} from '@alforja/core';

/** Items of every kind of scoring, in both manners of writing it, and what each must give by its shape. */

const IDS = ['A', 'B', 'C', 'D'];
const points = fc.integer({ min: 1, max: 24 }).map((n) => n / 4);
const standards = fc.constantFrom<Item['standard']>('qti1.2', 'qti2', 'qti3');
const scales = fc.constantFrom(1, 2, 0.02, 0.5);

const choices = IDS.map((id) => ({ id, content: [make.text(`Choice ${id}`)], fixed: false }));

interface Case {
  readonly item: Item;
  readonly shape: ScoringShape;
  readonly key: Record<string, readonly (string | number)[]>;
  /** All that matter. */
  readonly answers: readonly Answers[];
  /** The most it gives, where it is not among the answers. */
  readonly most?: number;
  /** Worked out from the shape alone. */
  readonly score: (answers: Answers) => number;
}

const mostOf = (c: Case): number => c.most ?? Math.max(...c.answers.map(c.score));

const itemOf = (
  standard: Item['standard'],
  scale: number,
  interactions: readonly Interaction[],
  responses: Item['responses'],
): Item =>
  make.item({
    id: 'i',
    standard,
    scale,
    points: 1,
    body: [...interactions],
    responses: [...responses],
    outcomes: [make.outcome('SCORE')],
  });

const subsets = (ids: readonly string[]): string[][] =>
  Array.from({ length: 2 ** ids.length }, (_, mask) => ids.filter((_id, at) => (mask >> at) & 1));

const same = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((x) => b.includes(x));

const picked = (single: boolean, standard: Item['standard'], scale: number): Item =>
  itemOf(
    standard,
    scale,
    [make.choiceInteraction({ responseId: 'R', maxChoices: single ? 1 : 0, choices })],
    [make.response('R', single ? 'single' : 'multiple', 'identifier')],
  );

const allOrNothing: fc.Arbitrary<Case> = fc
  .tuple(fc.boolean(), fc.subarray(IDS, { minLength: 1 }), points, standards, scales)
  .map(([single, right, worth, standard, scale]) => {
    const key = single ? right.slice(0, 1) : right;
    return {
      item: picked(single, standard, scale),
      shape: { kind: 'all-or-nothing', points: worth, ordered: false },
      key: { R: key },
      answers: (single ? IDS.map((id) => [id]) : subsets(IDS)).map((R) => ({ R })),
      score: ({ R = [] }) => (same(R, key) ? worth : 0),
    };
  });

const perChoice: fc.Arbitrary<Case> = fc
  .tuple(
    fc.boolean(),
    fc.tuple(...IDS.map(() => fc.integer({ min: -4, max: 8 }).map((n) => n / 2))),
    points,
    fc.boolean(),
    standards,
    scales,
  )
  .map(([single, values, first, floor, standard, scale]) => {
    const worth = new Map(IDS.map((id, at) => [id, at === 0 ? first : values[at]!]));
    const sum = (R: readonly unknown[]): number => R.reduce<number>((n, id) => n + worth.get(String(id))!, 0);
    const lower = floor ? 0 : null;
    const most = Math.max(...worth.values());
    const right = IDS.filter((id) => (single ? worth.get(id) === most : worth.get(id)! > 0));
    return {
      item: picked(single, standard, scale),
      shape: {
        kind: 'per-choice',
        unit: 'choice',
        values: Object.fromEntries(worth),
        otherwise: 0,
        lower,
        upper: null,
      },
      key: { R: right },
      answers: (single ? IDS.map((id) => [id]) : subsets(IDS)).map((R) => ({ R })),
      score: ({ R = [] }) => (lower === null ? sum(R) : Math.max(lower, sum(R))),
    };
  });

const inOrder: fc.Arbitrary<Case> = fc
  .tuple(fc.shuffledSubarray(IDS, { minLength: 4, maxLength: 4 }), points, standards, scales)
  .map(([key, worth, standard, scale]) => ({
    item: itemOf(
      standard,
      scale,
      [{ kind: 'order', responseId: 'R', prompt: [], shuffle: true, maxChoices: 0, minChoices: 0, choices }],
      [make.response('R', 'ordered', 'identifier')],
    ),
    shape: { kind: 'all-or-nothing', points: worth, ordered: true },
    key: { R: key },
    answers: [key, [...key].reverse(), [key[1]!, key[0]!, key[2]!, key[3]!]].map((R) => ({ R })),
    score: ({ R = [] }) => (R.join() === key.join() ? worth : 0),
  }));

const PAIRS = ['A x', 'A y', 'B x', 'B y'];
const pairs: fc.Arbitrary<Case> = fc
  .tuple(fc.subarray(PAIRS, { minLength: 2, maxLength: 2 }), points, points, scales)
  .map(([right, first, second, scale]) => {
    const worth = new Map([
      [right[0]!, first],
      [right[1]!, second],
    ]);
    const ends = (ids: readonly string[]) =>
      ids.map((id) => ({ id, content: [make.text(id)], fixed: false, matchMax: 0 }));
    return {
      item: itemOf(
        'qti2',
        scale,
        [
          {
            kind: 'match',
            responseId: 'R',
            prompt: [],
            shuffle: false,
            maxAssociations: 0,
            minAssociations: 0,
            left: ends(['A', 'B']),
            right: ends(['x', 'y']),
            rows: null,
          },
        ],
        [make.response('R', 'multiple', 'directedPair')],
      ),
      shape: {
        kind: 'per-choice',
        unit: 'pair',
        values: Object.fromEntries(worth),
        otherwise: 0,
        lower: null,
        upper: null,
      },
      key: { R: right },
      answers: subsets(PAIRS).map((R) => ({ R })),
      score: ({ R = [] }) => R.reduce<number>((n, p) => n + (worth.get(String(p)) ?? 0), 0),
    };
  });

const entry: Interaction = {
  kind: 'textEntry',
  responseId: 'R',
  expectedLength: null,
  placeholder: null,
};
const texts: fc.Arbitrary<Case> = fc
  .tuple(
    fc.uniqueArray(fc.constantFrom('ebb', 'flood', 'slack water', 'étale', '潮', 'Neap'), {
      minLength: 1,
      maxLength: 4,
    }),
    fc.array(fc.tuple(points, fc.boolean()), { minLength: 4, maxLength: 4 }),
    standards,
    scales,
  )
  .map(([words, rest, standard, scale]) => {
    const answers = words.map((text, at) => ({ text, points: rest[at]![0], caseSensitive: rest[at]![1] }));
    const most = Math.max(...answers.map((a) => a.points));
    return {
      item: itemOf(standard, scale, [entry], [make.response('R', 'single', 'string')]),
      shape: { kind: 'accepted-answers', answers },
      key: { R: answers.filter((a) => a.points === most).map((a) => a.text) },
      answers: [...words, ...words.map((w) => w.toUpperCase()), 'nothing of it'].map((t) => ({ R: [t] })),
      score: ({ R = [] }) => {
        const given = String(R[0] ?? '');
        const hit =
          answers.find((a) => a.text === given) ??
          answers.find((a) => !a.caseSensitive && a.text.toLowerCase() === given.toLowerCase());
        return hit?.points ?? 0;
      },
    };
  });

const numbers: fc.Arbitrary<Case> = fc
  .tuple(
    fc.integer({ min: 1, max: 4000 }).map((n) => n / 8),
    fc.integer({ min: 1, max: 40 }).map((n) => n / 16),
    fc.constantFrom('exact', 'absolute', 'range', 'relative'),
    fc.boolean(),
    fc.boolean(),
    points,
    standards,
    scales,
  )
  .map(([value, off, mode, includesLow, includesHigh, worth, standard, scale]) => {
    const low = mode === 'relative' ? value * (1 - off / 100) : value - off;
    const high = mode === 'relative' ? value * (1 + off / 100) : value + 2 * off;
    const clean = (n: number): number => Number(n.toPrecision(12));
    const tolerance =
      mode === 'exact'
        ? null
        : {
            mode: mode as 'absolute' | 'range' | 'relative',
            low: clean(low),
            high: clean(high),
            includesLow,
            includesHigh,
          };
    const [from, to] = [tolerance?.low ?? value, tolerance?.high ?? value];
    return {
      item: itemOf(standard, scale, [entry], [make.response('R', 'single', 'float')]),
      shape: { kind: 'numeric', points: worth, value, stated: true, tolerance },
      key: { R: [value] },
      answers: [value, from, to, clean(from - 0.001), clean(to + 0.001), clean((from + to) / 2)].map((n) => ({
        R: [n],
      })),
      score: ({ R = [] }) => {
        const n = Number(R[0]);
        const above = tolerance === null || includesLow ? n >= from : n > from;
        const below = tolerance === null || includesHigh ? n <= to : n < to;
        return above && below ? worth : 0;
      },
    };
  });

const anyCase = fc.oneof(allOrNothing, perChoice, inOrder, pairs, texts, numbers);

/** Two items as two parts of one: what one response of each gives is added up. */
const sums: fc.Arbitrary<Case> = fc
  .tuple(
    fc.oneof(allOrNothing, texts, numbers),
    fc.oneof(allOrNothing, texts, numbers, pairs),
    standards,
    scales,
  )
  .map(([a, b, standard, scale]) => {
    const part = (c: Case, id: string) => ({
      interaction: { ...(c.item.body[0] as Interaction), responseId: id } as Interaction,
      response: { ...c.item.responses[0]!, id },
    });
    const [x, y] = [part(a, 'R1'), part(b, 'R2')];
    return {
      item: itemOf(standard, scale, [x.interaction, y.interaction], [x.response, y.response]),
      shape: {
        kind: 'sum-of-parts',
        parts: [
          { responseId: 'R1', shape: a.shape },
          { responseId: 'R2', shape: b.shape },
        ],
      },
      key: { R1: a.key['R']!, R2: b.key['R']! },
      answers: a.answers.flatMap((one, at) => {
        const other = b.answers[at % b.answers.length]!;
        return [{ R1: one['R'] ?? [], R2: other['R'] ?? [] }];
      }),
      most: mostOf(a) + mostOf(b),
      score: ({ R1 = [], R2 = [] }) => a.score({ R: R1 }) + b.score({ R: R2 }),
    };
  });

/** Accepted answers in one order: which of equals is asked for first is nobody's concern. */
const inOrderOfText = (shape: ScoringShape): ScoringShape =>
  shape.kind === 'accepted-answers'
    ? { ...shape, answers: [...shape.answers].sort((a, b) => (a.text < b.text ? -1 : 1)) }
    : shape.kind === 'sum-of-parts'
      ? { ...shape, parts: shape.parts.map((p) => ({ ...p, shape: inOrderOfText(p.shape) })) }
      : shape;

const near = (a: number, b: number): boolean => Math.abs(a - b) < 1e-6;

describe('the program of a shape', () => {
  it('scores every answer as the shape says, in the manner of each standard', () => {
    fc.assert(
      fc.property(fc.oneof({ weight: 4, arbitrary: anyCase }, { weight: 1, arbitrary: sums }), (c) => {
        const made = { ...c.item, ...programFor(c.item, c.shape, c.key)! };
        for (const answers of c.answers)
          expect(near(evaluate(made, answers).score, c.score(answers)), JSON.stringify(answers)).to.equal(
            true,
          );
      }),
      { numRuns: 600 },
    );
  });

  it('is read as that shape again, with that key', () => {
    fc.assert(
      fc.property(fc.oneof({ weight: 4, arbitrary: anyCase }, { weight: 1, arbitrary: sums }), (c) => {
        const made = { ...c.item, ...programFor(c.item, c.shape, c.key)! };
        const found = recognise(made);
        expect(near(found.best.raw * made.scale, mostOf(c))).to.equal(true);
        // Of a number the ends of what is accepted get full marks too.
        for (const [id, key] of Object.entries(c.key)) {
          const said = (found.key[id] ?? []).filter((v) => typeof v !== 'number' || key.includes(v));
          expect([...said].sort()).to.deep.equal([...key].sort());
        }
        // A shape that says the same in fewer words is the same shape.
        const again = programFor(made, found.shape, found.key)!;
        expect(inOrderOfText(recognise({ ...made, ...again }).shape)).to.deep.equal(
          inOrderOfText(found.shape),
        );
      }),
      { numRuns: 400 },
    );
  });

  it('keeps bounds as they are, to the last figure', () => {
    fc.assert(
      fc.property(numbers, (c) => {
        const found = recognise({ ...c.item, ...programFor(c.item, c.shape, c.key)! }).shape;
        if (found.kind !== 'numeric' || c.shape.kind !== 'numeric') throw new Error(found.kind);
        expect(found.value).to.equal(c.shape.value);
        expect(found.tolerance && { ...found.tolerance, mode: '' }).to.deep.equal(
          c.shape.tolerance && { ...c.shape.tolerance, mode: '' },
        );
      }),
      { numRuns: 300 },
    );
  });

  it('has none for a scoring that is a program', () => {
    expect(programFor(picked(true, 'qti2', 1), { kind: 'program' }, {})).to.equal(null);
  });
});
