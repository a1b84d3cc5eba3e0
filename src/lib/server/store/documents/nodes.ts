import { z } from 'zod';
import {
  Layout,
  NODE_KINDS,
  own,
  THING_KINDS,
  type Comparison,
  type CourseOutline,
  type Finding,
  type Item,
  type Landing,
  type Recognised,
  type Rubric,
  type Tick,
  type Tree,
} from '@alforja/core';
import type { SentQuiz } from '../../../shared/transfers.ts';
import { ThingShape } from '../../../shared/courseShapes.ts';
import { DifferenceShape } from './said.ts';

/**
 * Shapes of core's values as they stand in documents. What our own readers and writers made is checked as
 * deep as the application takes it apart; content and programs go through whole.
 */

/** A shape that core's type describes further than the schema does. */
const as = <T>(schema: z.ZodType): z.ZodType<T> => schema as unknown as z.ZodType<T>;

const strings = z.array(z.string());
const record = <T extends z.ZodType>(value: T) => z.record(z.string(), value);

/** Codes of findings that older versions wrote, and what they are called now. */
const RENAMED_CODES: Readonly<Record<string, string>> = { 'maximum-below-points': 'points-unreached' };

export const FindingShape = as<Finding>(
  z.object({
    code: z.string().transform((code) => own(RENAMED_CODES, code) ?? code),
    severity: z.enum(['error', 'warning', 'note']),
    where: z.object({
      path: z.string().nullable(),
      line: z.number().nullable(),
      column: z.number().nullable(),
      node: z.string().nullable(),
    }),
    params: record(z.union([z.string(), z.number()])),
  }),
);

export const TickShape: z.ZodType<Tick> = z.object({ kind: z.enum(NODE_KINDS), nodeId: z.string() });

export const LandingShape: z.ZodType<Landing> = z.object({
  kind: z.enum(THING_KINDS),
  node: z.string(),
  name: z.string(),
  section: z.string().nullable(),
  sectionBy: z.enum(['name', 'similar', 'position', 'hand', 'none', 'outside']),
  existing: z.enum(['same', 'version', 'namesake', 'none']),
  there: z.string().nullable(),
  action: z.enum(['add', 'skip', 'replace', 'keep']),
  hidden: z.boolean(),
  opens: z.string().nullable(),
  closes: z.string().nullable(),
  was: z.object({ opens: z.string().nullable(), closes: z.string().nullable() }).optional(),
  review: z.string().nullable(),
  worth: z.number().nullable().optional(),
  carries: strings.optional(),
  attach: strings.optional(),
  unmet: strings.optional(),
});

const Points = z.object({ low: z.number(), high: z.number() }).nullable();
export const RubricShape = as<Rubric>(
  z.looseObject({
    id: z.string(),
    title: z.string(),
    description: z.string(),
    mode: z.enum(['points', 'percentage', 'unscored']),
    criteria: z.array(
      z.looseObject({
        id: z.string(),
        title: z.string(),
        weight: z.number().nullable(),
        levels: z.array(z.looseObject({ id: z.string(), title: z.string(), points: Points })),
      }),
    ),
    attachedTo: strings,
  }),
);

export const OutlineShape: z.ZodType<CourseOutline> = z.object({
  sections: z.array(z.object({ id: z.string(), name: z.string() })),
  things: z.array(ThingShape),
  assignments: z.array(z.object({ id: z.string(), title: z.string(), points: z.number() })).optional(),
  rubrics: z.array(z.object({ rubric: RubricShape, locked: z.boolean() })).optional(),
});

