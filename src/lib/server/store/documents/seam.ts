import { z } from 'zod';
import { STATES, type SeamRow } from '@alforja/core';
import { codec } from '../codec.ts';
import { PouchRowShape } from './nodes.ts';
import { DifferenceShape } from './said.ts';

/** One row of both sides of a comparison. */
export const seamRowCodec = codec<SeamRow>(
  'row of a comparison',
  z.object({
    key: z.string(),
    state: z.enum(STATES),
    left: PouchRowShape.nullable(),
    right: PouchRowShape.nullable(),
    differences: z.array(DifferenceShape),
    purpose: z.array(DifferenceShape),
  }),
);
