import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';

/** Before this nothing was written: the earliest moment an archive can name. */
const NO_TIME = new Date(1980, 0, 1);
const MOMENT = /\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d+)?Z/gu;
/** Pictures are counted over all documents that one program writes. */
const PICTURE = /(?<=<(?:wp:docPr|pic:cNvPr) id=")\d+/gu;

/** An office file without the moment it was made at: the same content is the same bytes, whenever it is written. */
export function fixed(bytes: Uint8Array): Uint8Array {
  const entries: Zippable = {};
  for (const [path, content] of Object.entries(unzipSync(bytes)))
    entries[path] = withoutMoment(path, content);
  return zipSync(entries, { mtime: NO_TIME });
}

function withoutMoment(path: string, content: Uint8Array): Uint8Array {
  if (/^docProps\/.*\.xml$/u.test(path))
    return strToU8(strFromU8(content).replaceAll(MOMENT, '1980-01-01T00:00:00Z'));
  if (path !== 'word/document.xml') return content;
  let pictures = 0;
  return strToU8(strFromU8(content).replaceAll(PICTURE, () => String((pictures += 1))));
}
