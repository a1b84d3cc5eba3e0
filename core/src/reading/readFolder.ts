import type { BlockDocument } from '../document/block.ts';
import { detailOf, type DocumentContext } from '../formats/draft.ts';
import { isDocument, readBlocks } from '../formats/document/blocks.ts';
import { readDocuments, type RecognisedAs } from '../formats/document/read.ts';
import { detectFile } from '../formats/table.ts';
import { allowanceFor, DEFAULT_LIMITS } from '../intake/archive.ts';
import type { Platform } from '../intake/platform.ts';
import { cleanAddress, resolvePath } from '../intake/paths.ts';
import { finding, Refusal, type Finding } from '../model/finding.ts';
import type { FileRef } from '../model/holding.ts';
import { recognisedTables } from '../formats/table/questions.ts';
import { confirmedBy, openPackage, type ReadLimits } from './open.ts';
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
  const allowance = allowanceFor(bytes.length, { ...DEFAULT_LIMITS, ...limits });
  const opened = await openPackage(name, bytes, platform, { ...limits, allowance }, () => undefined);
  const documents: BlockDocument[] = [];
  const tables: { path: string; container: 'csv' | 'xlsx'; content: Uint8Array }[] = [];
  const refused: Finding[] = [];
  const read = new Set<string>();
  const fileAt = (path: string) => (address: string) => {
    const at = resolvePath(path, cleanAddress(address));
    if (at !== null) read.add(at);
    return at === null ? null : opened.read(at);
  };
  for (const path of [...opened.files.keys()].sort(byNumber)) {
    const content = opened.read(path);
    if (!content || content.length === 0 || documents.length + tables.length >= MOST_DOCUMENTS) continue;
    const detected = await detectFile(content, platform);
    if (!detected) continue;
    const { container, standard } = detected.format;
    if (standard === 'table' && (container === 'csv' || container === 'xlsx')) {
      tables.push({ path, container, content });
      continue;
    }
    if (standard !== 'document' || !isDocument(container)) continue;
    try {
      documents.push(await readBlocks(container, path, content, platform, fileAt(path), allowance));
      read.add(path);
    } catch (error) {
      refused.push(whyUnread(path, error));
    }
  }
  const context = { path: name, claim, add, onRecognised: limits.onRecognised };
  const ofTables: RecognisedAs[] = [];
  for (const { path, container, content } of tables) {
    try {
      const found = await recognisedTables(
        path,
        container,
        content,
        platform,
        confirmedBy(limits),
        allowance,
      );
      if (found) ofTables.push(...found);
      else refused.push(finding('questions-none', 'note', { path }));
      if (found) read.add(path);
    } catch (error) {
      refused.push(whyUnread(path, error));
    }
  }
  if (documents.length + ofTables.length === 0 && refused.every((f) => f.severity === 'note')) return null;
  refused.forEach(add);
  const found = readDocuments(documents, context, confirmedBy(limits), ofTables);
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

function whyUnread(path: string, error: unknown): Finding {
  if (error instanceof Refusal) return { ...error.finding, where: { ...error.finding.where, path } };
  return finding('document-unreadable', 'error', { path }, { detail: detailOf(error) });
}

/** "chapter-10" comes after "chapter-9". */
const byNumber = (a: string, b: string): number => a.localeCompare(b, 'en', { numeric: true });
