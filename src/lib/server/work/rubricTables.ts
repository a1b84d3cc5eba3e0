import {
  columnsFrom,
  fileStem,
  proposeColumns,
  readRubricRows,
  rubricTables,
  speak,
  type ColumnRole,
  type RolesTrouble,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { TableReading } from '../../shared/types.ts';
import { readStored } from '../store/files.ts';
import { listRubricLayouts } from '../store/knownLayouts.ts';
import { packageById } from '../store/packages.ts';
import type { PackageAsked } from './trees.ts';

/** Tables of rubrics: those of files, and those that somebody has before them. */

/** A table somebody has before them, and how its columns are read; null where that is yet to be proposed. */
export interface RubricTableAsked {
  readonly rows: readonly (readonly string[])[];
  readonly title: string;
  readonly roles: readonly ColumnRole[] | null;
  readonly headerRow: number | null;
}

const TROUBLES: Readonly<Record<RolesTrouble, string>> = {
  'no-criterion': 'Say which column names the criterion.',
  'no-level': 'Say which columns are levels.',
  twice: 'Two columns are said to be the same.',
  mixed:
    'Levels are either columns side by side, or one a row, or named by the header: not several of these.',
};

/** Reads a table as it was said to be, or as is proposed. */
export async function tableTask({ rows, title, roles, headerRow }: RubricTableAsked): Promise<TableReading> {
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

/** A table of a file: the one of a CSV, or a sheet of a workbook. */
export interface FileTable {
  readonly name: string;
  readonly sheet: string | null;
  readonly rows: string[][];
  /** Whether nothing says what its columns are. */
  readonly unread: boolean;
}

/** Rows of a table that somebody looks at. */
export const MOST_ROWS = 2000;

/** The tables of a file of rubrics; none where it holds no tables. */
export async function tablesTask({ packageId }: PackageAsked): Promise<FileTable[]> {
  const held = await packageById(packageId);
  const container = held?.tree?.format.container;
  if (!held?.tree || (container !== 'csv' && container !== 'xlsx')) return [];
  const tables = await rubricTables(held.name, container, await readStored(held.sha256), nodePlatform);
  const unread = new Set(
    held.tree.findings.filter((f) => f.code === 'rubric-header-missing').map((f) => f.where.path),
  );
  return tables.map(({ name, rows }) => ({
    name: tables.length > 1 && name ? name : fileStem(held.name),
    sheet: name,
    rows: rows.slice(0, MOST_ROWS),
    unread: unread.has(name === null ? held.name : `${held.name}!/${name}`),
  }));
}
