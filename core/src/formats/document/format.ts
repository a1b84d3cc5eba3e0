import type { FileFormat } from '../format.ts';
import { isDocument, readBlocks } from './blocks.ts';
import { readDocuments } from './read.ts';

const HTML_ELEMENTS =
  '!doctype\\s+html|html|head|body|h[1-6]|p|div|ol|ul|table|meta|title|center|section|main|article|b|strong';
const HTML_START = new RegExp(
  `^(?:<\\?xml[^>]*\\?>\\s*)?(?:<!--[\\s\\S]*?-->\\s*)*<(?:${HTML_ELEMENTS})(?=[\\s>])`,
  'iu',
);

/** Word-processor files, pages and texts that hold questions. */
export const DOCUMENT_FILES: FileFormat = {
  detect({ entries, head, bytes }) {
    const found = (container: 'docx' | 'rtf' | 'odt' | 'html' | 'pdf' | 'text') => ({
      container,
      standard: 'document' as const,
      version: null,
    });
    if (entries) {
      if (entries.has('word/document.xml')) return found('docx');
      return entries.has('content.xml') && !entries.has('imsmanifest.xml') ? found('odt') : null;
    }
    if (head.startsWith('%PDF-')) return found('pdf');
    if (head.startsWith('{\\rtf')) return found('rtf');
    if (head.startsWith('<')) return HTML_START.test(head) ? found('html') : null;
    return isBinary(bytes) ? { container: 'text', standard: 'unknown', version: null } : found('text');
  },
  async read({ container }, bytes, context) {
    if (!isDocument(container)) throw new TypeError(`no document: ${container}`);
    const document = await readBlocks(container, context.path, bytes, context.platform);
    const read = readDocuments([document], context, context.confirmed);
    // A text without questions may be anything.
    return container === 'text' && read.draft.items.length === 0 ? { ...read, standard: 'unknown' } : read;
  },
};

/** Bytes that no text has, in UTF-16 or anything else. */
function isBinary(bytes: Uint8Array): boolean {
  const head = bytes.subarray(0, 1024);
  const odd = head.filter((b) => b < 9 || (b > 13 && b < 27) || (b > 27 && b < 32)).length;
  const zeros = head.filter((b) => b === 0).length;
  return zeros > 0 ? odd - zeros > head.length * 0.02 || zeros < head.length * 0.2 : odd > head.length * 0.02;
}
