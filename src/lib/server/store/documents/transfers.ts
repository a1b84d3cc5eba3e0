import { z } from 'zod';
import {
  Edit,
  SETTING_NAMES,
  TARGETS,
  type LandingOverride,
  type SettingsChoice,
  type Tally,
} from '@alforja/core';
import { STEPS } from '../../../shared/stages.ts';
import type {
  Arrival,
  Decision,
  Overrides,
  Plan,
  RecordEntry,
  Sending,
  Sent,
  TransferOptions,
} from '../../../shared/transfers.ts';
import { codec } from '../codec.ts';
import {
  ComparisonShape,
  CountsShape,
  FindingShape,
  LandingShape,
  PouchRowShape,
  OutlineShape,
  RubricShape,
  SentQuizShape,
  StateShape,
  TickShape,
  VerdictShape,
} from './nodes.ts';
import { DifferenceShape, ExampleShape, TroubleShape } from './said.ts';

const strings = z.array(z.string());
/** A document of an older version: what it holds is known, what it is worth is not. */
type Old = Record<string, unknown>;
const object = (old: unknown): Old => old as Old;
const objects = (old: unknown): readonly Old[] => old as readonly Old[];
const inner = (old: Old, name: string): Old | null => (old[name] as Old | null | undefined) ?? null;

export const optionsShape: z.ZodType<TransferOptions> = z.object({
  settings: z.record(z.enum(SETTING_NAMES), z.boolean()) as z.ZodType<SettingsChoice>,
  byPosition: z.boolean(),
  onVersion: z.enum(['replace', 'keep', 'skip']),
});
export const optionsCodec = codec('choice of settings', optionsShape);

const date = z.string().nullable();
const Override: z.ZodType<LandingOverride> = z
  .object({
    name: z.string(),
    section: z.string().nullable(),
    action: z.enum(['add', 'skip', 'replace', 'keep']),
    hidden: z.boolean(),
    opens: date,
    closes: date,
    attach: strings,
  })
  .partial();
export const overridesCodec = codec<Overrides>('set of changes by hand', z.record(z.string(), Override));

const PlanShape: z.ZodType<Plan> = z.object({
  basis: z.string(),
  landings: z.array(LandingShape),
  target: z.enum(TARGETS),
  findings: z.array(FindingShape),
  repairs: z.array(
    z.object({
      at: z.number(),
      edits: z.array(Edit),
      scores: z.object({ example: ExampleShape.nullable() }).nullable(),
    }),
  ),
  losses: z.array(z.object({ target: z.enum(TARGETS), losses: z.number() })),
  troubles: strings,
});
/**
 * 2: the format and what it loses are part of the plan; one without them is made again. 3: how much other
 * formats lose. 4: what would avoid a loss.
 */
export const planCodec = codec('plan', PlanShape, [
  (old) => {
    const { key: _, ...rest } = object(old);
    return { ...rest, basis: 'made by an older version', target: 'qti2.1', findings: [] };
  },
  (old) => ({ ...object(old), losses: [] }),
  (old) => ({ ...object(old), repairs: [] }),
]);

const Step = z.object({
  name: z.enum(STEPS),
  state: z.enum(['waiting', 'running', 'done', 'failed', 'passed']),
  startedAt: z.number().nullable(),
  endedAt: z.number().nullable(),
  says: z.string(),
});
const TakenBackShape = z.object({ at: z.number(), by: z.string(), removed: strings, refused: strings });
const SendingShape: z.ZodType<Sending> = z.object({
  id: z.string(),
  by: z.string(),
  only: z.union([z.object({ landings: strings }), z.object({ ticks: z.array(TickShape) })]).nullable(),
  startedAt: z.number(),
  endedAt: z.number().nullable(),
  steps: z.array(Step),
  imports: z.array(z.object({ part: z.number(), job: z.string() })),
  unseen: strings,
  created: strings,
  attached: z.array(z.object({ thing: z.string(), before: strings })),
  setAside: z.array(z.object({ thing: z.string(), title: z.string(), hidden: z.boolean() })),
  notes: strings,
  failure: z.object({ reason: z.enum(['section-count', 'stopped', 'other']), detail: z.string() }).nullable(),
  sectionsAs: z.enum(['source', 'destination']),
  undone: TakenBackShape.nullable(),
  checkedBy: z.string().nullable(),
});
/**
 * 2: what it is about and why it failed are data; attachments are always listed.
 * 3: a check leaves what was sent as it stood; whoever took it back is named.
 */
export const sendingCodec = codec('record of a sending', SendingShape, [
  (old) => {
    const before = object(old);
    return {
      attached: [],
      unseen: [],
      ...before,
      only: before['only'] ? { landings: before['only'] } : null,
      failure: before['failure'] ? { reason: 'other', detail: before['failure'] } : null,
    };
  },
  (old) => {
    const before = object(old);
    const undone = inner(before, 'undone');
    return { ...before, undone: undone && { by: before['by'], ...undone }, checkedBy: null };
  },
]);

