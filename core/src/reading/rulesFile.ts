import { z } from 'zod';
import { isColumnRole, type ColumnRole } from '../formats/table/roles.ts';
import { KnownLayout } from '../layout/known.ts';
import { ReadingRule } from '../model/readingRule.ts';

/** What was confirmed about a table of rubrics: the role of each column below this header. */
const TableOfRubrics = z.object({
  header: z.array(z.string().max(1000)).max(200),
  roles: z
    .array(z.custom<ColumnRole>((v) => typeof v === 'string' && isColumnRole(v), 'is no role of a column'))
    .max(200),
});

/** Everything that was confirmed about how to read files, as it is exported, imported, and given to the command line. */
export const RulesFile = z.object({
  rules: z.array(ReadingRule).max(1000).default([]),
  /** Of documents and tables of questions. */
  layouts: z.array(KnownLayout).max(1000).default([]),
  /** Of tables of rubrics. */
  tables: z.array(TableOfRubrics).max(1000).default([]),
});
export type RulesFile = z.infer<typeof RulesFile>;
