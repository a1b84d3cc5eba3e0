import { DEFAULT_LIMITS, openArchive } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { SaxesParser } from 'saxes';

export const LIMITS = { maxUnpacked: 4 * 2 ** 30, maxPacked: 2 * 2 ** 30 };

/** The raw cost of a package: unzipped, and every document's events by a streaming parser. @returns bytes unpacked */
export async function raw(bytes: Uint8Array): Promise<number> {
  const archive = await openArchive('bench.zip', bytes, nodePlatform, { ...DEFAULT_LIMITS, ...LIMITS });
  let unpacked = 0;
  for (const path of archive.files.keys()) {
    const content = archive.read(path)!;
    unpacked += content.length;
    const parser = new SaxesParser({ xmlns: false, position: true });
    parser.on('error', (e) => {
      throw e;
    });
    parser.write(new TextDecoder().decode(content)).close();
  }
  return unpacked;
}
