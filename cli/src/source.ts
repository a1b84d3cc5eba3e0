import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { finding, readHolding, Refusal, type Holding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';

/** Reads a file from disk into the tree. @throws Refusal when it cannot be read. */
export async function readSource(
  path: string,
): Promise<{ holding: Holding; bytes: Uint8Array; name: string }> {
  const bytes = await readFile(path).catch((error: NodeJS.ErrnoException) => {
    throw new Refusal(finding('file-unreadable', 'error', { path }, { detail: error.code ?? error.message }));
  });
  const name = basename(path);
  return { holding: await readHolding(name, bytes, nodePlatform), bytes, name };
}
