import { z } from 'zod';

/**
 * A quiz or a bank that is being made, as a document: which items of which places stand in it, and what is wanted of
 * them. The items themselves stay where they are until it is set down.
 */

const id = z.string().min(1).max(2000);
const text = z.string().max(20_000);
const points = z.number().finite().nonnegative().max(100_000);

/** An item by the place it comes from (a package, a course as last looked into, a bank of one's own) and its id there. */
export const ItemAt = z.object({ place: id, item: id });
export type ItemAt = z.infer<typeof ItemAt>;

/** What a list of items is narrowed to; all of it has to hold. */
export const ItemFilter = z.object({
  /** Kinds of question; all where none is named. */
  kinds: z.array(z.string().max(40)).max(100).default([]),
  /** Categories; the empty text is those without one. All where none is named. */
  categories: z.array(z.string().max(2000)).max(5000).default([]),
  /** Worth exactly so much by themselves. */
  points: points.nullable().default(null),
  /** Whether a quiz sets or draws it already. */
  used: z.boolean().nullable().default(null),
  /** Whether it shows a picture or another file. */
  picture: z.boolean().nullable().default(null),
  /** Words that all stand in its title, its text or its category; accents and capitals aside. */
  words: z.string().max(500).default(''),
});
export type ItemFilter = z.infer<typeof ItemFilter>;
export const NO_FILTER: ItemFilter = {
  kinds: [],
  categories: [],
  points: null,
  used: null,
  picture: null,
  words: '',
};

/** A bank of a place; null is every item there. */
export const BankAt = z.object({ place: id, bank: id.nullable() });
export type BankAt = z.infer<typeof BankAt>;

/** What a draw chooses from: what a bank holds under a filter, without some, and items named one by one. */
export const Pool = z.object({
  from: z.array(BankAt.extend({ filter: ItemFilter })).max(100),
  named: z.array(ItemAt).max(5000),
  without: z.array(ItemAt).max(5000),
});
export type Pool = z.infer<typeof Pool>;

/** An item that everybody is set. Its key is its id in what is made. */
export const FixedItem = ItemAt.extend({
  key: id,
  /** What it is worth here; null: what it is worth by itself. */
  points: points.nullable(),
});
export type FixedItem = z.infer<typeof FixedItem>;

export const DraftDraw = z.object({
  pick: z.number().int().nonnegative().max(100_000),
  /** Null: each is worth what it is worth by itself. */
  pointsEach: points.nullable(),
  pool: Pool,
});
export type DraftDraw = z.infer<typeof DraftDraw>;

export const DraftSection = z.object({
  id,
  title: text,
  instructions: text,
  /** Whether its items come in another order for each candidate. */
  shuffle: z.boolean(),
  items: z.array(FixedItem).max(5000),
  draw: DraftDraw.nullable(),
});
export type DraftSection = z.infer<typeof DraftSection>;

export const DraftSettings = z.object({
  instructions: text,
  timeLimitMinutes: z.number().positive().max(100_000).nullable(),
  attempts: z.union([z.number().int().positive().max(1000), z.literal('unlimited')]).nullable(),
  passMark: points.nullable(),
});
export type DraftSettings = z.infer<typeof DraftSettings>;

/** One cell of a plan: so many of a category and a kind, worth so much each. */
export const PlanCell = z.object({
  /** The empty text is those without one. */
  category: z.string().max(2000),
  kind: z.string().max(40),
  count: z.number().int().nonnegative().max(100_000),
  points,
});
export type PlanCell = z.infer<typeof PlanCell>;

/** What the quiz is to come to, by category and kind, out of which banks. */
export const Plan = z.object({ from: z.array(BankAt).max(100), cells: z.array(PlanCell).max(5000) });
export type Plan = z.infer<typeof Plan>;

/** The most items that what is made here can hold, pools and all: more could be written, and not be read back in time. */
export const MAX_MADE = 10_000;

/** The most sections a quiz that is made here can have. */
export const MAX_SECTIONS = 500;

export const QuizDraft = z.object({
  kind: z.literal('quiz'),
  title: text,
  settings: DraftSettings,
  sections: z.array(DraftSection).max(MAX_SECTIONS),
  plan: Plan,
  /** What is otherwise in its items than in those they come from: edits, as they stand over packages. */
  edits: z.array(z.looseObject({ op: z.string(), node: z.string().optional() })).max(20_000),
});
export type QuizDraft = z.infer<typeof QuizDraft>;

/** A bank of one's own: items of any source. */
export const BankDraft = z.object({
  kind: z.literal('bank'),
  title: text,
  items: z.array(FixedItem).max(20_000),
});
export type BankDraft = z.infer<typeof BankDraft>;

export const Draft = z.discriminatedUnion('kind', [QuizDraft, BankDraft]);
export type Draft = z.infer<typeof Draft>;

export const newSection = (sectionId: string, title = ''): DraftSection => ({
  id: sectionId,
  title,
  instructions: '',
  shuffle: false,
  items: [],
  draw: null,
});

export const newQuiz = (title: string): QuizDraft => ({
  kind: 'quiz',
  title,
  settings: { instructions: '', timeLimitMinutes: null, attempts: 1, passMark: null },
  sections: [newSection('section-1')],
  plan: { from: [], cells: [] },
  edits: [],
});

export const newBank = (title: string): BankDraft => ({ kind: 'bank', title, items: [] });

export const sameItem = (a: ItemAt, b: ItemAt): boolean => a.place === b.place && a.item === b.item;

/** A text that tells an item of a place from all others. */
export const itemKey = ({ place, item }: ItemAt): string => `${place}\u0001${item}`;

/** Every item that is named one by one, in order. */
export const namedItems = (draft: Draft): FixedItem[] =>
  draft.kind === 'bank' ? draft.items : draft.sections.flatMap((s) => s.items);

/** An id that is taken by none, made of a word and a number. */
export function freeId(word: string, taken: ReadonlySet<string>): string {
  for (let n = taken.size + 1; ; n++) if (!taken.has(`${word}-${n}`)) return `${word}-${n}`;
}
