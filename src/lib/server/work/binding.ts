import { finding, Refusal } from '@alforja/core';
import { zipSync, type Zippable } from 'fflate';
import { readStored } from '../store/files.ts';

/** Files of the store that are to be one, with the names they go by. */
export interface BindAsked {
  readonly files: readonly { readonly name: string; readonly sha256: string }[];
  /** The most bytes that are taken. */
  readonly limit: number;
}

/** The same files make the same bytes: no entry says when it was put in. */
const NO_TIME = new Date(1980, 0, 1);

/** Files as one archive, each as it came. @throws Refusal where they are too large together */
export async function bindTask({ files, limit }: BindAsked): Promise<Uint8Array> {
  const entries: Zippable = {};
  let size = 0;
  for (const { name, sha256 } of files) {
    const bytes = await readStored(sha256);
    size += bytes.length;
    if (size > limit)
      throw new Refusal(finding('upload-too-large', 'error', {}, { limit: limit / 1024 / 1024 }));
    entries[freeName(name, entries)] = [bytes, { level: 0, mtime: NO_TIME }];
  }
  return zipSync(entries);
}

function freeName(name: string, taken: Zippable): string {
  const [, stem = name, ending = ''] = /^(.*?)(\.[^.]*)?$/u.exec(name) ?? [];
  for (let n = 1; ; n++) {
    const free = n === 1 ? name : `${stem} (${n})${ending}`;
    if (!Object.hasOwn(taken, free)) return free;
  }
}