const Part = z.object({ sha256: z.string(), bytes: z.number(), name: z.string() });
const SentShape: z.ZodType<Sent> = z.object({
  parts: z.array(Part),
  items: z.number(),
  points: z.number(),
  findings: z.array(FindingShape),
  target: z.enum(TARGETS),
  ticks: z.array(TickShape),
  layer: z.array(Edit),
  quizzes: z.array(SentQuizShape).nullable(),
  again: z.array(z.object({ at: z.number(), parts: z.array(Part) })),
});
/** 2: the files are one list, empty where nothing had to be written. 3: what was put right before. */
export const sentCodec = codec('record of what was sent', SentShape, [
  (old) => {
    const { sha256, bytes, name, more, ...rest } = object(old);
    const later = (more as unknown[] | undefined) ?? [];
    return { ...rest, parts: sha256 === '' ? later : [{ sha256, bytes, name }, ...later], again: [] };
  },
  (old) => ({ layer: [], quizzes: null, ...object(old) }),
]);

const Totals = z.object({
  items: z.number(),
  points: z.number(),
  quizzes: z.number(),
  banks: z.number(),
  draws: z.number(),
  files: z.number(),
  rubrics: z.number(),
});
const ArrivalShape: z.ZodType<Arrival> = z.object({
  comparison: ComparisonShape,
  onPurpose: z.array(
    z.object({
      kind: z.enum(['item', 'quiz', 'bank', 'rubric']),
      node: z.string(),
      name: z.string(),
      difference: DifferenceShape,
    }),
  ),
  left: z.array(PouchRowShape),
  right: z.array(PouchRowShape),
  names: z.record(z.string(), z.string()),
  totals: z.object({ left: Totals, right: Totals }),
  rubrics: z.array(
    z.object({ state: StateShape, planned: RubricShape.nullable(), arrived: RubricShape.nullable() }),
  ),
  sentSha256: z.string(),
  arrivedSha256: z.string(),
  landing: z
    .object({
      troubles: z.array(TroubleShape),
      landed: z.record(z.string(), z.string()),
      attachments: z.record(z.string(), strings),
      outline: OutlineShape,
    })
    .nullable(),
  notes: strings,
});
/**
 * 2: names and notes belong to every arrival; rubrics and attachments are always listed.
 * 3: both sides of what differs are data; what was said in words alone is quoted.
 * 4: what was changed on purpose.
 */
export const arrivalCodec = codec('comparison with what arrived', ArrivalShape, [
  (old) => {
    const before = object(old);
    const landing = inner(before, 'landing');
    const totals = inner(before, 'totals') ?? {};
    return {
      rubrics: [],
      ...before,
      totals: {
        left: { rubrics: 0, ...inner(totals, 'left') },
        right: { rubrics: 0, ...inner(totals, 'right') },
      },
      landing: landing && { attachments: {}, ...landing },
      names: landing?.['names'] ?? {},
      notes: landing?.['notes'] ?? [],
    };
  },
  (old) => {
    const before = object(old);
    const comparison = object(before['comparison']);
    const landing = inner(before, 'landing');
    const differing = (of: unknown): unknown => {
      const { differences, ...rest } = object(of);
      return { ...rest, differences: objects(differences).map((d) => quoting(d, 'from', 'to')) };
    };
    return {
      ...before,
      comparison: {
        ...comparison,
        pairs: objects(comparison['pairs']).map(differing),
        containers: objects(comparison['containers']).map(differing),
      },
      landing: landing && {
        ...landing,
        troubles: objects(landing['troubles']).map((t) => quoting(t, 'planned', 'found')),
      },
    };
  },
  (old) => ({ onPurpose: [], ...object(old) }),
]);

const quoting = (of: Record<string, unknown>, ...sides: readonly string[]): Record<string, unknown> => ({
  ...of,
  ...Object.fromEntries(sides.map((side) => [side, { words: of[side] }])),
});

/** One made before accepted differences were counted has none of them. */
const TallyShape = z.object({
  verdict: VerdictShape,
  counts: CountsShape,
  open: z.number(),
  accepted: z.number().default(0),
});
export const tallyCodec = codec<Tally>('tally of an arrival', TallyShape);

const act = { at: z.number(), by: z.string() };
const Entry: z.ZodType<RecordEntry> = z.discriminatedUnion('act', [
  z.object({
    ...act,
    act: z.literal('sent'),
    part: z.boolean(),
    steps: z.array(Step),
    failure: z.string().nullable(),
  }),
  z.object({ ...act, act: z.literal('checked'), tally: TallyShape }),
  z.object({ ...act, act: z.literal('mended'), mended: strings, things: strings, undoes: strings }),
  z.object({ ...act, act: z.literal('taken-back'), removed: strings, refused: strings }),
]);
export const recordCodec = codec<readonly RecordEntry[]>('record of a transfer', z.array(Entry));

export const decisionsCodec = codec<readonly Decision[]>(
  'list of decisions',
  z.array(z.object({ key: z.string(), reason: z.string(), by: z.string(), at: z.number() })),
);
