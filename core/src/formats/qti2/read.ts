import type { DocumentKind } from '../../intake/detect.ts';
import { emptyDraft, type Draft, type DocumentContext } from '../draft.ts';
import { readItem } from './item.ts';
import { readSectionFile, readTest } from './test.ts';

/** Reads one QTI 2 document: an item, a test or a section. `category` comes from the manifest. */
export function readQti2(kind: DocumentKind, context: DocumentContext, category: string | null): Draft {
  const draft = emptyDraft();
  if (kind === 'qti2-item') draft.items.push(readItem(context, category));
  else if (kind === 'qti2-test') readTest(context, draft);
  else if (kind === 'qti2-section') readSectionFile(context, draft);
  return draft;
}
