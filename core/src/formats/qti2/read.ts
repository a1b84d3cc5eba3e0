import { emptyDraft, readingOne, type Draft, type DocumentContext } from '../draft.ts';
import { readItem } from './item.ts';
import { normaliseNames } from './normalise.ts';
import { readSectionFile, readTest } from './assessmentTest.ts';

/**
 * Reads one document of QTI 2.0 to 3.0: an item, a test or a section.
 * @param category as the manifest has it
 */
export function readQti2(
  kind: 'item' | 'test' | 'section',
  version: string | null,
  context: DocumentContext,
  category: string | null,
): Draft {
  const draft = emptyDraft();
  const standard = version?.startsWith('3') ? 'qti3' : 'qti2';
  if (standard === 'qti3') normaliseNames(context.document.root);
  if (kind === 'item') {
    const read = readingOne(context, context.document.root, () => readItem(context, standard, category));
    if (read) draft.items.push(read);
  }
  if (kind === 'test') readTest(context, standard, draft);
  if (kind === 'section') readSectionFile(context, standard, draft);
  return draft;
}
