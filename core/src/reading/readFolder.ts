import type { BlockDocument } from '../document/block.ts';
import type { DocumentContext } from '../formats/draft.ts';
import { isDocument, readBlocks } from '../formats/document/blocks.ts';
import { readDocuments } from '../formats/document/read.ts';
import { detectFile } from '../formats/table.ts';
import type { Platform } from '../intake/platform.ts';
import { cleanAddress, resolvePath } from '../intake/paths.ts';
import { Refusal, type Finding } from '../model/finding.ts';
import type { FileRef } from '../model/holding.ts';
import { openPackage, type ReadLimits } from './open.ts';
import type { Read } from './readPackage.ts';

/** Documents in one archive are read together; more are no textbook. */
const MOST_DOCUMENTS = 500;

/** An archive of documents of questions, a chapter each; null where it holds none. One bad file leaves the others. */
export async function readFolder(
  name: string,
  bytes: Uint8Array,
  platform: Platform,
  limits: ReadLimits,
  claim: DocumentContext['claim'],
  add: (found: Finding) => void,
): Promise<Read | null> {
  const opened = await openPackage(name, bytes, platform, limits, () => undefined);
  const documents: BlockDocument[] = [];
  const refused: Finding[] = [];
  const read = new Set<string>();
  for (const path of [...opened.files.keys()].sort(byNumber)) {
    const content = opened.read(path);
    if (!content || content.length === 0 || documents.length >= MOST_DOCUMENTS) continue;
    const detected = await detectFile(content, platform);
    if (!detected || detected.format.standard !== 'document' || !isDocument(detected.format.container))
      continue;
    try {
      documents.push(
        await readBlocks(detected.format.container, path, content, platform, (address) => {
          const at = resolvePath(path, cleanAddress(address));
          if (at !== null) read.add(at);
          return at === null ? null : opened.read(at);
        }),
      );
      read.add(path);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      refused.push({ ...error.finding, where: { ...error.finding.where, path } });
    }
  }
  if (documents.length === 0 && refused.length === 0) return null;
  refused.forEach(add);
  const found = readDocuments(documents, { path: name, claim, add }, limits.layout ?? null);
  const others = [...opened.files]
    .filter(([path]) => !read.has(path))
    .map(([path, f]): FileRef => ({ path, bytes: f.bytes, sha256: f.sha256 }));
  const { draft, files = [], title = '', documents: readings } = found;
  return {
    draft,
    outline: [],
    files: [...files, ...others],
    format: { container: 'zip', standard: 'document', version: null },
    title,
    documents: readings,
  };
}

/** "chapter-10" comes after "chapter-9". */
const byNumber = (a: string, b: string): number => a.localeCompare(b, 'en', { numeric: true });
