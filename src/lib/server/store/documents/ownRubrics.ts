import { z } from 'zod';
import { isColumnRole, type ColumnRole, type Rubric } from '@alforja/core';
import { codec } from '../codec.ts';
import { RubricShape } from './nodes.ts';

export const rubricCodec = codec<Rubric>('rubric', RubricShape);

export const rolesCodec = codec<readonly ColumnRole[]>(
  'reading of columns',
  z.array(z.custom<ColumnRole>((v) => typeof v === 'string' && isColumnRole(v))),
);
