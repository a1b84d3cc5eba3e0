import { decode } from '../../intake/decode.ts';
import { emptyDraft } from '../draft.ts';
import type { FileFormat } from '../format.ts';
import { readCase } from './read.ts';

/** So many characters of a document are looked at to know it. */
const LOOKED_AT = 200_000;

/** Rubrics as CASE; other JSON is known, and nothing of it is read. */
export const CASE_FILES: FileFormat = {
  detect({ bytes, entries, head }) {
    // Rich text begins with a brace as well.
    if (entries || !/^[{[]/u.test(head) || head.startsWith('{\\rtf')) return null;
    const isCase = /"CF(?:Document|Rubrics|Rubric|Package)"|"CFRubricCriteria"/u.test(
      decode(bytes).text.slice(0, LOOKED_AT),
    );
    return { container: 'json', standard: isCase ? 'case' : 'unknown', version: isCase ? '1.0' : null };
  },
  async read(_, bytes, { path, claim, add }) {
    const rubrics = readCase(decode(bytes).text, path, (id) => claim('rubric', id), add);
    return { draft: { ...emptyDraft(), rubrics } };
  },
};
