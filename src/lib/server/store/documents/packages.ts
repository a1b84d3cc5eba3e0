import { z } from 'zod';
import type { Item, Recognised } from '@alforja/core';
import type { FamilyListing, FirstRow, PackageSummary } from '../../../shared/types.ts';
import { codec } from '../codec.ts';
import { FindingShape, FormatShape, ItemShape, RecognisedShape, TreeShape } from './nodes.ts';

const object = (old: unknown): Record<string, unknown> => old as Record<string, unknown>;

/** Every origin was of an element of XML once; what had none gave it empty. */
function withKindOfOrigin(node: unknown): unknown {
  const origin = object(node)['origin'];
  if (typeof origin !== 'object' || origin === null || Object.hasOwn(origin, 'kind')) return node;
  const { path, line, xml } = object(origin);
  return {
    ...object(node),
    origin: xml === '' ? { kind: 'line', path, line } : { kind: 'xml', ...origin },
  };
}

const each = (list: unknown): unknown => (Array.isArray(list) ? list.map(withKindOfOrigin) : list);

/** 2: rubrics are read. 3: an origin says of what kind it is. */
export const treeCodec = codec('tree of a package', TreeShape, [
  (old) => ({ rubrics: [], ...object(old) }),
  (old) => {
    const { quizzes, banks, rubrics } = object(old);
    return { ...object(old), quizzes: each(quizzes), banks: each(banks), rubrics: each(rubrics) };
  },
]);

/** 2: an origin says of what kind it is. */
const itemDocument = codec('item', ItemShape, [withKindOfOrigin]);
const recognisedDocument = codec('scoring of an item', RecognisedShape);

/** Two documents, a line each, of which the second may be missing: an item, and what running it came to when it was read. */
export const itemCodec = {
  read: (text: string): Item => itemDocument.read(linesOf(text).item),
  recognised(text: string): Recognised | null {
    const { recognised } = linesOf(text);
    return recognised === '' ? null : recognisedDocument.read(recognised);
  },
  write(item: Item, recognised?: Recognised): string {
    const document = itemDocument.write(item);
    return recognised && isLasting(recognised)
      ? `${document}\n${recognisedDocument.write(recognised)}`
      : document;
  },
};

/** JSON as it is written here has no line breaks of its own. */
function linesOf(text: string): { readonly item: string; readonly recognised: string } {
  const end = text.lastIndexOf('\n');
  return end < 0
    ? { item: text, recognised: '' }
    : { item: text.slice(0, end), recognised: text.slice(end + 1) };
}

/** Whether all was found, and can be said: JSON has no number without end. */
const isLasting = (recognised: Recognised): boolean => !recognised.cut && isFiniteWithin(recognised);

function isFiniteWithin(value: unknown): boolean {
  if (typeof value === 'number') return Number.isFinite(value);
  return typeof value !== 'object' || value === null || Object.values(value).every(isFiniteWithin);
}

/** The files that an item shows. */
export const itemFilesCodec = codec<Item['files']>(
  'list of files of an item',
  z.array(z.looseObject({ path: z.string(), present: z.boolean() })) as unknown as z.ZodType<Item['files']>,
);

const Summary: z.ZodType<PackageSummary> = z.object({
  title: z.string(),
  format: FormatShape,
  items: z.number(),
  points: z.number(),
  quizzes: z.number(),
  banks: z.number(),
  rubrics: z.number(),
  errors: z.number(),
  warnings: z.number(),
  notes: z.number(),
  origin: z.string(),
  looks: z.array(z.array(z.string())).optional(),
});
/** 2: rubrics are counted, and what packages of one origin have in common is told. */
export const summaryCodec = codec('summary of a package', Summary, [
  (old) => ({ rubrics: 0, origin: 'standard fields only', ...object(old) }),
]);

/** Replicas of one exercise, family by family. */
export const familiesCodec = codec<readonly FamilyListing[]>(
  'list of families',
  z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      items: z.array(z.string()),
      varies: z.array(z.enum(['numbers', 'names', 'choices', 'choice-order'])),
    }),
  ),
);

/** The first items of a package that is being read. */
export const firstCodec = codec<readonly FirstRow[]>(
  'list of first items',
  z.array(z.object({ name: z.string(), kind: z.string() })),
);

/** 2: a code has another name. */
export const findingCodec = codec('finding', FindingShape, [
  (old) => (object(old)['code'] === 'carry-failed' ? { ...object(old), code: 'sending-failed' } : old),
]);
