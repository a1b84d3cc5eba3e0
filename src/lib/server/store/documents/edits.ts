import { z } from 'zod';
import { Edit, NODE_KINDS_EDITED, type Refused } from '@alforja/core';
import type { LeftOut, PutRight } from '../../../shared/edits.ts';
import { codec } from '../codec.ts';

/** The edits of one step. */
export const editsCodec = codec<readonly Edit[]>('list of edits', z.array(Edit));

/** An edit of a step that was not applied, and why. */
export interface StepRefusal {
  /** Its place in the step, from 0. */
  readonly at: number;
  readonly why: Refused;
}

/** An edit by its step, and its place in that. */
export interface EditRef {
  readonly step: string;
  readonly at: number;
}
export const takesBackCodec = codec<readonly EditRef[]>(
  'list of edits taken back',
  z.array(z.object({ step: z.string(), at: z.number() })),
);

const RefusedShape = z.object({
  refused: z.string(),
  params: z.record(z.string(), z.union([z.string(), z.number()])),
}) as unknown as z.ZodType<Refused>;
export const refusalsCodec = codec<readonly StepRefusal[]>(
  'list of refused edits',
  z.array(z.object({ at: z.number(), why: RefusedShape })),
);

const ref = { kind: z.enum(NODE_KINDS_EDITED), id: z.string() };
const StepIds = z.array(z.string());
const LeftOutShape: z.ZodType<readonly LeftOut[]> = z.array(z.object({ ...ref, title: z.string() }));
export const putRightCodec = codec<PutRight>(
  'summary of edits',
  z.object({
    repairs: z.array(z.object({ at: z.number(), edits: z.array(Edit) })),
    leftOut: LeftOutShape,
    edited: z.array(z.object(ref)),
    refused: z.number(),
    steps: StepIds,
  }),
);
/** Parts of it that are read by themselves. */
export const stepIdsCodec = codec<readonly string[]>('list of steps', StepIds);
export const leftOutCodec = codec<readonly LeftOut[]>('list of what was left out', LeftOutShape);
