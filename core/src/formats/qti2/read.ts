import { emptyDraft, type Draft, type DocumentContext } from '../draft.ts';
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
  if (kind === 'item') draft.items.push(readItem(context, standard, category));
  else if (kind === 'test') readTest(context, standard, draft);
  else readSectionFile(context, standard, draft);
  return draft;
}
