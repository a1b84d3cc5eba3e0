import type { DocumentsView } from '../../shared/documents.ts';
import { write } from '../store/database.ts';
import { stepsOf } from '../store/editSteps.ts';
import { keepQuestionLayout } from '../store/knownLayouts.ts';
import { layerOf } from './layers.ts';
import { readAnew } from './reading.ts';
import { worked } from './worked.ts';

/** Documents of questions: how they were understood, and what is remembered of it. */

/** A document cannot be shown, in words for people. */
export class DocumentTrouble extends Error {}

/**
 * The documents of a package beside what is read from them, as they stand with all that was said of them.
 * @throws DocumentTrouble where the file cannot be read
 */
export async function documentsView(packageId: string, path: string | null): Promise<DocumentsView | null> {
  const layer = layerOf(await stepsOf(packageId)).edits;
  return worked('documents', { packageId, path, layer }, DocumentTrouble);
}

/**
 * Remembers how a document is laid out: from now on those that look like it are read alike.
 * @returns whether there is such a document
 */
export async function rememberDocument(packageId: string, path: string, name: string): Promise<boolean> {
  const view = await documentsView(packageId, path);
  if (view?.shown.path !== path) return false;
  const { looks, layout } = view.shown;
  await write((tx) => keepQuestionLayout(tx, { name, looks: [...looks], layout }));
  await readAnew();
  return true;
}
