import { z } from 'zod';
import type { PackageSummary } from '../../../shared/types.ts';
import { codec } from '../codec.ts';
import { FindingShape, FormatShape, ItemShape, TreeShape } from './nodes.ts';

const object = (old: unknown): Record<string, unknown> => old as Record<string, unknown>;

/** 2: rubrics are read. */
export const treeCodec = codec('tree of a package', TreeShape, [(old) => ({ rubrics: [], ...object(old) })]);

export const itemCodec = codec('item', ItemShape);

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
});
/** 2: rubrics are counted, and what packages of one origin have in common is told. */
export const summaryCodec = codec('summary of a package', Summary, [
  (old) => ({ rubrics: 0, origin: 'standard fields only', ...object(old) }),
]);

/** 2: a code has another name. */
export const findingCodec = codec('finding', FindingShape, [
  (old) => (object(old)['code'] === 'carry-failed' ? { ...object(old), code: 'sending-failed' } : old),
]);
