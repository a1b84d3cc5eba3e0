import type { FileFormat } from '../format.ts';

/** Documents of words: known, and not read yet. */
export const TEXT_FILES: FileFormat = {
  detect({ entries, head }) {
    if (head.startsWith('%PDF-')) return { container: 'pdf', standard: 'text', version: null };
    if (!entries) return { container: 'text', standard: 'unknown', version: null };
    return entries.has('word/document.xml') ? { container: 'docx', standard: 'text', version: null } : null;
  },
  read: null,
};
