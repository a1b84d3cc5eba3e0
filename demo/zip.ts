import { zipSync, strToU8, type Zippable } from 'fflate';

const DATE = new Date(2026, 8, 1);
export type Files = Record<string, string | Uint8Array>;

export function zip(files: Files): Uint8Array {
  const entries: Zippable = {};
  for (const [path, content] of Object.entries(files))
    entries[path] = [typeof content === 'string' ? strToU8(content) : content, { mtime: DATE }];
  return zipSync(entries);
}
