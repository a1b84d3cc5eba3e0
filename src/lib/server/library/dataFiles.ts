import Papa from 'papaparse';
import { fileReader, withEmbedded } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { DataPeep } from '../../shared/types.ts';
import { readStored } from '../store/files.ts';
import { packageById } from '../store/packages.ts';

/** Bytes of a file of a package; null where it has none of that name. */
export async function packageFileBytes(packageId: string, path: string): Promise<Uint8Array | null> {
  const held = await packageById(packageId);
  if (!held?.tree?.files.some((f) => f.path === path)) return null;
  const read = withEmbedded(
    held.tree,
    await fileReader(held.name, await readStored(held.sha256), nodePlatform),
  );
  return read(path);
}

/** What a peep looks at: so many bytes, rows, columns, characters of a cell. */
const [BYTES, ROWS, COLUMNS, CELL] = [64 * 1024, 6, 12, 60];

/** The first rows of a file of data; null where there is no such file. */
export async function peepAt(packageId: string, path: string): Promise<DataPeep | null> {
  const bytes = await packageFileBytes(packageId, path);
  if (!bytes) return null;
  const text = new TextDecoder().decode(bytes.subarray(0, BYTES)).replace(/^\uFEFF/u, '');
  const { data } = Papa.parse<string[]>(text, { preview: ROWS, skipEmptyLines: 'greedy' });
  const lines = bytes.reduce((n, byte) => n + (byte === 10 ? 1 : 0), 0);
  return {
    rows: data.map((row) => row.slice(0, COLUMNS).map((cell) => cell.slice(0, CELL))),
    lines: bytes.length > 0 && bytes.at(-1) !== 10 ? lines + 1 : lines,
    columns: Math.max(0, ...data.map((row) => row.length)),
    bytes: bytes.length,
  };
}
