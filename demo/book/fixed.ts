import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';

/** Before this nothing was written: the earliest moment an archive can name. */
const NO_TIME = new Date(1980, 0, 1);
const MOMENT = /\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d+)?Z/gu;

/** An office file without the moment it was made at: the same content is the same bytes, whenever it is written. */
export function fixed(bytes: Uint8Array): Uint8Array {
  const entries: Zippable = {};
  for (const [path, content] of Object.entries(unzipSync(bytes)))
    entries[path] = /^docProps\/.*\.xml$/u.test(path)
      ? strToU8(strFromU8(content).replaceAll(MOMENT, '1980-01-01T00:00:00Z'))
      : content;
  return zipSync(entries, { mtime: NO_TIME });
}
