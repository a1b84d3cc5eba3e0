import { z } from 'zod';
import {
  columnsFrom,
  fileStem,
  isColumnRole,
  proposeColumns,
  readRubricRows,
  speak,
  type ColumnRole,
  type RolesTrouble,
} from '@alforja/core';
import type { TableReading } from '../../shared/types.ts';
import { write } from '../store/database.ts';
import { keepRubricLayout, listRubricLayouts } from '../store/knownLayouts.ts';
import { packageById } from '../store/packages.ts';
import { worked } from './worked.ts';

/** A table cannot be shown, in words for people. */
export class TableTrouble extends Error {}

const MAX_ROWS = 2000;

/** A table somebody has before them, and how its columns are read. */
export const TableOrder = z.object({
  rows: z.array(z.array(z.string().max(50_000)).max(200)).max(MAX_ROWS),
  title: z.string().trim().max(300),
  /** Null where it is yet to be proposed. */
  roles: z.array(z.custom<ColumnRole>((v) => typeof v === 'string' && isColumnRole(v))).nullable(),
  headerRow: z.number().int().min(-1).nullable(),
});
export type TableOrder = z.infer<typeof TableOrder>;

const TROUBLES: Readonly<Record<RolesTrouble, string>> = {
  'no-criterion': 'Say which column names the criterion.',
  'no-level': 'Say which columns are levels.',
  twice: 'Two columns are said to be the same.',
  mixed:
    'Levels are either columns side by side, or one a row, or named by the header: not several of these.',
};

/** Reads a table as it was said to be, or as is proposed. */
export async function readTable({ rows, title, roles, headerRow }: TableOrder): Promise<TableReading> {
  const proposed =
    roles === null || headerRow === null
      ? proposeColumns(rows, await listRubricLayouts())
      : { roles, headerRow, by: 'hand' as const };
  const columns = columnsFrom(proposed.roles, rows[proposed.headerRow] ?? []);
  if (typeof columns === 'string')
    return { ...proposed, rubrics: [], findings: [], trouble: TROUBLES[columns] };
  const read = readRubricRows(rows, title || 'Rubric', proposed.roles, proposed.headerRow);
  return { ...proposed, rubrics: read.rubrics, findings: read.findings.map(speak), trouble: null };
}

/** From now on tables with this header are read like this. */
export const rememberLayout = (header: readonly string[], roles: readonly ColumnRole[]): Promise<void> =>
  write((tx) => keepRubricLayout(tx, header, roles));

/** A table of a file: the one of a CSV, or a sheet of a workbook. */
interface FileTable {
  readonly name: string;
  readonly sheet: string | null;
  readonly rows: string[][];
  /** Whether nothing says what its columns are. */
  readonly unread: boolean;
}

/** The tables of a file of rubrics that was brought in; none where it holds no tables. */
export async function tablesOfPackage(packageId: string): Promise<FileTable[]> {
  const held = await packageById(packageId);
  const container = held?.tree?.format.container;
  if (!held || (container !== 'csv' && container !== 'xlsx')) return [];
  const { sha256, name: fileName } = held;
  const tables = await worked('tables', { sha256, name: fileName, container }, TableTrouble);
  const unread = new Set(
    held.tree!.findings.filter((f) => f.code === 'rubric-header-missing').map((f) => f.where.path),
  );
  return tables.map(({ name, rows }) => ({
    name: tables.length > 1 && name ? name : fileStem(held.name),
    sheet: name,
    rows: rows.slice(0, MAX_ROWS),
    unread: unread.has(name === null ? held.name : `${held.name}!/${name}`),
  }));
}
