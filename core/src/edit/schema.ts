import { z } from 'zod';
import { MAX_REPLICAS } from '../families/limits.ts';
import { HAND_ROLES } from '../layout/hand.ts';
import { Layout } from '../layout/layout.ts';
import { NEAREST, type Replaceable } from './nearestKinds.ts';

/**
 * An edit: an operation, the node it is about, and what is wanted. `was` is what stood there when the edit was
 * made; where it is given and something else stands there, the edit is not applied.
 */

/** Longer texts are refused: nobody reads them, and every later step would have to carry them. */
export const MAX_TEXT = 100_000;
/** More edits than this are no list that somebody made. */
export const MAX_EDITS = 200_000;

const id = z.string().min(1).max(2000);
const scalar = z.union([z.string(), z.number(), z.boolean()]);
const finite = z.number().refine(Number.isFinite, 'is no number');
const was = { was: z.json().optional() };

/** Kinds of things that go by an id of their own. */
export const NODE_KINDS_EDITED = ['item', 'quiz', 'bank', 'rubric', 'link'] as const;
export type EditedKind = (typeof NODE_KINDS_EDITED)[number];
const kind = z.enum(NODE_KINDS_EDITED).optional();

/** ISO 8601 with zone. */
const moment = z
  .string()
  .regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d(?::\d\d(?:\.\d+)?)?(?:Z|[+-]\d\d:\d\d)$/u, 'is no moment with a zone')
  .refine((text) => Number.isFinite(Date.parse(text)), 'is no moment');

export const SettingsEdit = z
  .object({
    attempts: z.union([z.number().int().positive(), z.literal('unlimited'), z.null()]),
    timeLimitMinutes: z.union([finite.positive(), z.null()]),
    passMark: z.union([finite.nonnegative(), z.null()]),
    shuffleItems: z.boolean(),
    shuffleChoices: z.boolean(),
    opens: z.union([moment, z.null()]),
    closes: z.union([moment, z.null()]),
    instructions: z.union([z.string(), z.null()]),
  })
  .partial()
  .strict();
export type SettingsEdit = z.infer<typeof SettingsEdit>;

const section = z.union([z.string(), z.number().int().nonnegative()]);

