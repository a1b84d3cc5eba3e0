import type { FileFormat } from '../format.ts';
import { isDocument, readBlocks } from './blocks.ts';
import { readDocuments } from './read.ts';

const HTML_ELEMENTS =
  '!doctype\\s+html|html|head|body|h[1-6]|p|div|ol|ul|table|meta|title|center|section|main|article|b|strong';
const HTML_START = new RegExp(`^<(?:${HTML_ELEMENTS})(?=[\\s>])`, 'iu');

/** Whether a page of the web begins here, behind an XML declaration and comments. One pass, whatever the text. */
function startsPage(text: string): boolean {
  let at = 0;
  for (;;) {
    const close = text.startsWith('<?xml', at) ? '?>' : text.startsWith('<!--', at) ? '-->' : null;
    if (close === null) return HTML_START.test(text.slice(at, at + LONGEST_TAG));
    const end = text.indexOf(close, at);
    if (end < 0) return false;
    at = end + close.length;
    while (at < text.length && /\s/u.test(text[at]!)) at += 1;
  }
}
/** As much of a tag as shows its name. */
const LONGEST_TAG = 200;

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
    if (head.startsWith('<')) return startsPage(head) ? found('html') : null;
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
