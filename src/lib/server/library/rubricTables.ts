import { z } from 'zod';
import { isColumnRole, type ColumnRole } from '@alforja/core';
import type { TableReading } from '../../shared/types.ts';
import { write } from '../store/database.ts';
import { keepRubricLayout } from '../store/knownLayouts.ts';
import { MOST_ROWS, type FileTable, type RubricTableAsked } from '../work/rubricTables.ts';
import { worked } from './worked.ts';

/** A table cannot be shown, in words for people. */
export class TableTrouble extends Error {}

/** A table somebody has before them, and how its columns are read. */
export const TableOrder = z.object({
  rows: z.array(z.array(z.string().max(50_000)).max(200)).max(MOST_ROWS),
  title: z.string().trim().max(300),
  /** Null where it is yet to be proposed. */
  roles: z.array(z.custom<ColumnRole>((v) => typeof v === 'string' && isColumnRole(v))).nullable(),
  headerRow: z.number().int().min(-1).nullable(),
});

/** Reads a table as it was said to be, or as is proposed. @throws TableTrouble */
export const readTable = (table: RubricTableAsked): Promise<TableReading> =>
  worked('rubricTable', table, TableTrouble);

/** From now on tables with this header are read like this. */
export const rememberLayout = (header: readonly string[], roles: readonly ColumnRole[]): Promise<void> =>
  write((tx) => keepRubricLayout(tx, header, roles));

/** The tables of a file of rubrics that was brought in; none where it holds no tables. @throws TableTrouble */
export const tablesOfPackage = (packageId: string): Promise<readonly FileTable[]> =>
  worked('tables', { packageId }, TableTrouble);