const OPERATIONS = [
  z.object({ op: z.literal('title'), node: id, to: z.string(), kind, ...was }),
  z.object({ op: z.literal('stem'), node: id, to: z.string(), ...was }),
  z.object({ op: z.literal('choice-text'), node: id, choice: id, to: z.string(), ...was }),
  z.object({ op: z.literal('choice-fixed'), node: id, choice: id, to: z.boolean(), ...was }),
  z.object({
    op: z.literal('choice-add'),
    node: id,
    choice: id,
    to: z.string(),
    after: z.union([id, z.null()]),
    response: id.optional(),
    ...was,
  }),
  z.object({ op: z.literal('choice-drop'), node: id, choice: id, ...was }),
  z.object({
    op: z.literal('choice-order'),
    node: id,
    to: z.array(id).min(1).max(1000),
    response: id.optional(),
    ...was,
  }),
  z.object({
    op: z.literal('shuffle'),
    node: id,
    to: z.boolean(),
    response: id.optional(),
    ...was,
  }),
  z.object({
    op: z.literal('answers'),
    node: id,
    to: z.enum(['one', 'several']),
    response: id.optional(),
    ...was,
  }),
  z.object({
    op: z.literal('key'),
    node: id,
    to: z.array(scalar).max(1000),
    response: id.optional(),
    replace: z.boolean().optional(),
    ...was,
  }),
  z.object({
    op: z.literal('accept'),
    node: id,
    to: z
      .array(z.object({ text: z.string(), points: finite.optional(), caseSensitive: z.boolean().optional() }))
      .max(1000),
    response: id.optional(),
    replace: z.boolean().optional(),
    ...was,
  }),
  z.object({
    op: z.literal('tolerance'),
    node: id,
    to: z.union([
      z.null(),
      z.object({
        mode: z.enum(['absolute', 'relative', 'range']),
        low: finite,
        high: finite,
        includesLow: z.boolean().optional(),
        includesHigh: z.boolean().optional(),
      }),
    ]),
    response: id.optional(),
    ...was,
  }),
  z.object({ op: z.literal('case'), node: id, to: z.boolean(), response: id.optional(), ...was }),
  z.object({ op: z.literal('points'), node: id, to: finite, ...was }),
  z.object({
    op: z.literal('content'),
    node: id,
    at: z.enum(['body', 'prompt', 'text', 'choice', 'feedback']),
    choice: id.optional(),
    response: id.optional(),
    on: id.optional(),
    to: z.string(),
    ...was,
  }),
  z.object({ op: z.literal('category'), node: id, to: z.union([z.string(), z.null()]), ...was }),
  z.object({
    op: z.literal('feedback'),
    node: id,
    on: id,
    to: z.union([z.string(), z.null()]),
    ...was,
  }),
  z.object({ op: z.literal('alt'), node: id, path: id, to: z.string(), ...was }),
  z.object({ op: z.literal('file-drop'), node: id, path: id, ...was }),
  z.object({
    op: z.literal('file-put'),
    node: id.optional(),
    path: id,
    to: z.object({
      base64: z.base64(),
      sha256: z.string().regex(/^[0-9a-f]{64}$/u),
      bytes: z.number().int().positive(),
    }),
    ...was,
  }),
  z.object({ op: z.literal('file-name'), node: id.optional(), path: id, to: id, ...was }),
  z.object({
    op: z.literal('kind'),
    node: id,
    from: z.enum(Object.keys(NEAREST) as [Replaceable, ...Replaceable[]]),
    to: z.enum(['choice', 'textEntry', 'order', 'match', 'associate', 'gapMatch', 'extendedText', 'text']),
    ...was,
  }),
  z.object({ op: z.literal('passage-in'), node: id, ...was }),
  z.object({ op: z.literal('parameters-fix'), node: id, seed: z.number().int().nonnegative(), ...was }),
  z.object({
    op: z.literal('replicas'),
    node: id,
    count: z.number().int().positive().max(MAX_REPLICAS),
    seed: z.string().max(200),
    ...was,
  }),
  z.object({
    op: z.literal('scoring'),
    node: id,
    to: z.enum(['all-or-nothing', 'accepted-answers']),
    ...was,
  }),
  z.object({ op: z.literal('separate'), node: id, replace: z.boolean().optional(), ...was }),
  z.object({ op: z.literal('feedback-plain'), node: id, hints: z.boolean().optional(), ...was }),
  z.object({ op: z.literal('leave-out'), node: id, kind, ...was }),
  z.object({ op: z.literal('bring-back'), node: id, kind, ...was }),
  z.object({ op: z.literal('settings'), node: id, to: SettingsEdit, ...was }),
  z.object({
    op: z.literal('draw'),
    node: id,
    section,
    to: z
      .object({
        pick: z.number().int().positive().optional(),
        pointsEach: finite.nonnegative().optional(),
        pool: z.union([id, z.array(id).min(1).max(100_000)]).optional(),
      })
      .strict(),
    ...was,
  }),
  z.object({
    op: z.literal('draw-split'),
    node: id,
    section,
    to: z
      .array(
        z.object({
          title: z.string(),
          pick: z.number().int().positive(),
          pool: z.array(id).min(1).max(100_000),
          pointsEach: finite.nonnegative(),
        }),
      )
      .min(1)
      .max(1000),
    ...was,
  }),
  z.object({ op: z.literal('test-plain'), node: id, ...was }),
  z.object({ op: z.literal('draw-fix'), node: id, section, ...was }),
  z.object({
    op: z.literal('section-add'),
    node: id,
    id,
    to: z.string(),
    after: section.nullable(),
    ...was,
  }),
  z.object({ op: z.literal('section-title'), node: id, section, to: z.string(), ...was }),
  z.object({ op: z.literal('section-drop'), node: id, section, ...was }),
  z.object({ op: z.literal('order'), node: id, section, to: z.array(id).max(100_000), ...was }),
  z.object({
    op: z.literal('place'),
    node: id,
    item: id,
    section,
    at: z.number().int().nonnegative().optional(),
    ...was,
  }),
  z.object({ op: z.literal('weight'), node: id, item: id, to: finite.nonnegative(), ...was }),
  z.object({ op: z.literal('move'), node: id, to: id, ...was }),
  z.object({ op: z.literal('merge'), node: id, to: id, ...was }),
  z.object({
    op: z.literal('split'),
    node: id,
    by: z.union([
      z.enum(['category', 'kind']),
      z.object({ title: z.string().min(1), items: z.array(id).min(1).max(100_000) }),
    ]),
    ...was,
  }),
  z.object({
    op: z.literal('read-as'),
    node: id.optional(),
    path: id.optional(),
    to: z.union([Layout, z.null()]),
    ...was,
  }),
  z.object({
    op: z.literal('block'),
    node: id.optional(),
    path: id,
    block: z.number().int().positive(),
    to: z.union([z.enum(HAND_ROLES), z.null()]),
    ...was,
  }),
] as const;

export const Edit = z.discriminatedUnion('op', OPERATIONS);
export type Edit = z.infer<typeof Edit>;
export type Op = Edit['op'];
/** The edit of one operation. */
export type EditOf<O extends Op> = Extract<Edit, { op: O }>;
/** An ordered list of edits. */
export type Layer = readonly Edit[];
