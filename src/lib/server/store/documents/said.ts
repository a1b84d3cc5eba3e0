import { z } from 'zod';
import {
  THING_KINDS,
  type Difference,
  type Facet,
  type Quoted,
  type SaidOf,
  type Trouble,
  type TroubleKind,
  type TroubleSaidOf,
} from '@alforja/core';

/** Shapes of what the two sides of a difference say, facet by facet, as they stand in documents. */

const text = z.string();
const texts = z.array(text);
const number = z.number();
const bool = z.boolean();
const Span = z.object({ low: number, high: number });
const tolerance = Span.extend({
  mode: z.enum(['absolute', 'relative', 'range', 'rounded']),
  includesLow: bool,
  includesHigh: bool,
});

/** A scoring rule in its human shape. */
const Shape: z.ZodType<SaidOf['scoring']['shape']> = z.lazy(() =>
  z.discriminatedUnion('kind', [
    z.object({ kind: z.enum(['manual', 'none', 'program']) }),
    z.object({ kind: z.literal('all-or-nothing'), points: number, ordered: bool }),
    z.object({
      kind: z.literal('per-choice'),
      unit: z.enum(['choice', 'pair', 'area']),
      values: z.record(text, number),
      otherwise: number,
      lower: number.nullable(),
      upper: number.nullable(),
    }),
    z.object({
      kind: z.literal('accepted-answers'),
      answers: z.array(z.object({ text, points: number, caseSensitive: bool })),
    }),
    z.object({
      kind: z.literal('numeric'),
      points: number,
      value: number,
      stated: bool,
      tolerance: tolerance.nullable(),
    }),
    z.object({ kind: z.literal('pattern'), points: number, patterns: texts, substrings: texts }),
    z.object({
      kind: z.literal('sum-of-parts'),
      parts: z.array(z.object({ responseId: text, shape: Shape })),
    }),
  ]),
);
const scoring = z.object({ shape: Shape, points: number, names: z.record(text, text) });

const SAID: { readonly [F in Facet]: z.ZodType<SaidOf[F]> } = {
  title: text,
  category: text,
  wording: text,
  instructions: text,
  mathematics: texts,
  kind: z.array(z.object({ kind: text, single: bool.nullable() })),
  choices: z.array(z.union([z.object({ texts }), z.object({ areas: texts }), Span.extend({ step: number })])),
  'choice-order': z.array(texts),
  shuffle: z.array(
    z.discriminatedUnion('of', [
      z.object({ of: z.literal('choices'), shuffled: bool, pinned: texts }),
      z.object({ of: z.literal('section'), shuffled: bool }),
    ]),
  ),
  key: texts,
  points: z.object({ points: number.nullable(), percentage: bool }),
  scoring,
  tolerance: scoring,
  'case-sensitivity': scoring,
  feedback: texts,
  files: z.union([
    z.object({ files: z.array(z.object({ path: text, present: bool, changed: bool.optional() })) }),
    z.object({ alternatives: texts }),
    z.object({ companions: texts }),
  ]),
  attempts: z.union([number, z.literal('unlimited')]).nullable(),
  'time-limit': number.nullable(),
  'pass-mark': number.nullable(),
  dates: z.object({ opens: text.nullable(), closes: text.nullable() }),
  sections: texts,
  draw: z.array(z.object({ pick: number, of: number, pointsEach: number.nullable(), withReplacement: bool })),
  membership: z.union([
    z.object({ items: number, only: texts }),
    z.object({ placed: z.array(z.object({ item: text, section: text })) }),
    z.object({ order: texts }),
    z.object({ worth: z.array(z.object({ item: text, points: number })) }),
  ]),
  criteria: z.union([
    z.object({
      criteria: z.array(z.object({ title: text, description: text, weight: number.nullable() })),
    }),
    z.object({ freeComments: bool }),
  ]),
  levels: z.array(
    z.object({
      criterion: text,
      levels: z.array(z.object({ title: text, points: Span.nullable(), description: text, feedback: text })),
    }),
  ),
};

const quoted: z.ZodType<Quoted> = z.object({ words: text });
export const ExampleShape = z.object({
  response: z.record(text, z.array(z.union([text, number, bool]))),
  answer: texts.optional(),
  from: number,
  to: number,
});

const differenceOf = (facet: Facet) =>
  z.object({
    facet: z.literal(facet),
    from: z.union([quoted, SAID[facet]]),
    to: z.union([quoted, SAID[facet]]),
    example: ExampleShape.nullable(),
  });
type Options<T> = readonly [T, ...T[]];
const FACETS = Object.keys(SAID) as unknown as Options<Facet>;
/** Each facet with its own sides; that they belong together is more than the union's type says. */
export const DifferenceShape = z.discriminatedUnion(
  'facet',
  FACETS.map(differenceOf) as unknown as Options<ReturnType<typeof differenceOf>>,
) as unknown as z.ZodType<Difference>;

const section = text.nullable();
const TROUBLE_SAID: { readonly [K in TroubleKind]: z.ZodType<TroubleSaidOf[K]> } = {
  section: z.object({ section }),
  name: z.object({ title: text }),
  visibility: z.object({ hidden: bool }),
  review: z.object({ review: text.nullable() }),
  copy: z.object({ copies: number, section }),
  extra: z.object({ there: bool, section }),
  'not-there': z.object({ there: bool, title: text }),
  attachment: z.object({ to: texts }),
  locked: z.object({ locked: bool }),
};

const troubleOf = (trouble: TroubleKind) =>
  z.object({
    trouble: z.literal(trouble),
    kind: z.enum(THING_KINDS),
    node: text.nullable(),
    thing: text.nullable(),
    name: text,
    planned: z.union([quoted, TROUBLE_SAID[trouble]]),
    found: z.union([quoted, TROUBLE_SAID[trouble]]),
  });
const TROUBLE_KINDS = Object.keys(TROUBLE_SAID) as unknown as Options<TroubleKind>;
export const TroubleShape = z.discriminatedUnion(
  'trouble',
  TROUBLE_KINDS.map(troubleOf) as unknown as Options<ReturnType<typeof troubleOf>>,
) as unknown as z.ZodType<Trouble>;
