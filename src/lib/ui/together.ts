import type { PackageListing } from '$lib/shared/types';

/** Files that came in together: which of them can be one source, and what that is called. */

const OF_QUESTIONS: ReadonlySet<string> = new Set([
  'docx',
  'rtf',
  'odt',
  'html',
  'pdf',
  'text',
  'csv',
  'xlsx',
]);

/** Whether a file is a document or a table that can be a chapter, or the answers of one; null until it is read. */
export function isChapter({ summary, state }: PackageListing): boolean | null {
  if (state === 'reading') return null;
  return summary !== null && OF_QUESTIONS.has(summary.format.container) && summary.rubrics === 0;
}

const SHORTEST_NAME = 3;

/** What file names have in common at their start, without a number or a sign at its end. */
export function commonName(names: readonly string[]): string {
  const [first = '', ...others] = names;
  let length = first.length;
  for (const name of others) {
    let same = 0;
    while (same < length && name[same] === first[same]) same += 1;
    length = same;
  }
  const common = first
    .slice(0, length)
    .replace(/(?<![\s\d._-])[\s\d._-]+$/u, '')
    .replace(/(?:ch|chapter|cap|kap|teil|part)$/iu, '')
    .replace(/[\s._-]+/gu, ' ')
    .trim();
  return common.length >= SHORTEST_NAME ? common : 'Chapters';
}