export const CountsShape = z.object({
  intact: z.number(),
  altered: z.number(),
  missing: z.number(),
  extra: z.number(),
});
const state = z.enum(['intact', 'altered', 'missing', 'extra']);
const Named = z.object({ id: z.string(), title: z.string() });
export const VerdictShape = z.enum(['intact', 'altered', 'incomplete']);
export const ComparisonShape = as<Comparison>(
  z.object({
    verdict: VerdictShape,
    counts: CountsShape,
    pairs: z.array(
      z.object({
        source: z.string(),
        arrived: z.string(),
        state: z.enum(['intact', 'altered']),
        by: z.string(),
        differences: z.array(DifferenceShape),
      }),
    ),
    missing: z.array(Named),
    extra: z.array(Named),
    containers: z.array(
      z.object({
        kind: z.enum(['quiz', 'bank', 'rubric']),
        source: z.string().nullable(),
        arrived: z.string().nullable(),
        state,
        differences: z.array(DifferenceShape),
      }),
    ),
    missingFiles: strings,
    alteredFiles: strings.default([]),
    families: z
      .array(
        z.object({
          id: z.string(),
          title: z.string(),
          items: strings,
          missing: z.number(),
          state: z.enum(['intact', 'reseeded', 'altered']),
          stale: z.array(z.object({ item: z.string(), key: z.string(), expected: z.number().nullable() })),
        }),
      )
      .default([]),
  }),
);
export const StateShape = state;

const path = z.string();
const line = z.number();
const OriginShape = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('xml'), path, line, column: z.number(), xml: z.string() }),
  z.object({ kind: z.literal('line'), path, line }),
  z.object({
    kind: z.literal('block'),
    path,
    block: z.number(),
    page: z.number().nullable(),
    text: z.string(),
  }),
]);

const node = z.looseObject({ id: z.string(), title: z.string() });
export const FormatShape = z.object({
  container: z.enum(['zip', 'xml', 'json', 'csv', 'xlsx', 'docx', 'rtf', 'odt', 'html', 'pdf', 'text']),
  standard: z.enum(['qti', 'common-cartridge', 'case', 'table', 'document', 'text', 'unknown']),
  version: z.string().nullable(),
});
export const TreeShape = as<Tree>(
  z.object({
    source: z.object({ name: z.string(), bytes: z.number(), sha256: z.string() }),
    format: FormatShape,
    title: z.string(),
    quizzes: z.array(
      node.extend({
        settings: z.looseObject({}),
        sections: z.array(z.looseObject({ title: z.string() })),
        origin: OriginShape.nullable(),
      }),
    ),
    banks: z.array(node.extend({ items: strings, origin: OriginShape.nullable() })),
    rubrics: z.array(RubricShape),
    links: z.array(node.extend({ url: z.string() })),
    files: z.array(z.looseObject({ path: z.string(), bytes: z.number(), sha256: z.string() })),
    outline: z.array(node),
    findings: z.array(FindingShape),
    documents: z
      .array(
        z.object({
          path: z.string(),
          layout: Layout,
          by: z.enum(['found', 'said', 'known']),
          looks: strings.nullable(),
          blocks: z.number(),
          unread: z.array(z.object({ from: z.number(), to: z.number(), text: z.string() })),
        }),
      )
      .optional(),
  }),
);

export const SentQuizShape = as<SentQuiz>(node.extend({ settings: z.looseObject({}) }));

const list = z.array(z.looseObject({}));
export const ItemShape = as<Item>(
  node.extend({
    body: list,
    responses: list,
    outcomes: list,
    scoring: z.looseObject({}),
    points: z.number(),
    origin: OriginShape.nullable(),
  }),
);

/** Names in these come from a package: what goes by them goes through whole. */
const named = z.custom<object>(
  (value) => typeof value === 'object' && value !== null && !Array.isArray(value),
);

export const RecognisedShape = as<Recognised>(
  z.object({
    shape: z.looseObject({ kind: z.string() }),
    best: z.object({ answers: named, raw: z.number(), exact: z.boolean() }),
    key: named,
    numbers: named,
  }),
);

/** One side's line of a comparison. */
export const PouchRowShape = z.object({
  id: z.string(),
  n: z.number(),
  name: z.string(),
  kind: z.string(),
  key: z.string(),
  points: z.number(),
});
