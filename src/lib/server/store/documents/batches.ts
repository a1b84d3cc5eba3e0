import { z } from 'zod';
import { THING_KINDS, type ThingKind } from '@alforja/core';
import type { TransferOptions } from '../../../shared/transfers.ts';
import { codec } from '../codec.ts';
import { optionsShape } from './transfers.ts';

/** What goes and how it lands, for every pair of a batch. */
export interface BatchPlan {
  readonly kinds: readonly ThingKind[];
  readonly options: TransferOptions;
}
export const batchPlanCodec = codec<BatchPlan>(
  'plan of a batch',
  z.object({ kinds: z.array(z.enum(THING_KINDS)), options: optionsShape }),
);

/** What is otherwise for one pair: other kinds; none leaves it out. */
export interface PairException {
  readonly kinds: readonly ThingKind[];
}
export const exceptionCodec = codec<PairException>(
  'exception of a pair',
  z.object({ kinds: z.array(z.enum(THING_KINDS)) }),
);
