import Papa from 'papaparse';
import { cut, oneFile, withEmbedded } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { DataPeep } from '../../shared/types.ts';
import { readStored } from '../store/files.ts';
import { packageById } from '../store/packages.ts';

/** Files of packages, unpacked one at a time. */

export interface FileAsked {
  readonly packageId: string;
  readonly path: string;
}

/** Bytes of a file of a package; null where it has none of that name. */
export async function fileTask({ packageId, path }: FileAsked): Promise<Uint8Array | null> {
  const held = await packageById(packageId);
  const file = held?.tree?.files.find((f) => f.path === path);
  if (!held?.tree || !file) return null;
  if (file.embedded !== undefined) return withEmbedded(held.tree, () => null)(path);
  const bytes = await readStored(held.sha256);
  return oneFile(held.name, bytes, nodePlatform, file.from ?? path);
}

/** What a peep looks at: so many bytes, rows, columns, characters of a cell. */
const [BYTES, ROWS, COLUMNS, CELL] = [64 * 1024, 6, 12, 60];

/** The first rows of a file of data; null where there is no such file. */
export async function peepTask(asked: FileAsked): Promise<DataPeep | null> {
  const bytes = await fileTask(asked);
  if (!bytes) return null;
  const text = new TextDecoder().decode(bytes.subarray(0, BYTES)).replace(/^\uFEFF/u, '');
  const { data } = Papa.parse<string[]>(text, { preview: ROWS, skipEmptyLines: 'greedy' });
  const lines = bytes.reduce((n, byte) => n + (byte === 10 ? 1 : 0), 0);
  return {
    rows: data.map((row) => row.slice(0, COLUMNS).map((cell) => cut(cell, CELL))),
    lines: bytes.length > 0 && bytes.at(-1) !== 10 ? lines + 1 : lines,
    columns: data.reduce((most, row) => Math.max(most, row.length), 0),
    bytes: bytes.length,
  };
}
